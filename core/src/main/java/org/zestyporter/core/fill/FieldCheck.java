package org.zestyporter.core.fill;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.Locale;
import java.util.regex.Pattern;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.ValueReader;
import org.zestyporter.core.value.Values;

/** Checks a chain's last value against the field that it is for. */
final class FieldCheck {
  private static final Pattern ISO_MOMENT = Pattern.compile("\\d{4}-\\d{2}-\\d{2}[T ]\\d{2}:.*");

  private FieldCheck() {}

  /** The value in the field's own type, or the problem that keeps it out. */
  static Object conform(Object value, FieldInfo field) {
    if (value instanceof Problem) {
      return value;
    }
    Object typed = typed(value, field);
    if (typed instanceof Problem) {
      return typed;
    }
    Object checked = typed;
    if (typed instanceof String text) {
      checked = checkText(text, field);
    } else if (typed instanceof BigDecimal number) {
      checked = checkNumber(number, field);
    }
    return field.storage().stored(checked);
  }

  /** A text that a person set, such as a default, as the field's type where it can be read so. */
  static Object fromText(String text, FieldInfo field) {
    return switch (field.type()) {
      case BOOLEAN -> ValueReader.truth(text);
      case TIME -> ValueReader.time(text);
      default -> text;
    };
  }

  private static Object typed(Object value, FieldInfo field) {
    return switch (field.type()) {
      case TEXT, OTHER -> Values.text(value);
      case WHOLE, DECIMAL -> value instanceof BigDecimal ? value : plainNumber(value);
      case DATE -> date(value);
      case DATETIME -> dateTime(value);
      case TIME -> value instanceof LocalTime ? value : time(value);
      case BOOLEAN ->
          value instanceof Boolean
              ? value
              : wrong(value, "text, not yes or no; read it as yes or no first");
    };
  }

  private static Object plainNumber(Object value) {
    return value instanceof String text && text.matches("-?\\d+(\\.\\d+)?")
        ? new BigDecimal(text)
        : wrong(value, "text, not a number; read it as a number first");
  }

  private static Object date(Object value) {
    if (value instanceof LocalDate) {
      return value;
    }
    if (value instanceof OffsetDateTime moment) {
      return date(Storage.local(moment));
    }
    if (value instanceof LocalDateTime moment) {
      return moment.toLocalTime().equals(LocalTime.MIDNIGHT)
          ? moment.toLocalDate()
          : wrong(value, "has a time of day, which the field has no room for");
    }
    if (value instanceof String text && text.matches("\\d{4}-\\d{2}-\\d{2}")) {
      return ValueReader.date(text, DateOrder.YEAR_MONTH_DAY, null);
    }
    return wrong(value, "not a date; read it as a date first");
  }

  private static Object dateTime(Object value) {
    if (value instanceof LocalDateTime || value instanceof OffsetDateTime) {
      return value;
    }
    if (value instanceof String text && ISO_MOMENT.matcher(text).matches()) {
      return ValueReader.dateTime(text, DateOrder.YEAR_MONTH_DAY, null);
    }
    Object date = date(value);
    return date instanceof LocalDate day ? day.atStartOfDay() : date;
  }

  private static Object time(Object value) {
    return value instanceof String text
        ? ValueReader.time(text)
        : wrong(value, "not a time of day");
  }

  private static Problem wrong(Object value, String reason) {
    return new Problem(ProblemCode.WRONG_TYPE, Values.text(value), reason);
  }

  private static Object checkText(String text, FieldInfo field) {
    String forbidden = Texts.forbidden(text);
    if (forbidden != null) {
      return new Problem(ProblemCode.FORBIDDEN_CHARACTER, text, forbidden);
    }
    if (field.choices() != null && !field.choices().contains(text)) {
      // whether it is too long, or has other letters, is nothing that anybody has to know
      return new Problem(
          ProblemCode.UNKNOWN_CHOICE, text, "not one of " + String.join(", ", field.choices()));
    }
    if (!field.hasLettersOf(text)) {
      return new Problem(
          ProblemCode.FORBIDDEN_CHARACTER,
          text,
          "“"
              + firstWithout(text, field)
              + "” is no letter that "
              + field.name()
              + " has room for ("
              + field.letters().displayName(Locale.ROOT)
              + ")");
    }
    boolean padded = field.storage().kind() == Storage.Kind.PADDED;
    String counted = padded ? (String) field.storage().stored(text) : text;
    int length = Texts.length(counted);
    if (field.length() != null && length > field.length()) {
      return new Problem(
          ProblemCode.TOO_LONG,
          text,
          length + " characters, " + field.name() + " has room for " + field.length());
    }
    return text;
  }

  private static String firstWithout(String text, FieldInfo field) {
    return text.codePoints()
        .mapToObj(Character::toString)
        .filter(letter -> !field.hasLettersOf(letter))
        .findFirst()
        .orElse(text);
  }

  private static Object checkNumber(BigDecimal number, FieldInfo field) {
    BigDecimal value = number;
    Integer scale = field.type() == FieldType.WHOLE ? Integer.valueOf(0) : field.scale();
    if (scale != null) {
      BigDecimal plain = value.stripTrailingZeros();
      if (plain.scale() > scale) {
        return new Problem(
            ProblemCode.TOO_PRECISE,
            Values.text(number),
            scale <= 0
                ? "has decimals, " + field.name() + " takes whole numbers; add a Round step"
                : "more than " + scale + " decimals; add a Round step");
      }
      if (field.precision() != null
          && plain.precision() - plain.scale() > field.precision() - scale) {
        return new Problem(
            ProblemCode.OUT_OF_RANGE,
            Values.text(number),
            field.precision() > scale
                ? "more than " + (field.precision() - scale) + " digits before the decimal sign"
                : "not under 1, as " + field.name() + " takes it");
      }
      value = plain.signum() == 0 || scale >= 0 ? value.setScale(scale) : plain.setScale(0);
    }
    if (field.least() != null && value.compareTo(field.least()) < 0) {
      return new Problem(
          ProblemCode.OUT_OF_RANGE, Values.text(value), "under " + Values.plain(field.least()));
    }
    if (field.greatest() != null && value.compareTo(field.greatest()) > 0) {
      return new Problem(
          ProblemCode.OUT_OF_RANGE, Values.text(value), "over " + Values.plain(field.greatest()));
    }
    return value;
  }
}
