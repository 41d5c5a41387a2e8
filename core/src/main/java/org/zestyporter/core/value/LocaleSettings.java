package org.zestyporter.core.value;

import com.fasterxml.jackson.annotation.JsonIgnore;
import org.jspecify.annotations.Nullable;

/**
 * How a sender writes numbers, dates and truth.
 *
 * @param decimal the decimal sign, {@code ","} or {@code "."}
 * @param dateOrder the order of day, month and year
 * @param century the first two figures of years written with two, {@code "20"} or {@code "19"};
 *     null if such years are a problem; a reading states it beside the locale
 */
public record LocaleSettings(
    String decimal, DateOrder dateOrder, @JsonIgnore @Nullable String century) {

  public static final LocaleSettings DEFAULT = new LocaleSettings(".", DateOrder.DAY_MONTH_YEAR);

  public LocaleSettings {
    if (!",".equals(decimal) && !".".equals(decimal)) {
      throw ErrorCode.DECIMAL_SIGN.error(
          "The decimal sign is a comma or a point, not “" + decimal + "”.");
    }
    if (dateOrder == null) {
      dateOrder = DateOrder.DAY_MONTH_YEAR;
    }
    if (century != null && !century.matches("\\d\\d")) {
      throw ErrorCode.CENTURY.error(
          "The century is two figures such as 20, not “" + century + "”.");
    }
  }

  public LocaleSettings(String decimal, DateOrder dateOrder) {
    this(decimal, dateOrder, null);
  }

  /** The same with years of two figures in another century, or in none. */
  public LocaleSettings inCentury(@Nullable String other) {
    return new LocaleSettings(decimal, dateOrder, other);
  }
}
