package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeParseException;
import org.jspecify.annotations.Nullable;

/** How SQL joins and compares values, where null stands for what is unknown. */
final class SqlValues {
  private SqlValues() {}

  /** Both of them. */
  static @Nullable Boolean and(@Nullable Object a, @Nullable Object b) {
    if (Boolean.FALSE.equals(a) || Boolean.FALSE.equals(b)) {
      return false;
    }
    return a == null || b == null ? null : Boolean.TRUE;
  }

  /** The opposite. */
  static @Nullable Boolean not(@Nullable Object a) {
    return a instanceof Boolean truth ? Boolean.valueOf(!truth) : null;
  }

  /** What is wanted of the order of two values. */
  @FunctionalInterface
  interface Order {
    boolean is(int order);
  }

  /** True if two values are in the order that is wanted. */
  static @Nullable Boolean ordered(@Nullable Object a, @Nullable Object b, Order wanted) {
    Integer order = order(a, b);
    return order == null ? null : Boolean.valueOf(wanted.is(order));
  }

  /** The order of two values; null if it is unknown, or the database's own as that of texts. */
  private static @Nullable Integer order(@Nullable Object a, @Nullable Object b) {
    if (a instanceof BigDecimal x && alike(b) instanceof BigDecimal y) {
      return x.compareTo(y);
    } else if (b instanceof BigDecimal y && alike(a) instanceof BigDecimal x) {
      return x.compareTo(y);
    } else if (moment(a) instanceof LocalDateTime x && moment(b) instanceof LocalDateTime y) {
      boolean dated = !(a instanceof String) || !(b instanceof String);
      return dated ? x.compareTo(y) : null;
    }
    return null;
  }

  /** A text of digits as the number that it stands for. */
  private static @Nullable Object alike(@Nullable Object value) {
    boolean numeric = value instanceof String text && text.matches("-?\\d{1,30}(\\.\\d{1,30})?");
    return numeric ? new BigDecimal((String) value) : value;
  }

  private static @Nullable Object moment(@Nullable Object value) {
    try {
      if (value instanceof LocalDate day) {
        return day.atStartOfDay();
      } else if (value instanceof String text) {
        return text.length() == 10
            ? LocalDate.parse(text).atStartOfDay()
            : LocalDateTime.parse(text.replace(' ', 'T'));
      }
      return value;
    } catch (DateTimeParseException e) {
      return null;
    }
  }

  /** True if two values are equal. */
  static @Nullable Boolean same(@Nullable Object a, @Nullable Object b, boolean caseless) {
    if (a instanceof String x && b instanceof String y) {
      return caseless ? x.equalsIgnoreCase(y) : x.equals(y);
    } else if (a instanceof Boolean && b instanceof Boolean) {
      return a.equals(b);
    }
    return ordered(a, b, order -> order == 0);
  }

  /** What is left of a division, with the sign of what was divided. */
  static @Nullable BigDecimal remainder(BigDecimal a, BigDecimal b) {
    return b.signum() == 0 ? null : a.remainder(b);
  }
}
