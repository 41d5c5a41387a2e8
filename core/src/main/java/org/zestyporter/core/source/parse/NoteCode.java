package org.zestyporter.core.source.parse;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** What a parser has to tell of cells beside their values. */
public enum NoteCode {
  /** A fraction that the sheet shows in per cent. */
  PERCENT,
  /** An amount that the sheet shows with a currency. */
  MONEY,
  /** A number that the sheet shows with zeros before it, taken as it is shown. */
  ZERO_PADDED,
  /** A number of more than 15 digits, of which spreadsheets keep only 15. */
  TOO_MANY_DIGITS,
  /** A time of 24 hours and more, taken as text. */
  DURATION,
  /** A formula that was saved without its result. */
  NO_RESULT,
  /** Text after the closing quote of a cell. */
  STRAY_QUOTE;

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT).replace('_', '-');
  }
}
