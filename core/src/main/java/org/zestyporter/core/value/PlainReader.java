package org.zestyporter.core.value;

/**
 * Reads values that are written in the plainest way, straight from bytes. It knows no value that
 * {@link ValueReader} would read otherwise; whatever is not plain is left to that.
 */
public final class PlainReader {
  /** Says that a value is not plain. */
  public static final long NOT_PLAIN = Long.MIN_VALUE + 1;

  private static final int MOST_DIGITS = 17;

  /** Days from the first of March of the year 0 to 1970-01-01, in the Gregorian calendar. */
  private static final long DAYS_TO_1970 = 719_468;

  private PlainReader() {}

  /**
   * A number: a minus, digits, and at most as many behind a decimal sign as the scale has.
   *
   * @param scale digits behind the decimal sign of what is returned, 0 to 12
   * @return the number times ten to the power of the scale, or {@link #NOT_PLAIN}
   */
  public static long number(byte[] bytes, int from, int to, char decimal, int scale) {
    int at = from < to && bytes[from] == '-' ? from + 1 : from;
    if (at == to || to - at > MOST_DIGITS) {
      return NOT_PLAIN;
    }
    boolean negative = at > from;
    int first = at;
    int behind = -1;
    long value = 0;
    for (; at < to; at++) {
      int digit = bytes[at] - '0';
      if (digit >= 0 && digit <= 9) {
        value = value * 10 + digit;
        behind += behind >= 0 ? 1 : 0;
      } else if (bytes[at] == decimal && behind < 0 && at > first && at < to - 1) {
        behind = 0;
      } else {
        return NOT_PLAIN;
      }
    }
    int missing = scale - Math.max(0, behind);
    if (missing < 0 || to - first + missing > MOST_DIGITS) {
      return NOT_PLAIN;
    }
    for (int i = 0; i < missing; i++) {
      value *= 10;
    }
    return negative ? -value : value;
  }

  /**
   * A day: ISO 8601 ({@code 2026-11-25}), or day, month and a year of four figures in the given
   * order, parted by points, strokes or hyphens.
   *
   * @return days since 1970-01-01, or {@link #NOT_PLAIN}
   */
  public static long date(byte[] bytes, int from, int to, DateOrder order) {
    int length = to - from;
    if (length == 10 && bytes[from + 4] == '-' && bytes[from + 7] == '-') {
      return day(
          figures(bytes, from, from + 4),
          figures(bytes, from + 5, from + 7),
          figures(bytes, from + 8, to));
    }
    if (length < 8 || length > 10 || order == DateOrder.YEAR_MONTH_DAY) {
      return NOT_PLAIN;
    }
    byte sign = bytes[to - 5];
    if (sign != '.' && sign != '/' && sign != '-') {
      return NOT_PLAIN;
    }
    int middle = bytes[from + 1] == sign ? from + 1 : from + 2;
    if (bytes[middle] != sign || to - 5 - middle < 2 || to - 5 - middle > 3) {
      return NOT_PLAIN;
    }
    int first = figures(bytes, from, middle);
    int second = figures(bytes, middle + 1, to - 5);
    int year = figures(bytes, to - 4, to);
    return order == DateOrder.DAY_MONTH_YEAR ? day(year, second, first) : day(year, first, second);
  }

  private static int figures(byte[] bytes, int from, int to) {
    int value = 0;
    for (int at = from; at < to; at++) {
      int digit = bytes[at] - '0';
      if (digit < 0 || digit > 9) {
        return -1;
      }
      value = value * 10 + digit;
    }
    return value;
  }

  private static long day(int year, int month, int day) {
    boolean plain = year > 0 && month >= 1 && month <= 12 && day >= 1 && day <= 31;
    if (!plain || day > 28 && day > lengthOf(month, year)) {
      return NOT_PLAIN;
    }
    // years that begin in March have the odd day at their end
    long years = month > 2 ? year : year - 1;
    long months = month > 2 ? month - 3 : month + 9;
    long days = (153 * months + 2) / 5 + day - 1;
    return 365 * years + years / 4 - years / 100 + years / 400 + days - DAYS_TO_1970;
  }

  private static int lengthOf(int month, int year) {
    return switch (month) {
      case 2 -> year % 4 == 0 && (year % 100 != 0 || year % 400 == 0) ? 29 : 28;
      case 4, 6, 9, 11 -> 30;
      default -> 31;
    };
  }

  /**
   * Measures a text of printable signs that no cleaning changes: no control character, no space at
   * its ends and none but single plain ones inside.
   *
   * @return its characters, or -1 if it is not of that kind, or empty
   */
  public static int plainLength(byte[] bytes, int from, int to) {
    if (from == to || bytes[from] == ' ' || bytes[to - 1] == ' ') {
      return -1;
    }
    int length = 0;
    boolean space = false;
    for (int at = from; at < to; at++) {
      byte b = bytes[at];
      if (b > ' ' && b < 0x7F) {
        space = false;
      } else if (b == ' ' && !space) {
        space = true;
      } else if (isLetterLead(b) && at + 1 < to) {
        // the letters of Latin, Greek and Cyrillic, in two bytes each
        at++;
        space = false;
      } else {
        return -1;
      }
      length++;
    }
    return length;
  }

  /** True for the first bytes of U+00C0 to U+017F and U+0391 to U+047F. */
  static boolean isLetterLead(byte b) {
    int lead = b & 0xFF;
    return lead >= 0xC3 && lead <= 0xC5 || lead >= 0xCF && lead <= 0xD1;
  }
}
