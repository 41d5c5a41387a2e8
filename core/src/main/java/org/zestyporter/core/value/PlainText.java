package org.zestyporter.core.value;

import org.jspecify.annotations.Nullable;

/**
 * Tells what a text is whose type is plain to see: digits with at most a minus and a decimal sign,
 * a day in ISO 8601, words. It speaks only where nothing else could be meant; all else it leaves
 * open.
 */
final class PlainText {
  /** Letters that no number, date or word for yes and no has. */
  private static final int MANY_LETTERS = 9;

  private @Nullable ValueType type;
  private long number;
  private int scale;
  private int digitsBefore;
  private boolean negative;
  private int characters;
  private boolean signed;

  /** Looks at a text in UTF-8. */
  PlainText look(byte[] bytes, int from, int to, char decimal) {
    type = null;
    if (from == to) {
      return this;
    }
    byte first = bytes[from];
    if (first == '-' || first >= '0' && first <= '9') {
      lookForNumber(bytes, from, to, decimal);
      if (type == null && to - from == 10) {
        lookForDay(bytes, from, to);
      }
    } else {
      lookForWords(bytes, from, to);
    }
    return this;
  }

  private void lookForNumber(byte[] bytes, int from, int to, char decimal) {
    int digits = bytes[from] == '-' ? from + 1 : from;
    boolean zero = digits < to && bytes[digits] == '0';
    if (zero && digits + 1 < to && bytes[digits + 1] != decimal) {
      return;
    }
    int sign = digits;
    while (sign < to && bytes[sign] != decimal) {
      sign++;
    }
    int decimals = sign < to ? to - sign - 1 : 0;
    long value =
        decimals > 9
            ? PlainReader.NOT_PLAIN
            : PlainReader.number(bytes, from, to, decimal, decimals);
    if (value == PlainReader.NOT_PLAIN) {
      return;
    }
    number = value;
    scale = decimals;
    negative = digits > from;
    digitsBefore = zero ? 0 : sign - digits;
    characters = to - from;
    type = decimals > 0 ? ValueType.DECIMAL : ValueType.WHOLE;
  }

  private void lookForDay(byte[] bytes, int from, int to) {
    long day = PlainReader.date(bytes, from, to, DateOrder.YEAR_MONTH_DAY);
    if (day != PlainReader.NOT_PLAIN) {
      number = day;
      characters = 10;
      type = ValueType.DATE;
    }
  }

  private void lookForWords(byte[] bytes, int from, int to) {
    int length = PlainReader.plainLength(bytes, from, to);
    if (length <= MANY_LETTERS) {
      return;
    }
    int letters = 0;
    int runs = 0;
    boolean digits = false;
    boolean inside = false;
    boolean points = false;
    for (int at = from; at < to; at++) {
      byte b = bytes[at];
      boolean letter = b >= 'a' && b <= 'z' || b >= 'A' && b <= 'Z' || b < 0;
      letters += b >= 0 && letter ? 1 : 0;
      runs += letter && !inside ? 1 : 0;
      inside = letter;
      digits |= b >= '0' && b <= '9';
      points |= b == '.' || b == ',';
      if (b == ':' || b == '+') {
        return;
      }
    }
    boolean code = letters <= 2 && runs == 1 && !points && isCode(bytes, from, letters);
    if (!digits || letters >= MANY_LETTERS && runs > 1 || code) {
      characters = length;
      signed = digits && points;
      type = ValueType.TEXT;
    }
  }

  /** True for a text that begins with its only letters, and these are short for no money. */
  private static boolean isCode(byte[] bytes, int from, int letters) {
    int first = bytes[from] | 0x20;
    boolean begins = first >= 'a' && first <= 'z';
    if (!begins || letters == 1) {
      return begins;
    }
    int second = bytes[from + 1] | 0x20;
    boolean money =
        second == 'r' && (first == 'k' || first == 'f') || first == 'f' && second == 't';
    return letters == 2 && second >= 'a' && second <= 'z' && !money;
  }

  /** What it is; null if that is not plain to see. */
  @Nullable ValueType type() {
    return type;
  }

  /** The number without its decimal sign, or the day since 1970-01-01. */
  long number() {
    return number;
  }

  /** Digits behind the decimal sign. */
  int scale() {
    return scale;
  }

  /** Digits before the decimal sign; 0 if that is a single zero. */
  int digitsBefore() {
    return digitsBefore;
  }

  boolean isNegative() {
    return negative;
  }

  int characters() {
    return characters;
  }

  /** True for a text with digits, and with points or commas. */
  boolean isSigned() {
    return signed;
  }
}
