package org.zestyporter.core.run;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** Keeps what happened to each row. */
public interface Ledger {

  /**
   * Begins a destination.
   *
   * @param fields names of the fields whose values the entries hold
   */
  void begin(int destination, String table, List<String> fields);

  /** Takes the entries of a batch; batches come in the order of the file. */
  void append(LedgerChunk chunk);

  /**
   * Called after everything is written and before it is made lasting, with the final books. What is
   * kept here must be durable when it returns.
   *
   * @param mark what tells the transaction from all others in the application's database; null if
   *     nothing does
   */
  default void beforeCommit(RunReport report, @Nullable String mark) {
    // most ledgers need not know
  }

  /** Keeps nothing. */
  Ledger NONE =
      new Ledger() {
        @Override
        public void begin(int destination, String table, List<String> fields) {
          // nothing is kept
        }

        @Override
        public void append(LedgerChunk chunk) {
          // nothing is kept
        }
      };
}
