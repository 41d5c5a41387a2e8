package org.zestyporter.core.source;

import java.util.List;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.value.DistinctValues;

/**
 * The rows of a source, or what of them goes to one of the tables that a plan fills: some of them,
 * or several parts of one.
 */
public interface Rows {
  /** Names of the columns. */
  List<String> columns();

  /** Number of rows, or of their parts. */
  long rowCount();

  /** Number of batches; some may hold no row. */
  int batches();

  /** The rows of one batch, in the order of the file. */
  Batch batch(int number);

  /**
   * Number of the batch that holds a row of the source, whether it goes anywhere or not.
   *
   * @param row index among the rows of the source, from 0
   * @throws org.zestyporter.core.value.PorterException with code {@code no-such-row}
   */
  int batchOf(long row);

  /** The distinct cells of a column. */
  DistinctValues distinct(int column);

  /** The distinct combinations of some columns. */
  Combinations combinations(List<Integer> columns);
}
