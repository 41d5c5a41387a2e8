package org.zestyporter.core.preview;

import java.util.List;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.FillColumns;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;

/** Finds records whose values can't be taken. */
public final class Troubles {
  private Troubles() {}

  /**
   * The next record in trouble.
   *
   * @param after index of the record to begin after, from 0; -1 to begin with the first
   * @return its index, or -1 if there is none further on
   */
  public static long next(SourceTable source, List<CompiledFill> fills, long after) {
    if (after + 1 >= source.rowCount() || fills.isEmpty()) {
      return -1;
    }
    List<FillColumns> ready = FilledChunk.ready(fills);
    for (int i = source.batchOf(after + 1); i < source.batches(); i++) {
      Batch batch = source.batch(i);
      int from = (int) Math.max(0, after + 1 - batch.firstRow());
      FilledChunk computed = FilledChunk.of(batch, fills, ready);
      for (int row = from; row < computed.rows(); row++) {
        if (computed.rejected(row)) {
          return batch.firstRow() + row;
        }
      }
    }
    return -1;
  }
}
