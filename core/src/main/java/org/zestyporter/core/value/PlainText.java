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

  /** Letters at the beginning, with more words behind them, that no currency and no date has. */
  private static final int LONG_WORD = 4;

  /** Letters of two words at the beginning that no currency and no date has. */
  private static final int SHORT_WORD = 3;

  // what a byte of UTF-8 is; 0 for what is not plain, or speaks of a time or a power
  private static final int LETTER = 1;
  private static final int WORD = 2;
  private static final int DIGIT = 4;
  private static final int POINT = 8;
  private static final int SPACE = 16;
  private static final int LEAD = 32;
  private static final int OTHER = 64;
  private static final byte[] SIGNS = signs();

  /** For each pair of letters whether it is short for a currency: 1, -1, or 0 if not yet asked. */
  private static final byte[] MONEY = new byte[32 * 32];

  private @Nullable ValueType type;
  private long number;
  private int scale;
  private int digitsBefore;
  private boolean negative;
  private int characters;
  private boolean signed;

  private static byte[] signs() {
    byte[] signs = new byte[256];
    for (int b = 0; b < signs.length; b++) {
      if (b >= 'a' && b <= 'z' || b >= 'A' && b <= 'Z') {
        signs[b] = LETTER + WORD;
      } else if (b >= '0' && b <= '9') {
        signs[b] = DIGIT;
      } else if (b == '.' || b == ',') {
        signs[b] = POINT;
      } else if (b == ' ') {
        signs[b] = SPACE;
      } else if (PlainReader.isLetterLead((byte) b)) {
        signs[b] = LEAD + WORD;
      } else if (b > ' ' && b < 0x7F && b != ':' && b != '+') {
        signs[b] = OTHER;
      }
    }
    return signs;
  }

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
    if (to - from <= MANY_LETTERS || bytes[from] == ' ' || bytes[to - 1] == ' ') {
      return;
    }
    int letters = 0;
    int runs = 0;
    int first = 0;
    int before = 0;
    int seen = 0;
    int at = from;
    boolean words = beginsWithWords(bytes, from, to);
    int length = words ? SHORT_WORD : 0;
    at += length;
    while (at < to) {
      // words once found can be nothing else, but for what is not plain
      if (words && at + Long.BYTES <= to) {
        int eight = plainSigns(EightBytes.get(bytes, at));
        if (eight != 0) {
          seen |= eight;
          length += Long.BYTES;
          at += Long.BYTES;
          continue;
        }
      }
      int sign = SIGNS[bytes[at] & 0xFF];
      if (sign == 0) {
        return;
      }
      if (!words) {
        if ((sign & before & SPACE) != 0) {
          return;
        }
        letters += sign & LETTER;
        runs += sign >> 1 & ~before >> 1 & 1;
        first += runs == 1 ? sign >> 1 & 1 : 0;
        before = sign;
        words = runs > 1 && (letters >= MANY_LETTERS || first >= LONG_WORD);
      }
      seen |= sign;
      length++;
      at++;
      if (sign == LEAD + WORD) {
        if (at == to) {
          return;
        }
        at++;
      }
    }
    boolean digits = (seen & DIGIT) != 0;
    boolean points = (seen & POINT) != 0;
    boolean code = letters <= 2 && runs == 1 && !points && isCode(bytes, from, to, letters);
    if (length > MANY_LETTERS && (!digits || words || code)) {
      characters = length;
      signed = digits && points;
      type = ValueType.TEXT;
    }
  }

  /**
   * True for two words of ASCII's letters that are too long to stand before an amount together: no
   * currency has two of them, and the word for many, {@code Mio} or {@code Mrd}, begins with an M.
   */
  private static boolean beginsWithWords(byte[] bytes, int from, int to) {
    int end = endOfWord(bytes, from, to);
    int next = end < to && bytes[end] == ' ' ? endOfWord(bytes, end + 1, to) - end - 1 : 0;
    boolean isShort = end - from < SHORT_WORD || next < SHORT_WORD || (bytes[from] | 32) == 'm';
    return end - from >= LONG_WORD ? next > 0 : !isShort;
  }

  private static int endOfWord(byte[] bytes, int from, int to) {
    int at = from;
    while (at < to && SIGNS[bytes[at] & 0xFF] == LETTER + WORD) {
      at++;
    }
    return at;
  }

  /**
   * The digits and points among eight bytes as their signs, and that all are plain signs of ASCII;
   * 0 if any needs a closer look.
   */
  private static int plainSigns(long eight) {
    if ((eight & EightBytes.HIGHEST) != 0) {
      return 0;
    }
    // a byte's highest bit tells whether it is at least so large
    long control =
        ~(eight + (0x80 - ' ') * EightBytes.ONES) | eight + (0x80 - 0x7F) * EightBytes.ONES;
    if (((control | equal(eight, ':') | equal(eight, '+')) & EightBytes.HIGHEST) != 0) {
      return 0;
    }
    long digits =
        eight + (0x80 - '0') * EightBytes.ONES & ~(eight + (0x80 - '9' - 1) * EightBytes.ONES);
    long points = equal(eight, '.') | equal(eight, ',');
    return OTHER
        | ((digits & EightBytes.HIGHEST) != 0 ? DIGIT : 0)
        | ((points & EightBytes.HIGHEST) != 0 ? POINT : 0);
  }

  /** The highest bit of each byte that is a sign; all of them have to be of ASCII. */
  private static long equal(long eight, int sign) {
    return ~((eight ^ sign * EightBytes.ONES) + 0x7F * EightBytes.ONES);
  }

  /** True for a text that begins with its only letters, and these are short for no money. */
  private static boolean isCode(byte[] bytes, int from, int to, int letters) {
    int first = bytes[from] | 0x20;
    boolean begins = first >= 'a' && first <= 'z';
    if (!begins || letters == 1) {
      return begins;
    }
    int second = bytes[from + 1] | 0x20;
    return letters == 2
        && second >= 'a'
        && second <= 'z'
        && (!isMoney(first, second) || isNumbered(bytes, from + 2, to));
  }

  /** True for nothing but digits, with a hyphen before them or none: no amount is written so. */
  private static boolean isNumbered(byte[] bytes, int from, int to) {
    int at = from < to && bytes[from] == '-' ? from + 1 : from;
    while (at < to && bytes[at] >= '0' && bytes[at] <= '9') {
      at++;
    }
    return at == to;
  }

  /** True if two small letters are short for a currency. */
  private static boolean isMoney(int first, int second) {
    int pair = (first & 31) << 5 | second & 31;
    byte known = MONEY[pair];
    if (known == 0) {
      String letters = String.valueOf(new char[] {(char) first, (char) second});
      known = (byte) (CurrencySigns.isKnown(letters) ? 1 : -1);
      MONEY[pair] = known;
    }
    return known > 0;
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
