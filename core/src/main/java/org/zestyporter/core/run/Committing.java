package org.zestyporter.core.run;

import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** Makes lasting what a run writes: all of it together, or batch by batch. */
final class Committing {
  private final WriteSession session;
  private final Ledger ledger;
  private final Watch watch;
  private final Progress progress;
  private final RunSettings settings;
  private int batches;
  private long rows;

  /**
   * @param batches number of batches that stand already
   * @param rows the source's rows that they took in
   */
  Committing(
      WriteSession session,
      Ledger ledger,
      Watch watch,
      Progress progress,
      RunSettings settings,
      int batches,
      long rows) {
    this.session = session;
    this.ledger = ledger;
    this.watch = watch;
    this.progress = progress;
    this.settings = settings;
    this.batches = batches;
    this.rows = rows;
  }

  /** True if the rows up to one make a batch. */
  boolean isDue(long upTo) {
    return settings.mode() == RunSettings.Mode.BATCHES && upTo - rows >= settings.batchRows();
  }

  /**
   * Makes the rows up to one lasting.
   *
   * @param report their books, and those of all before them
   * @throws PorterException with code {@code unsure} if nobody can tell from here whether they are;
   *     {@code stopped} if the run is to end
   */
  void commit(RunReport report, long upTo, boolean last) {
    watch.without(
        () -> {
          Batch batch = new Batch(batches + 1, upTo, last);
          String mark = session.mark();
          Pipeline.requireGoing(progress);
          ledger.beforeCommit(batch, report, mark);
          session.commit();
          batches = batch.number();
          rows = upTo;
          note(batch);
        });
  }

  private void note(Batch batch) {
    try {
      ledger.committed(batch);
    } catch (RuntimeException e) {
      throw ErrorCode.UNSURE.error(
          "The records are written, but that could not be noted. It will be found out.", e);
    }
  }

  /** Rows that stand. */
  long rows() {
    return rows;
  }
}
