package org.zestyporter.core.preview;

import java.util.List;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.FillColumns;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.source.Rows;
import org.zestyporter.core.source.cache.Batch;

/** Finds records whose values can't be taken. */
public final class Troubles {
  private Troubles() {}

  /**
   * The next record in trouble.
   *
   * @param source what of the records is filled
   * @param after index of the record to begin after, from 0; -1 to begin with the first
   * @return its index, or -1 if there is none further on
   */
  public static long next(Rows source, List<CompiledFill> fills, long after) {
    List<FillColumns> ready = FilledChunk.ready(fills);
    int last = fills.isEmpty() ? 0 : source.batches();
    for (int i = after < 0 ? 0 : source.batchOf(after); i < last; i++) {
      Batch batch = source.batch(i);
      FilledChunk computed = FilledChunk.of(batch, fills, ready);
      for (int row = 0; row < computed.rows(); row++) {
        if (batch.index(row) > after && computed.rejected(row)) {
          return batch.index(row);
        }
      }
    }
    return -1;
  }
}
