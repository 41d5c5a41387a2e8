package org.zestyporter.core.run;

import java.util.List;

/** A ledger as it is kept: what a run, or as much of it as stands, did. */
public interface KeptLedger {

  /** Its parts: one for each destination, and for each table in which rows made linked records. */
  List<LedgerLayout> layouts();

  /** Number of chunks of a part. */
  int chunks(LedgerLayout layout);

  /** Number of chunks of a part whose rows are all decided; those that are open come after them. */
  default int closed(LedgerLayout layout) {
    return chunks(layout);
  }

  /**
   * A chunk of a part.
   *
   * @param number from 0, in the order in which they were entered
   */
  LedgerChunk chunk(LedgerLayout layout, int number);
}
