package org.zestyporter.core.source;

import java.util.Arrays;

/**
 * Some hundred to some thousand records of a source, by column.
 *
 * @param firstRow index of the first record among the source's records, from 0
 * @param lines the line number of each record in the file, from 1
 * @param columns one chunk of cells a column of the source
 */
public record Batch(long firstRow, long[] lines, ColumnChunk[] columns) {

  public int rows() {
    return lines.length;
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Batch b
        && firstRow == b.firstRow
        && Arrays.equals(lines, b.lines)
        && Arrays.equals(columns, b.columns);
  }

  @Override
  public int hashCode() {
    return 31 * Arrays.hashCode(lines) + Arrays.hashCode(columns);
  }

  @Override
  public String toString() {
    return "records from " + firstRow + ", " + lines.length + " rows";
  }
}
