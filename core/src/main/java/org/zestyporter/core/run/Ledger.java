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

  /**
   * Takes the entries of a chunk of which some rows wait for others further on, before a batch is
   * committed. They count until the next batch is, in which the chunk is handed over anew, by this
   * or by {@link #append}.
   */
  default void open(LedgerChunk chunk) {
    // only who lets runs go on wants them
  }

  /** True if it wants entries at all. */
  default boolean isKept() {
    return true;
  }

  /**
   * Called before a batch is made lasting, which may be the only one. All entries of its rows were
   * handed over, and must be durable when this returns.
   *
   * @param report the books of these rows and all before them
   * @param mark what tells the transaction from all others in the application's database; null if
   *     nothing does
   */
  default void beforeCommit(Batch batch, RunReport report, @Nullable String mark) {
    // most ledgers need not know
  }

  /** Called once a batch stands; that must be durable when this returns, unless it is the last. */
  default void committed(Batch batch) {
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
