package org.zestyporter.core.fill;

import java.util.List;
import org.zestyporter.core.source.Batch;
import org.zestyporter.core.source.ColumnChunk;

/** A batch with the values that all fills gave for it. */
public final class ComputedBatch {
  private final Batch batch;
  private final List<CompiledFill> fills;
  private final Filled[][] filled;
  private final boolean[] rejected;

  private ComputedBatch(
      Batch batch, List<CompiledFill> fills, Filled[][] filled, boolean[] rejected) {
    this.batch = batch;
    this.fills = fills;
    this.filled = filled;
    this.rejected = rejected;
  }

  /** Computes each fill once for each distinct cell of the batch, or row by row. */
  public static ComputedBatch of(
      Batch batch, List<CompiledFill> fills, List<CompiledFill.Memo> memos, RunContext context) {
    Filled[][] filled = new Filled[fills.size()][batch.rows()];
    boolean[] rejected = new boolean[batch.rows()];
    BatchRow row = new BatchRow(batch, context);
    for (int f = 0; f < fills.size(); f++) {
      int column = fills.get(f).column();
      CompiledFill.Memo memo = memos.get(f);
      Filled[] values = filled[f];
      if (column < 0) {
        for (int r = 0; r < values.length; r++) {
          values[r] = memo.get(row.at(r));
        }
      } else {
        ColumnChunk cells = batch.columns()[column];
        Filled[] byCode = new Filled[cells.distinct().length];
        for (int r = 0; r < values.length; r++) {
          int code = cells.codes()[r];
          if (byCode[code] == null) {
            byCode[code] = memo.get(row.at(r));
          }
          values[r] = byCode[code];
        }
      }
      for (int r = 0; r < values.length; r++) {
        rejected[r] |= values[r].rejects();
      }
    }
    return new ComputedBatch(batch, fills, filled, rejected);
  }

  public int rows() {
    return batch.rows();
  }

  public long line(int row) {
    return batch.lines()[row];
  }

  public Filled filled(int fill, int row) {
    return filled[fill][row];
  }

  /** True if a fill of the row can't be taken. */
  public boolean rejected(int row) {
    return rejected[row];
  }

  /** Puts the row's values into an array by the table's fields. */
  public void values(int row, Object[] byField) {
    java.util.Arrays.fill(byField, null);
    for (int f = 0; f < fills.size(); f++) {
      byField[fills.get(f).fieldIndex()] = filled[f][row].value();
    }
  }
}
