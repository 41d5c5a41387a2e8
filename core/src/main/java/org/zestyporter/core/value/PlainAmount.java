package org.zestyporter.core.value;

import java.math.BigDecimal;
import org.jspecify.annotations.Nullable;

/**
 * An amount as nearly all offices write it, taken apart letter by letter: a minus, the sign of a
 * currency before or behind, digits in groups of three, a decimal sign. All else is left to {@link
 * NumberReader}, which would read these the same.
 *
 * @param digits all its digits as one number, less than zero if the amount is
 * @param first how many digits stand before the first of its signs
 * @param signs how many signs part its digits
 * @param grouping what parts groups of three; a blank if nothing does for sure
 * @param last the last sign; a blank if there is none
 * @param behind how many digits stand behind that
 * @param currency the sign of its currency; a blank if there is none
 */
record PlainAmount(
    long digits, int first, int signs, char grouping, char last, int behind, char currency) {
  private static final char NONE = '\0';
  private static final int MOST_DIGITS = 18;

  /** The parts of an amount; null if it is written in any other way. */
  static @Nullable PlainAmount of(String text) {
    int length = text.length();
    int at = 0;
    boolean negative = at < length && text.charAt(at) == '-';
    at += negative ? 1 : 0;
    char currency = at < length && isCurrency(text.charAt(at)) ? text.charAt(at) : NONE;
    if (currency != NONE) {
      at++;
      at += at < length && isSpace(text.charAt(at)) ? 1 : 0;
      if (!negative && at < length && text.charAt(at) == '-') {
        negative = true;
        at++;
      }
    }
    long digits = 0;
    int all = 0;
    int run = 0;
    int first = -1;
    int signs = 0;
    char grouping = NONE;
    char last = NONE;
    for (; at < length; at++) {
      char c = text.charAt(at);
      if (c >= '0' && c <= '9') {
        digits = digits * 10 + (c - '0');
        run++;
        if (++all > MOST_DIGITS) {
          return null;
        }
        continue;
      }
      boolean goesOn = at + 1 < length && text.charAt(at + 1) >= '0' && text.charAt(at + 1) <= '9';
      if (run == 0 || !goesOn || !parts(c)) {
        break;
      }
      if (signs == 0) {
        first = run;
      } else if (run != 3 || grouping != NONE && grouping != last) {
        return null;
      } else {
        grouping = last;
      }
      if (signs > 0 && first > 3) {
        return null;
      }
      last = c;
      signs++;
      run = 0;
    }
    if (run == 0) {
      return null;
    }
    if (at < length && currency == NONE) {
      at += isSpace(text.charAt(at)) ? 1 : 0;
      currency = at < length && isCurrency(text.charAt(at)) ? text.charAt(at) : NONE;
      at += currency == NONE ? 0 : 1;
    }
    return at < length
        ? null
        : new PlainAmount(
            negative ? -digits : digits,
            signs == 0 ? run : first,
            signs,
            grouping,
            last,
            signs == 0 ? 0 : run,
            currency);
  }

  /** Its value where that is the decimal sign; null if it is none then, or can't be told so. */
  @Nullable BigDecimal value(char decimal) {
    if (signs == 0) {
      return BigDecimal.valueOf(digits);
    }
    char other = decimal == ',' ? '.' : ',';
    if (last == decimal) {
      return grouping == decimal ? null : BigDecimal.valueOf(digits, behind);
    }
    boolean groups =
        behind == 3 && first <= 3 && (grouping == NONE || grouping == last) && last != decimal;
    boolean may = last == other || last == ' ' || last == '\'' || last == '’';
    return groups && may ? BigDecimal.valueOf(digits) : null;
  }

  boolean hasCurrency() {
    return currency != NONE;
  }

  private static boolean parts(char c) {
    return c == '.' || c == ',' || c == ' ' || c == '\'' || c == '’';
  }

  private static boolean isSpace(char c) {
    return c == ' ' || c == '\u00A0' || c == '\u202F';
  }

  private static boolean isCurrency(char c) {
    return c == '$' || c >= 0xA2 && Character.getType(c) == Character.CURRENCY_SYMBOL;
  }
}
