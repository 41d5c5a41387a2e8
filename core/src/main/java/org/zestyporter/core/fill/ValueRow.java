package org.zestyporter.core.fill;

import org.zestyporter.core.value.Cell;

/**
 * One of the distinct values of some columns, in the place of the rows that hold it.
 *
 * @param columns indexes of the columns
 * @param cells a cell for each of them
 * @param line line of the first row that holds them
 */
public record ValueRow(int[] columns, Cell[] cells, long line, long index, RunContext run)
    implements Row {

  public static ValueRow of(int column, Cell cell, long line, RunContext run) {
    return new ValueRow(new int[] {column}, new Cell[] {cell}, line, 0, run);
  }

  @Override
  public Cell cell(int column) {
    for (int i = 0; i < columns.length; i++) {
      if (columns[i] == column) {
        return cells[i];
      }
    }
    return Cell.BLANK;
  }
}
