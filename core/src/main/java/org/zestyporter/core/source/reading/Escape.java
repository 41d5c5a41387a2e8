package org.zestyporter.core.source.reading;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** How a quote stands inside a quoted cell. */
public enum Escape {
  /** Twice, after RFC 4180. */
  DOUBLED,
  /** Behind a backslash, as a line break and a tab may be too ({@code \n}, {@code \t}). */
  BACKSLASH;

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
