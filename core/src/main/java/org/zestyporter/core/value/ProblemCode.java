package org.zestyporter.core.value;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** The vocabulary of what can be wrong with a value or a row. */
public enum ProblemCode {
  NOT_A_NUMBER,
  NOT_A_DATE,
  NOT_A_TIME,
  NOT_TRUE_OR_FALSE,
  WRONG_TYPE,
  TOO_LONG,
  TOO_PRECISE,
  OUT_OF_RANGE,
  MALFORMED,
  FORBIDDEN_CHARACTER,
  REQUIRED,
  UNKNOWN_CHOICE,
  UNKNOWN_LINK,
  SEVERAL_LINKS,
  /** A record that a link makes is made of an earlier row, which says something else of it. */
  SAID_OTHERWISE,
  FORMULA,
  NOT_AVAILABLE,
  UNKNOWN_WORD,
  NOT_A_PHONE_NUMBER,
  NOT_AN_EMAIL,
  NOT_A_CODE,
  CUT,
  DEFAULTED,
  CHECK,
  CELL_ERROR,
  UNDECODABLE,
  NO_MATCH,
  MATCHED,
  SEVERAL_MATCHES,
  /** Records are near to what the row says, and may be the one that it speaks of. */
  SIMILAR,
  /** Earlier rows are near to what the row says; the value tells their lines. */
  SIMILAR_ROW,
  REPEATED,
  /** Rows with the same key say different things; the value is the line of the first. */
  CONTRADICTED,
  /** Somebody has decided that such rows are left out. */
  DECIDED,
  /** The record keeps a value that the plan does not let be lowered, or raised. */
  KEPT,
  /** A number is far above all others of its field. */
  FAR_OFF,
  TAKEN,
  ALTERED,
  PARENT,
  ROW_REJECTED,
  CIRCLE,
  /** A draft chose the column on slight evidence, and nobody has confirmed it. */
  GUESS,
  /** Dates that nothing tells day from month in, while nobody has said which comes first. */
  AMBIGUOUS_DATES,
  /** Numbers whose only sign may part thousands or decimals, while nobody has said which. */
  AMBIGUOUS_DECIMALS,
  /** The database refused the record. */
  REFUSED,
  /** The row waits for one further on, in a run that was cut off in between. */
  WAITING,
  /** A record was edited after a run, so that its undo leaves it. */
  EDITED_SINCE,
  /** A record is not there any more. */
  GONE,
  /** A record is there again under the key of one that was removed. */
  THERE_AGAIN,
  /** The database keeps a record as it is. */
  HELD;

  /** True for what one answer settles for the rows of one key, not for those of one value. */
  public boolean isOfMatch() {
    return switch (this) {
      case NO_MATCH, MATCHED, SEVERAL_MATCHES, SIMILAR, SIMILAR_ROW, CONTRADICTED -> true;
      default -> false;
    };
  }

  /** True for what befalls a row because of another record that it makes. */
  public boolean isOfAnother() {
    return this == PARENT || this == ROW_REJECTED;
  }

  /** The code used in plans, ledgers and reports, such as {@code not-a-date}. */
  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT).replace('_', '-');
  }
}
