package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/**
 * How a run goes.
 *
 * @param mode whether what was written stays when the database refuses a row
 * @param whenAltered what it means that the application keeps another value than it was given
 * @param rows what becomes of a row's other records when one of them is rejected
 */
public record RunSettings(Mode mode, WhenAltered whenAltered, Rows rows) {

  /** What becomes of a row's other records when one of them is rejected. */
  public enum Rows {
    /** None is written. */
    WHOLE,
    /** They are written, but for those that belong to it. */
    EACH;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

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

  public static final RunSettings ALL_OR_NOTHING = new RunSettings(null, null, null);

  public RunSettings(Mode mode, WhenAltered whenAltered) {
    this(mode, whenAltered, null);
  }

  public RunSettings {
    mode = mode == null ? Mode.ALL_OR_NOTHING : mode;
    whenAltered = whenAltered == null ? WhenAltered.ACCEPT : whenAltered;
    rows = rows == null ? Rows.WHOLE : rows;
  }
}
