package org.zestyporter.core.fill;

import java.util.List;
import org.zestyporter.core.source.Batch;
import org.zestyporter.core.source.SourceTable;

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
    if (after + 1 >= source.rowCount()) {
      return -1;
    }
    List<CompiledFill.Memo> memos = fills.stream().map(CompiledFill::memo).toList();
    for (int i = source.batchOf(after + 1); i < source.batches(); i++) {
      Batch batch = source.batch(i);
      int from = (int) Math.max(0, after + 1 - batch.firstRow());
      for (int row = from; row < batch.rows(); row++) {
        if (troubled(batch, row, fills, memos)) {
          return batch.firstRow() + row;
        }
      }
    }
    return -1;
  }

  private static boolean troubled(
      Batch batch, int row, List<CompiledFill> fills, List<CompiledFill.Memo> memos) {
    for (int f = 0; f < fills.size(); f++) {
      BatchRow at = new BatchRow(batch, fills.get(f).context()).at(row);
      if (memos.get(f).get(at).rejects()) {
        return true;
      }
    }
    return false;
  }
}
