package org.zestyporter.core.value;

import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonValue;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Locale;

/**
 * One cell of a source, as a fill receives it.
 *
 * <p>A text file only has {@link Kind#TEXT}; a workbook also stores real numbers and dates, which
 * must not be read a second time in the sender's locale. The text of a number has no grouping and a
 * point as decimal sign; dates and times are ISO 8601.
 *
 * @param kind how the file stores the cell
 * @param text never null; empty for a blank cell
 */
public record Cell(Kind kind, String text) {

  /** How a file stores a cell. The order is part of the cache's file format. */
  public enum Kind {
    TEXT,
    NUMBER,
    DATE,
    DATETIME,
    TIME,
    BOOLEAN,
    ERROR;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  public static final Cell BLANK = new Cell(Kind.TEXT, "");

  public static Cell text(String text) {
    return text.isEmpty() ? BLANK : new Cell(Kind.TEXT, text);
  }

  /** True for a cell without content; spaces alone also count as blank. */
  @JsonIgnore
  public boolean isBlank() {
    return kind == Kind.TEXT && text.isBlank();
  }

  /** The cell as a typed value: null when blank, a {@link Problem} when the file holds an error. */
  public Object value() {
    if (isBlank()) {
      return null;
    }
    return switch (kind) {
      case TEXT -> text;
      case NUMBER -> new BigDecimal(text);
      case DATE -> LocalDate.parse(text);
      case DATETIME -> LocalDateTime.parse(text);
      case TIME -> LocalTime.parse(text);
      case BOOLEAN -> Boolean.valueOf(text);
      case ERROR -> error();
    };
  }

  @Override
  public int hashCode() {
    return 31 * text.hashCode() + kind.ordinal();
  }

  @Override
  public boolean equals(Object other) {
    return this == other || other instanceof Cell c && kind == c.kind && text.equals(c.text);
  }

  /** Stands for bytes that are no character in the file's encoding (Unicode's U+FFFD). */
  public static final char UNDECODABLE = '\uFFFD';

  private Problem error() {
    if (text.indexOf(UNDECODABLE) >= 0) {
      return new Problem(
          ProblemCode.UNDECODABLE,
          text,
          "bytes that are no character in this encoding; see whether another one fits the file");
    }
    return new Problem(
        ProblemCode.CELL_ERROR,
        text,
        text.startsWith("=")
            ? "a formula without a result; open the workbook in a spreadsheet and save it"
            : "the cell holds an error");
  }
}
