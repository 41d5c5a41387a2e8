package org.zestyporter.core.value;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.Year;
import org.jspecify.annotations.Nullable;

/**
 * Reads dates and times in the forms that nearly all files have, letter by letter: 2026-11-03,
 * 3/11/2026, 14:30:15. All else it leaves to {@link DateReader} and {@link ClockReader}, which
 * would read these the same.
 */
final class PlainMoment {
  private static final int[] DAYS = {31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31};

  private PlainMoment() {}

  /** The date; null if it is not plain, or none. */
  static @Nullable LocalDate date(String text, DateOrder order) {
    int length = text.length();
    if (length < 8 || length > 10) {
      return null;
    }
    int first = digits(text, 0);
    char sign = first == 0 || first >= length ? ' ' : text.charAt(first);
    if (sign != '-' && sign != '/' && sign != '.') {
      return null;
    }
    int second = digits(text, first + 1);
    int end = first + 1 + second;
    if (second < 1 || second > 2 || end >= length || text.charAt(end) != sign) {
      return null;
    }
    int third = digits(text, end + 1);
    if (end + 1 + third != length) {
      return null;
    }
    int a = number(text, 0, first);
    int b = number(text, first + 1, end);
    int c = number(text, end + 1, length);
    if (first == 4 && third >= 1 && third <= 2) {
      return of(a, b, c);
    }
    if (first > 2 || third != 4 || order == DateOrder.YEAR_MONTH_DAY) {
      return null;
    }
    return order == DateOrder.DAY_MONTH_YEAR ? of(c, b, a) : of(c, a, b);
  }

  private static @Nullable LocalDate of(int year, int month, int day) {
    boolean may = month >= 1 && month <= 12 && day >= 1 && day <= DAYS[month - 1];
    boolean leapDay = may && month == 2 && day == 29;
    return !may || leapDay && !Year.isLeap(year) ? null : LocalDate.of(year, month, day);
  }

  /** The time on the clock of 24 hours, or of 12 with AM or PM; null if not plain, or none. */
  static @Nullable LocalTime time(String text) {
    int last = text.length() - 1;
    if (last < 4 || (text.charAt(last) | 0x20) != 'm') {
      return time(text, text.length());
    }
    int half = text.charAt(last - 1) | 0x20;
    int end = text.charAt(last - 2) == ' ' ? last - 2 : last - 1;
    LocalTime time = half == 'a' || half == 'p' ? time(text, end) : null;
    if (time == null || time.getHour() > 12) {
      return null;
    }
    return time.withHour(time.getHour() % 12 + (half == 'p' ? 12 : 0));
  }

  private static @Nullable LocalTime time(String text, int length) {
    int hours = digits(text, 0);
    if (hours < 1 || hours > 2 || length != hours + 3 && length != hours + 6) {
      return null;
    }
    int hour = number(text, 0, hours);
    int minute = sixtieth(text, hours);
    int second = length == hours + 6 ? sixtieth(text, hours + 3) : 0;
    return hour > 23 || minute < 0 || second < 0 ? null : LocalTime.of(hour, minute, second);
  }

  /** Two digits behind a colon, under sixty; -1 if there are none. */
  private static int sixtieth(String text, int colon) {
    boolean is = text.charAt(colon) == ':' && digits(text, colon + 1) == 2;
    int number = is ? number(text, colon + 1, colon + 3) : 60;
    return number < 60 ? number : -1;
  }

  private static int digits(String text, int from) {
    int at = from;
    while (at < text.length() && text.charAt(at) >= '0' && text.charAt(at) <= '9') {
      at++;
    }
    return at - from;
  }

  private static int number(String text, int from, int to) {
    int number = 0;
    for (int i = from; i < to; i++) {
      number = number * 10 + (text.charAt(i) - '0');
    }
    return number;
  }
}
