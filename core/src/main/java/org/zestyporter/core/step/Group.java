package org.zestyporter.core.step;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** What steps are for. */
public enum Group {
  TIDY,
  PARTS,
  WORDS,
  BLANKS,
  READ,
  COMPUTE,
  KNOWN;

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
