package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Reads numbers as offices write them: grouped, with a sign before or behind or parentheses for
 * less than zero, with a currency beside them.
 */
final class NumberReader {
  private static final Pattern COMMA_NUMBER = numberPattern("[. '’]", ",");
  private static final Pattern POINT_NUMBER = numberPattern("[, '’]", "\\.");
  private static final Pattern PLAIN = Pattern.compile("[+-]?\\d+[.,]\\d+");
  private static final Pattern DIGITS_AND_MARKS = Pattern.compile("[\\d.,]+");
  private static final Pattern TWO_NUMBERS = Pattern.compile("\\d\\D+\\d.*");
  private static final Pattern FEET = Pattern.compile("\\d+\\s*(['’′]|ft|feet).*");
  private static final Pattern MONEY =
      Pattern.compile(
          "(?<before>\\p{Sc}\\p{L}?|\\p{L}{1,5}\\.?(?:\\p{Sc}|/\\.?)?)?\\s?(?<number>[-+(−]?[\\d.,].*?[\\d)-]|[-+−]?\\d)\\s?"
              + "(?<after>\\p{L}{0,3}\\p{Sc}|\\p{L}{1,5}\\.?)?");

  private static final int FAST_DIGITS = 18;

  /** One or two letters right before nothing but digits: rather the number of a thing. */
  private static final Pattern CODE = Pattern.compile("\\p{L}{1,2}-?\\d+");

  /** More letters than any short word for a currency has. */
  private static final int MOST_LETTERS = 5;

  private static final Pattern SIGN_BEFORE_CURRENCY = Pattern.compile("[-+](?=\\p{Sc}|\\p{L})");

  /** Scientific notation. */
  private static final Pattern POWER = Pattern.compile("([+-]?\\d[\\d.,]*)[eE]([+-]?\\d{1,9})");

  /** What is taken for a number without being asked: 1E5 alone may as well be a code. */
  private static final Pattern SURE_POWER =
      Pattern.compile("[+-]?(\\d+[.,]\\d+[eE][+-]?|\\d+[eE][+-])\\d{1,3}");

  /** A dash in the place of cents: 99,- € and CHF 12.-- */
  private static final Pattern NO_CENTS = Pattern.compile("(?<=\\d)[.,](?:--?|[–—])(?=$|\\D)");

  private static final int MOST_ZEROS = 400;

  /** Thousands and millions of a currency: 1,5 T€, 3 Mio. EUR, k$ 20. */
  private static final Pattern THOUSANDS =
      Pattern.compile(
          "(?<number>[-+(−]?\\d.*?)\\s?(?<by>T|k|K|M|Mio\\.?|Mrd\\.?)\\s?"
              + "(?<after>\\p{Sc}|EUR|USD|GBP|CHF)");

  private static final Pattern THOUSANDS_BEFORE =
      Pattern.compile(
          "(?<by>T|k|K|M|Mio\\.?|Mrd\\.?)\\s?(?<after>\\p{Sc}|EUR|USD|GBP|CHF)\\s?(?<number>[-+(−]?\\d.*)");

  private NumberReader() {}

  /** Groups of three, or of two and a last one of three as written in India. */
  private static Pattern numberPattern(String grouping, String decimal) {
    return Pattern.compile(
        "([+-]?)(\\d+|\\d{1,3}(?:("
            + grouping
            + ")\\d{3}(?:\\3\\d{3})*)|\\d{1,2}(?:,\\d{2})+,\\d{3}|)(?:"
            + decimal
            + "(\\d*))?(-?)");
  }

  /** The number, or null if the text is none. */
  static BigDecimal find(String text, String decimal) {
    BigDecimal plain = plain(text, decimal.charAt(0));
    if (plain != null) {
      return plain;
    }
    PlainAmount amount = PlainAmount.of(text);
    if (amount != null) {
      return amount.value(decimal.charAt(0));
    }
    String cleaned = cleaned(text, decimal);
    return mayBeNumber(cleaned) && read(cleaned, decimal) instanceof BigDecimal number
        ? number
        : null;
  }

  /** False for what has too many letters, or letters that are no currency. */
  private static boolean mayBeNumber(String text) {
    int letters = 0;
    for (int i = 0; i < text.length(); i++) {
      letters += Character.isLetter(text.charAt(i)) ? 1 : 0;
    }
    return letters == 0
        || letters <= MOST_LETTERS
            && !CODE.matcher(text).matches()
            && currency(withoutSign(text)) != null
        || letters == 1 && SURE_POWER.matcher(text).matches()
        || thousands(text) != null;
  }

