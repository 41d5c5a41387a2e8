package org.zestyporter.core.formula;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.temporal.Temporal;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.ValueReader;
import org.zestyporter.core.value.Values;

/**
 * Values read as the type that a function or sign needs; null stays null, problems stay problems.
 */
final class Reads {
  private Reads() {}

  static Object as(Kind kind, Object value, LocaleSettings locale) {
    return switch (kind) {
      case ANY -> value;
      case TEXT -> text(value);
      case NUMBER -> number(value, locale);
      case DATE -> date(value, locale);
      case TIME -> time(value, locale);
      case LOGICAL -> logical(value);
    };
  }

  /** A text; the empty one for blank. */
  static Object text(Object value) {
    if (value == null) {
      return "";
    }
    if (value instanceof BigDecimal number) {
      return Values.plain(number);
    }
    if (value instanceof Boolean truth) {
      return truth ? "TRUE" : "FALSE";
    }
    return value instanceof Problem ? value : Values.text(value);
  }

  static Object number(Object value, LocaleSettings locale) {
    if (value == null || value instanceof BigDecimal || value instanceof Problem) {
      return value;
    }
    if (value instanceof String text) {
      return text.isBlank() ? null : ValueReader.number(text, locale.decimal());
    }
    if (value instanceof Boolean truth) {
      return truth ? BigDecimal.ONE : BigDecimal.ZERO;
    }
    return new Problem(
        ProblemCode.NOT_A_NUMBER, Values.text(value), "a date or time, not a number");
  }

  static Object date(Object value, LocaleSettings locale) {
    if (value instanceof String text) {
      if (text.isBlank()) {
        return null;
      }
      Object read =
          text.indexOf(':') > 0
              ? ValueReader.dateTime(text, locale.dateOrder(), locale.century())
              : ValueReader.date(text, locale.dateOrder(), locale.century());
      return read instanceof OffsetDateTime moment ? Storage.local(moment) : read;
    }
    boolean fits =
        value == null
            || value instanceof LocalDate
            || value instanceof LocalDateTime
            || value instanceof Problem;
    return fits ? value : new Problem(ProblemCode.NOT_A_DATE, Values.text(value), "no date");
  }

  /** A time of day; of a moment, its time of day. */
  static Object time(Object value, LocaleSettings locale) {
    if (value == null || value instanceof LocalTime || value instanceof Problem) {
      return value;
    }
    if (value instanceof LocalDateTime moment) {
      return moment.toLocalTime();
    }
    if (value instanceof String text) {
      Object read = ValueReader.time(text);
      return read instanceof Problem && text.strip().indexOf(' ') > 0
          ? time(date(text, locale), locale)
          : text.isBlank() ? null : read;
    }
    return new Problem(ProblemCode.NOT_A_TIME, Values.text(value), "no time of day");
  }

  static Object logical(Object value) {
    if (value == null || value instanceof Boolean || value instanceof Problem) {
      return value;
    }
    if (value instanceof BigDecimal number) {
      return number.signum() != 0;
    }
    return value instanceof String text && text.isBlank()
        ? null
        : ValueReader.truth(Values.text(value));
  }

  static LocalDate day(Object date) {
    return date instanceof LocalDateTime moment ? moment.toLocalDate() : (LocalDate) date;
  }

  static LocalDateTime moment(Object date) {
    return date instanceof LocalDate day ? day.atStartOfDay() : (LocalDateTime) date;
  }

  static boolean isDate(Object value) {
    return value instanceof Temporal && !(value instanceof LocalTime);
  }
}
