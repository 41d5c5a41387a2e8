package org.zestyporter.core.source;

import java.util.Arrays;
import org.zestyporter.core.value.Cell;

/**
 * One column of a chunk of rows: its distinct cells and, for each row, which of them it holds.
 *
 * <p>What depends on one column only is computed once for each distinct cell and looked up by code.
 *
 * @param distinct the distinct cells
 * @param codes one index into {@code distinct} a row
 */
public record ColumnChunk(Cell[] distinct, int[] codes) {

  /** A column of blank cells. */
  public static ColumnChunk blank(int rows) {
    return new ColumnChunk(new Cell[] {Cell.BLANK}, new int[rows]);
  }

  public Cell cell(int row) {
    return distinct[codes[row]];
  }

  public int rows() {
    return codes.length;
  }

  /** True for each distinct cell that is blank. */
  boolean[] blanks() {
    boolean[] blank = new boolean[distinct.length];
    for (int d = 0; d < blank.length; d++) {
      blank[d] = distinct[d].isBlank();
    }
    return blank;
  }

  ColumnChunk select(int[] rows) {
    int[] picked = new int[rows.length];
    for (int i = 0; i < rows.length; i++) {
      picked[i] = codes[rows[i]];
    }
    return new ColumnChunk(distinct, picked);
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof ColumnChunk c
        && Arrays.equals(distinct, c.distinct)
        && Arrays.equals(codes, c.codes);
  }

  @Override
  public int hashCode() {
    return 31 * Arrays.hashCode(distinct) + Arrays.hashCode(codes);
  }

  @Override
  public String toString() {
    return codes.length + " rows, " + distinct.length + " distinct";
  }
}
