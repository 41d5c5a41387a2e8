package org.zestyporter.core.fill;

import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.value.Cell;

/** A row of a batch; moved on from row to row by one thread. */
public final class BatchRow implements Row {
  private final RunContext run;
  private final Batch batch;
  private int row;

  public BatchRow(Batch batch, RunContext run) {
    this.batch = batch;
    this.run = run;
  }

  /** Moves to a row of the batch. */
  public BatchRow at(int other) {
    row = other;
    return this;
  }

  @Override
  public Cell cell(int column) {
    return batch.columns()[column].cell(row);
  }

  @Override
  public long index() {
    return batch.index(row);
  }

  @Override
  public long line() {
    return batch.lines()[row];
  }

  @Override
  public RunContext run() {
    return run;
  }
}
