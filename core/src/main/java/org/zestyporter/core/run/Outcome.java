package org.zestyporter.core.run;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** A row's fate in a destination. The order is part of the ledger's format. */
public enum Outcome {
  NEW,
  CHANGED,
  UNCHANGED,
  SKIPPED,
  REJECTED,
  /** The record was taken away, as by an undo. */
  REMOVED;

  private static final Outcome[] ALL = values();

  /** The outcome of a place in the order. */
  public static Outcome of(int ordinal) {
    return ALL[ordinal];
  }

  /** True if something was written for the row. */
  public boolean isWritten() {
    return this == NEW || this == CHANGED || this == REMOVED;
  }

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