  /** The parts of an amount in thousands or more of a currency; null if it is none. */
  private static @Nullable Matcher thousands(String text) {
    if (text.length() < 3) {
      return null;
    }
    char last = text.charAt(text.length() - 1);
    boolean before = "TkKM".indexOf(text.charAt(0)) >= 0;
    boolean after =
        Character.getType(last) == Character.CURRENCY_SYMBOL || "RDPF".indexOf(last) >= 0;
    if (!before && !after) {
      return null;
    }
    Matcher parts = (before ? THOUSANDS_BEFORE : THOUSANDS).matcher(text);
    return parts.matches() ? parts : null;
  }

  private static BigDecimal times(BigDecimal amount, int zeros) {
    BigDecimal scaled = amount.scaleByPowerOfTen(zeros);
    return scaled.setScale(Math.max(0, scaled.scale()));
  }

  private static int zeros(String word) {
    return word.startsWith("Mrd") ? 9 : word.startsWith("M") ? 6 : 3;
  }

  /** Without a sign before the currency, or the parentheses of less than nothing. */
  private static String withoutSign(String text) {
    int end = text.length() - 1;
    if (end > 1 && text.charAt(0) == '(' && text.charAt(end) == ')') {
      return text.substring(1, end);
    }
    return SIGN_BEFORE_CURRENCY.matcher(text).lookingAt() ? text.substring(1) : text;
  }

  static Object read(String text, String decimal) {
    BigDecimal plain = quick(text, decimal.charAt(0));
    if (plain != null) {
      return plain;
    }
    String trimmed = cleaned(text, decimal);
    if (trimmed.length() > 2 && trimmed.startsWith("(") && trimmed.endsWith(")")) {
      Object inside = read(trimmed.substring(1, trimmed.length() - 1), decimal);
      if (inside instanceof BigDecimal amount && amount.signum() > 0) {
        return amount.negate();
      }
    }
    if (trimmed.length() > 2 && SIGN_BEFORE_CURRENCY.matcher(trimmed).lookingAt()) {
      Object behind = read(trimmed.substring(1), decimal);
      if (behind instanceof BigDecimal amount && amount.signum() >= 0) {
        return trimmed.charAt(0) == '-' ? amount.negate() : amount;
      }
    }
    Matcher thousands = thousands(trimmed);
    if (thousands != null) {
      Object number = read(thousands.group("number"), decimal);
      return number instanceof BigDecimal amount
          ? times(amount, zeros(thousands.group("by")))
          : new Problem(ProblemCode.NOT_A_NUMBER, text, whyNot(trimmed, decimal));
    }
    Matcher power = POWER.matcher(trimmed);
    if (power.matches() && read(power.group(1), decimal) instanceof BigDecimal mantissa) {
      int exponent = Integer.parseInt(power.group(2));
      return Math.abs(exponent) <= MOST_ZEROS
          ? mantissa.scaleByPowerOfTen(exponent)
          : new Problem(ProblemCode.OUT_OF_RANGE, text, "more zeros than any field has room for");
    }
    String number = trimmed;
    String currency = currency(trimmed);
    if (currency != null) {
      Matcher money = MONEY.matcher(trimmed);
      money.matches();
      number = money.group("number");
      if (number.startsWith("(")) {
        return read(number, decimal);
      }
    }
    Matcher m = (",".equals(decimal) ? COMMA_NUMBER : POINT_NUMBER).matcher(number);
    if (!m.matches() || (m.group(2).isEmpty() && (m.group(4) == null || m.group(4).isEmpty()))) {
      return new Problem(ProblemCode.NOT_A_NUMBER, text, whyNot(trimmed, decimal));
    }
    if ("".equals(m.group(4)) && !m.group(5).isEmpty()) {
      return new Problem(ProblemCode.NOT_A_NUMBER, text, whyNot(trimmed, decimal));
    }
    if (!m.group(1).isEmpty() && !m.group(5).isEmpty()) {
      return new Problem(ProblemCode.NOT_A_NUMBER, text, "it has two signs");
    }
    if (m.group(2).indexOf(',') >= 0 && ",".equals(decimal)) {
      return new Problem(ProblemCode.NOT_A_NUMBER, text, whyNot(trimmed, decimal));
    }
    String whole = m.group(2).replaceAll("\\D", "");
    String digits =
        (whole.isEmpty() ? "0" : whole)
            + (m.group(4) == null || m.group(4).isEmpty() ? "" : "." + m.group(4));
    BigDecimal value = new BigDecimal(digits);
    return "-".equals(m.group(1)) || "-".equals(m.group(5)) ? value.negate() : value;
  }

  /** The number, if it is written as most are. */
  private static @Nullable BigDecimal quick(String text, char decimal) {
    BigDecimal plain = plain(text, decimal);
    if (plain != null) {
      return plain;
    }
    PlainAmount amount = PlainAmount.of(text);
    return amount == null ? null : amount.value(decimal);
  }

