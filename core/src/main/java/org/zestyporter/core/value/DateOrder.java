package org.zestyporter.core.value;

import com.fasterxml.jackson.annotation.JsonValue;

/** The order in which a sender writes the parts of a date. */
public enum DateOrder {
  DAY_MONTH_YEAR("day-month-year"),
  MONTH_DAY_YEAR("month-day-year"),
  YEAR_MONTH_DAY("year-month-day");

  private final String word;

  DateOrder(String word) {
    this.word = word;
  }

  @JsonValue
  public String word() {
    return word;
  }

  /**
   * The order of that name.
   *
   * @throws PorterException if there is none
   */
  public static DateOrder of(String word) {
    for (DateOrder order : values()) {
      if (order.word.equals(word)) {
        return order;
      }
    }
    throw ErrorCode.DATE_ORDER.error(
        "“" + word + "” is no date order; use day-month-year, month-day-year or year-month-day.");
  }
}
