package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/**
 * How a run goes.
 *
 * @param mode whether what was written stays when the database refuses a row
 * @param whenAltered what it means that the application keeps another value than it was given
 */
public record RunSettings(Mode mode, WhenAltered whenAltered) {

  /** Whether what was written stays when the database refuses a row. */
  public enum Mode {
    /** One transaction: a single refusal takes everything back. */
    ALL_OR_NOTHING;

    @JsonValue
    public String word() {
      return "all-or-nothing";
    }
  }

  /**
   * What it means that the application (a trigger, a rule) keeps another value than it was given.
   */
  public enum WhenAltered {
    /** That is its right: the ledger and the books tell it. */
    ACCEPT,
    /** Nothing is written. */
    REFUSE;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  public static final RunSettings ALL_OR_NOTHING =
      new RunSettings(Mode.ALL_OR_NOTHING, WhenAltered.ACCEPT);

  public RunSettings {
    mode = mode == null ? Mode.ALL_OR_NOTHING : mode;
    whenAltered = whenAltered == null ? WhenAltered.ACCEPT : whenAltered;
  }
}
