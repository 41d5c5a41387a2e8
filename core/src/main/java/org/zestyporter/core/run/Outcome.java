package org.zestyporter.core.run;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** A row's fate in a destination. The order is part of the ledger's format. */
public enum Outcome {
  NEW,
  CHANGED,
  UNCHANGED,
  SKIPPED,
  REJECTED;

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
