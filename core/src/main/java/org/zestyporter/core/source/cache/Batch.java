package org.zestyporter.core.source.cache;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Some hundred to some thousand records of a source, by column.
 *
 * @param firstRow index of the first record among the source's records, from 0
 * @param lines the line number of each record in the file, from 1
 * @param columns one chunk of cells a column of the source
 * @param picked index of each record, counted from {@code firstRow}; null if they follow each other
 */
public record Batch(long firstRow, long[] lines, ColumnChunk[] columns, int @Nullable [] picked) {
  public Batch(long firstRow, long[] lines, ColumnChunk[] columns) {
    this(firstRow, lines, columns, null);
  }

  /** Index of a record among the source's records, from 0. */
  public long index(int row) {
    return firstRow + (picked == null ? row : picked[row]);
  }

  /** Number of records. */
  public int rows() {
    return lines.length;
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Batch b
        && firstRow == b.firstRow
        && Arrays.equals(lines, b.lines)
        && Arrays.equals(picked, b.picked)
        && Arrays.equals(columns, b.columns);
  }

  @Override
  public int hashCode() {
    return 31 * Arrays.hashCode(lines) + Arrays.hashCode(columns);
  }

  @Override
  public String toString() {
    return "records from " + firstRow + ", " + lines.length + " records";
  }
}