  /** With plain digits and signs, whatever the script they were written in. */
  private static String cleaned(String text, String decimal) {
    String signs = CurrencyWords.coded(AsciiSigns.of(text));
    String plain = signs.replace('\u00A0', ' ').replace('\u202F', ' ').strip();
    boolean arabic = plain.indexOf('٫') >= 0 || plain.indexOf('٬') >= 0;
    plain =
        arabic ? plain.replace("٬", ",".equals(decimal) ? "." : ",").replace("٫", decimal) : plain;
    if (plain.indexOf(",-") > 0
        || plain.indexOf(".-") > 0
        || plain.indexOf('–') > 0
        || plain.indexOf('—') > 0) {
      plain = NO_CENTS.matcher(plain).replaceFirst("");
    }
    // in Shift_JIS the yen sign stands where ASCII has its backslash
    return (plain.startsWith("\\") ? "¥" + plain.substring(1) : plain).replace('−', '-');
  }

  /** A sign, at most 18 digits and a decimal sign among them; null for all else. */
  private static BigDecimal plain(String text, char decimal) {
    int length = text.length();
    int at = length > 0 && text.charAt(0) == '-' ? 1 : 0;
    if (length == at || length - at > FAST_DIGITS) {
      return null;
    }
    long value = 0;
    int scale = -1;
    int first = at;
    for (; at < length; at++) {
      char c = text.charAt(at);
      if (c >= '0' && c <= '9') {
        value = value * 10 + (c - '0');
        scale += scale >= 0 ? 1 : 0;
      } else if (c == decimal && scale < 0 && at > first && at < length - 1) {
        scale = 0;
      } else {
        return null;
      }
    }
    return BigDecimal.valueOf(first == 1 ? -value : value, Math.max(0, scale));
  }

  /** The currency of a number that may have its sign before the currency; null if there is none. */
  static String currencyOf(String text) {
    PlainAmount amount = PlainAmount.of(text);
    if (amount != null) {
      return amount.hasCurrency() ? String.valueOf(amount.currency()) : null;
    }
    String cleaned = cleaned(text, ".");
    Matcher thousands = thousands(cleaned);
    return thousands != null ? thousands.group("after") : currency(withoutSign(cleaned));
  }

  /** The currency that stands beside a number, as written; null if there is none. */
  static String currency(String text) {
    String trimmed = text.strip();
    int end = trimmed.length() - 1;
    // of a word and its point the word tells
    int last = end > 0 && trimmed.charAt(end) == '.' ? end - 1 : end;
    if (last < 1
        || (isPlain(trimmed.charAt(0)) && isPlain(trimmed.charAt(last)))
        || !mayBeCurrency(trimmed.charAt(0)) && !mayBeCurrency(trimmed.charAt(last))) {
      return null;
    }
    if (Character.isLetter(trimmed.charAt(0)) && !CurrencySigns.mayBe(leadingSign(trimmed))
        || Character.isLetter(trimmed.charAt(last))
            && !CurrencySigns.mayBe(trailingWord(trimmed.substring(0, last + 1)))) {
      return null;
    }
    Matcher m = MONEY.matcher(trimmed);
    if (!m.matches()) {
      return null;
    }
    String before = m.group("before");
    String after = m.group("after");
    String written = before == null ? after : before;
    if (written == null || (before != null && after != null)) {
      return null;
    }
    boolean known =
        CurrencySigns.isBeside(written, m.group("number"), before != null)
            && !("ft".equalsIgnoreCase(written) && FEET.matcher(trimmed).matches());
    return known ? written : null;
  }

  /** The letters at the beginning, with the sign that belongs to them. */
  private static String leadingSign(String text) {
    int end = 0;
    while (end < text.length() && Character.isLetter(text.charAt(end))) {
      end++;
    }
    boolean goesOn =
        end < text.length()
            && (text.charAt(end) == '/'
                || Character.getType(text.charAt(end)) == Character.CURRENCY_SYMBOL);
    return text.substring(0, goesOn ? end + 1 : end);
  }

  private static String trailingWord(String text) {
    int start = text.length();
    while (start > 0 && Character.isLetter(text.charAt(start - 1))) {
      start--;
    }
    return text.substring(start);
  }

  private static boolean isPlain(char c) {
    return c >= '0' && c <= '9' || c == '-' || c == '+' || c == '.' || c == ',';
  }

  private static boolean mayBeCurrency(char c) {
    return Character.isLetter(c) || Character.getType(c) == Character.CURRENCY_SYMBOL;
  }

  private static String whyNot(String text, String decimal) {
    if (FEET.matcher(text).matches() && TWO_NUMBERS.matcher(text).find()) {
      return "two numbers, feet and inches";
    }
    if (text.chars().noneMatch(Character::isDigit)) {
      return "no number in it";
    }
    String other = ",".equals(decimal) ? "point" : "comma";
    if (PLAIN.matcher(text).matches()) {
      return "the " + other + " does not part thousands here";
    }
    return TWO_NUMBERS.matcher(text).find() && !DIGITS_AND_MARKS.matcher(text).matches()
        ? "more than a number in it"
        : "not written as a number";
  }
}
