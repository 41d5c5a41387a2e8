package org.zestyporter.core.source;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** The formats that can be read. */
public enum SourceFormat {
  DELIMITED,
  XLSX;

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
