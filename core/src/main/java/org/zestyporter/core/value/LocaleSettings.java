package org.zestyporter.core.value;

/**
 * How a sender writes numbers and dates.
 *
 * @param decimal the decimal sign, {@code ","} or {@code "."}
 * @param dateOrder the order of day, month and year
 */
public record LocaleSettings(String decimal, DateOrder dateOrder) {

  public static final LocaleSettings DEFAULT = new LocaleSettings(".", DateOrder.DAY_MONTH_YEAR);

  public LocaleSettings {
    if (!",".equals(decimal) && !".".equals(decimal)) {
      throw PorterException.input(
          "decimal-sign", "The decimal sign is a comma or a point, not “" + decimal + "”.");
    }
    if (dateOrder == null) {
      dateOrder = DateOrder.DAY_MONTH_YEAR;
    }
  }
}
