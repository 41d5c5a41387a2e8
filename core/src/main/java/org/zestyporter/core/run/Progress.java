package org.zestyporter.core.run;

import org.jspecify.annotations.Nullable;

/** Hears how far a rehearsal or run has come. */
public interface Progress {

  /** What is being done. */
  enum Phase {
    /** Another run writes into the table. */
    WAITING,
    MATCHING,
    WRITING
  }

  /**
   * @param rows rows done in this phase
   * @param total rows of the source
   */
  void at(Phase phase, long rows, long total);

  /** Hears how many rows were rejected so far; in a rehearsal not those that only wait. */
  default void rejected(long rows) {
    // not all want to know
  }

  /** Hears which run it waits for; null once it waits no more. */
  default void behind(@Nullable String other) {
    // not all want to know
  }

  /** True once the person wants it to end; asked between batches. */
  default boolean stopped() {
    return false;
  }

  Progress NONE = (phase, rows, total) -> {};
}
