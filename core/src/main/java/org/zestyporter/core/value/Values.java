package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoField;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Values in the forms that are shown, stored in ledgers and compared. */
public final class Values {
  private static final DateTimeFormatter TIMESTAMP =
      new java.time.format.DateTimeFormatterBuilder()
          .appendPattern("yyyy-MM-dd'T'HH:mm:ss")
          .appendFraction(ChronoField.NANO_OF_SECOND, 0, 9, true)
          .toFormatter(java.util.Locale.ROOT);

  private static final int MOST_ZEROS = 1_000;

  private Values() {}

  /**
   * True for a whole number without decimals that 64 bits hold, so that it can be kept as these.
   */
  public static boolean isLong(BigDecimal number) {
    return number.scale() == 0 && number.unscaledValue().bitLength() < Long.SIZE;
  }

  /** The day of a date or a moment; null for anything else. */
  public static @Nullable LocalDate day(@Nullable Object value) {
    if (value instanceof LocalDate day) {
      return day;
    }
    return value instanceof LocalDateTime moment
        ? moment.toLocalDate()
        : value instanceof OffsetDateTime moment ? moment.toLocalDate() : null;
  }

  /** Values side by side as one text; empty if all are blank. */
  public static String together(Stream<? extends @Nullable Object> values) {
    return values.filter(Objects::nonNull).map(Values::text).collect(Collectors.joining(" "));
  }

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
    if (value instanceof OffsetDateTime moment) {
      return TIMESTAMP.format(moment) + moment.getOffset();
    }
    return value.toString();
  }

  /** A number without exponent and without trailing zeros. */
  public static String plain(BigDecimal number) {
    return number.signum() == 0 ? "0" : number.stripTrailingZeros().toPlainString();
  }

  /** A number without trailing zeros, so that equal numbers are equal objects. */
  public static BigDecimal bare(BigDecimal number) {
    if (number.signum() == 0) {
      return BigDecimal.ZERO;
    }
    BigDecimal bare = number.stripTrailingZeros();
    return bare.scale() < 0 && bare.scale() > -MOST_ZEROS ? bare.setScale(0) : bare;
  }
}
