package org.zestyporter.core.source.layout;

import java.util.Arrays;
import java.util.BitSet;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.value.Cell;

/** Columns in which a blank cell stands for the cell above it, as in grouped tables. */
final class FillDown {
  private final SourceCache cache;
  private final int[] columns;

  /** The last cell of each of the columns before a chunk. */
  private final Cell[][] carried;

  /** The same before the chunk that comes next. */
  private final Cell[] carry;

  /**
   * @param columns indexes of the columns
   */
  FillDown(SourceCache cache, int[] columns) {
    this.cache = cache;
    this.columns = columns;
    this.carried = new Cell[cache.chunks()][];
    this.carry = new Cell[columns.length];
    Arrays.fill(carry, Cell.BLANK);
  }

  /**
   * Takes what a chunk hands on to the next; to be called for each in turn.
   *
   * @param rows those of its rows that count
   */
  void carryOn(int chunk, BitSet rows) {
    carried[chunk] = carry.clone();
    for (int i = 0; i < columns.length; i++) {
      ColumnChunk column = cache.column(chunk, columns[i]);
      for (int r = rows.length() - 1; r >= 0; r = rows.previousSetBit(r - 1)) {
        if (rows.get(r) && !column.cell(r).isBlank()) {
          carry[i] = column.cell(r);
          break;
        }
      }
    }
  }

  /**
   * A column of a chunk, filled down if it is one of these.
   *
   * @param rows rows that count, the others are passed over; null if all do
   */
  ColumnChunk column(int chunk, int column, @Nullable BitSet rows) {
    ColumnChunk plain = cache.column(chunk, column);
    for (int i = 0; i < columns.length; i++) {
      if (columns[i] == column) {
        return filled(plain, carried[chunk][i], rows);
      }
    }
    return plain;
  }

  private static ColumnChunk filled(ColumnChunk column, Cell before, @Nullable BitSet rows) {
    Cell[] distinct = Arrays.copyOf(column.distinct(), column.distinct().length + 1);
    distinct[distinct.length - 1] = before;
    boolean[] blank = column.blanks();
    int[] codes = column.codes().clone();
    int last = distinct.length - 1;
    for (int r = 0; r < codes.length; r++) {
      if (rows != null && !rows.get(r)) {
        continue;
      }
      if (blank[codes[r]]) {
        codes[r] = last;
      } else {
        last = codes[r];
      }
    }
    return new ColumnChunk(distinct, codes);
  }
}
