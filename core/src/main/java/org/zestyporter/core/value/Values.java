package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.sql.Date;
import java.sql.Time;
import java.sql.Timestamp;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoField;

/** Values in the forms that are shown, stored in ledgers and compared. */
public final class Values {
  private static final DateTimeFormatter TIMESTAMP =
      new java.time.format.DateTimeFormatterBuilder()
          .appendPattern("yyyy-MM-dd'T'HH:mm:ss")
          .appendFraction(ChronoField.NANO_OF_SECOND, 0, 9, true)
          .toFormatter(java.util.Locale.ROOT);

  private Values() {}

  /** The value as text: numbers without grouping, dates as ISO 8601, null for null. */
  public static String text(Object value) {
    if (value == null) {
      return null;
    }
    if (value instanceof BigDecimal number) {
      return number.toPlainString();
    }
    if (value instanceof LocalDateTime time) {
      return TIMESTAMP.format(time);
    }
    return value.toString();
  }

  /** A number without exponent and without trailing zeros. */
  public static String plain(BigDecimal number) {
    return number.signum() == 0 ? "0" : number.stripTrailingZeros().toPlainString();
  }

  /** What a JDBC driver returned, as the types that the pipeline computes with. */
  public static Object fromJdbc(Object value) {
    if (value instanceof Number number && !(value instanceof BigDecimal)) {
      return new BigDecimal(number.toString());
    }
    if (value instanceof Date date) {
      return date.toLocalDate();
    }
    if (value instanceof Timestamp timestamp) {
      return timestamp.toLocalDateTime();
    }
    if (value instanceof Time time) {
      return time.toLocalTime();
    }
    return value;
  }

  /**
   * A primary key value in the form in which keys are compared: numbers without regard to scale.
   */
  public static Object key(Object value) {
    return value instanceof BigDecimal number ? new BigDecimal(plain(number)) : value;
  }

  /** True if both hold the same value; numbers are compared without regard to scale. */
  public static boolean same(Object a, Object b) {
    if (a instanceof BigDecimal x && b instanceof BigDecimal y) {
      return x.compareTo(y) == 0;
    }
    return a == null ? b == null : a.equals(b);
  }
}
