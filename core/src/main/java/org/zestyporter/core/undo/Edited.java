package org.zestyporter.core.undo;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** What an undo does with a record that was edited after the run. */
public enum Edited {
  /** It stays as it is now. */
  KEEP,
  /** It is put back as it was before the run, and removed if the run had added it. */
  PUT_BACK,
  /** Only the fields that the run had changed are put back; a record that it added stays. */
  FIELDS;

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT).replace('_', '-');
  }
}
