package org.zestyporter.core.source;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import org.zestyporter.core.source.parse.NoteCode;
import org.zestyporter.core.value.ColumnProfile.FindingCode;

/** The vocabulary of what should be known of a file, though it can be read. */
public enum WarningCode {
  // of a column's values
  SHORT_YEARS,
  LEADING_ZEROS,
  SHORTENED_NUMBERS,
  DATES_AMONG_CODES,
  CURRENCY,
  SEVERAL_CURRENCIES,
  OUTER_SPACES,
  ERRORS,
  UNDECODABLE,
  BLANK_WORDS,

  // of how numbers and dates are written
  AMBIGUOUS_DECIMALS,
  AMBIGUOUS_DATES,
  OTHER_DECIMAL,
  OTHER_DATE_ORDER,

  // of cells, as they were parsed
  PERCENT,
  MONEY,
  ZERO_PADDED,
  TOO_MANY_DIGITS,
  DURATION,
  NO_RESULT,
  STRAY_QUOTE,

  /** Lines with more or fewer cells than the titles. */
  CELL_COUNT;

  /** What a column's profile found. */
  static WarningCode of(FindingCode found) {
    return valueOf(found.name());
  }

  /** What a parser noted. */
  static WarningCode of(NoteCode noted) {
    return valueOf(noted.name());
  }

  /** The code used in reports and by which a person's word on it is kept. */
  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT).replace('_', '-');
  }
}
