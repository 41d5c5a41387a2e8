package org.zestyporter.core.run;

import org.jspecify.annotations.Nullable;

/** Keeps what happened to each row. */
public interface Ledger {

  /** Begins a destination; all are begun before the first chunk. */
  void begin(LedgerLayout layout);

  /** Takes the entries of a chunk; those of a destination come in the order of the file. */
  void append(LedgerChunk chunk);

  /**
   * Takes linked records that rows made, as they stand; their layout {@link LedgerLayout#isMade}
   * and is not begun beforehand.
   */
  default void made(LedgerChunk chunk) {
    // what rows came to is all that most want
  }

  /** True if it wants entries at all. */
  default boolean isKept() {
    return true;
  }

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
        public void begin(LedgerLayout layout) {
          // nothing is kept
        }

        @Override
        public void append(LedgerChunk chunk) {
          // nothing is kept
        }

        @Override
        public boolean isKept() {
          return false;
        }
      };
}
