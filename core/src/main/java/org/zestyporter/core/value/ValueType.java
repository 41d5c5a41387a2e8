package org.zestyporter.core.value;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** What a column's values are, once the whole column has been seen. */
public enum ValueType {
  TEXT,
  WHOLE,
  DECIMAL,
  DATE,
  DATETIME,
  TIME,
  BOOLEAN,
  EMPTY;

  /** The word used in plans, on the command line and over HTTP. */
  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }

  public boolean isNumber() {
    return this == WHOLE || this == DECIMAL;
  }
}
