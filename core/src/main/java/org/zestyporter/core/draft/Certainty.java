package org.zestyporter.core.draft;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** How sure a proposal is, the surest first. */
public enum Certainty {
  /** Name and values agree, or somebody has filled the field so before. */
  PLAIN,
  /** One of the two speaks for it, and nothing against it. */
  LIKELY,
  /** Little speaks for it: it is to be confirmed. */
  GUESS;

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
