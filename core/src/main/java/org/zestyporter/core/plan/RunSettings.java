package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonValue;

/**
 * How a run goes.
 *
 * @param mode whether what was written stays when the database refuses a row
 */
public record RunSettings(Mode mode) {

  /** Whether what was written stays when the database refuses a row. */
  public enum Mode {
    /** One transaction: a single refusal takes everything back. */
    ALL_OR_NOTHING;

    @JsonValue
    public String word() {
      return "all-or-nothing";
    }
  }

  public static final RunSettings ALL_OR_NOTHING = new RunSettings(Mode.ALL_OR_NOTHING);

  public RunSettings {
    mode = mode == null ? Mode.ALL_OR_NOTHING : mode;
  }
}
