package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads text as a type in the sender's locale.
 *
 * <p>Every method returns the value or a {@link Problem} and never guesses: 31.02.2026 is no date,
 * {@code 1.204} is 1204 where the comma is the decimal sign, and {@code 8.75} is then no number.
 *
 * <pre>{@code
 * ValueReader.number("1.204,5", ",");                       // 1204.5
 * ValueReader.date("3/11/2026", DateOrder.DAY_MONTH_YEAR, null); // 2026-11-03
 * }</pre>
 */
public final class ValueReader {
  private static final Pattern ISO_DATE = Pattern.compile("(\\d{4})-(\\d{1,2})-(\\d{1,2})");
  private static final Pattern BASIC_DATE = Pattern.compile("[12]\\d{7}");
  private static final Pattern PARTED_DATE =
      Pattern.compile("(\\d{1,4})\\s?([./-])\\s?(\\d{1,2})\\s?\\2\\s?(\\d{1,4})");
  private static final Pattern DAY_NAMED =
      Pattern.compile("(\\d{1,2})\\.?[ -](\\p{L}{3,12})\\.?[ -,]{1,2}(\\d{2}|\\d{4})");
  private static final Pattern NAMED_DAY =
      Pattern.compile("(\\p{L}{3,12})\\.? (\\d{1,2}),? (\\d{2}|\\d{4})");
  private static final Pattern ZONED =
      Pattern.compile("(.{6,40}[T ]\\d{1,2}:\\d{2}\\S*?) ?([Zz]|[+-]\\d{2}(?::?\\d{2})?)");
  private static final Map<String, Boolean> TRUTH = truths();
  private static final int SHORTEST_DATE = 6;

  private ValueReader() {}

  /** Words for yes and no in the languages of the senders; {@code no} is English. */
  private static Map<String, Boolean> truths() {
    Map<String, Boolean> words = new HashMap<>();
    for (String word :
        ("true yes y 1 x on wahr ja j vrai oui o vero sì sim sí verdadero tak kyllä ano áno igen"
                + " evet jah taip jā da да так ναι 是 はい 예 네 כן نعم")
            .split(" ")) {
      words.put(word, true);
    }
    for (String word :
        ("false no n 0 off falsch nein faux non falso não nee nej nei nie ei ne nē nem nu"
                + " hayır hayir нет не ні όχι 否 いいえ 아니오 아니요 לא لا")
            .split(" ")) {
      words.put(word, false);
    }
    return Map.copyOf(words);
  }

  /**
   * Reads a number.
   *
   * @param decimal the decimal sign, comma or point; the other one may group thousands
   * @return a {@link BigDecimal} or a {@link Problem}
   */
  public static Object number(String text, String decimal) {
    return NumberReader.read(text, decimal);
  }

  /**
   * Reads a date: ISO 8601 always, extended or basic, else in the given order, also with the names
   * of months in European languages.
   *
   * @param century the first two figures for years written with two, or null if such years are a
   *     problem
   * @return a {@link LocalDate} or a {@link Problem}
   */
  public static Object date(String text, DateOrder order, String century) {
    String trimmed = text.strip();
    if (trimmed.length() == 8 && BASIC_DATE.matcher(trimmed).matches()) {
      return date(
          text, trimmed.substring(0, 4), trimmed.substring(4, 6), trimmed.substring(6), century);
    }
    if (!mayBeDate(trimmed)) {
      return noDate(text, trimmed);
    }
    if (Character.isLetter(trimmed.charAt(0)) && !beginsWithMonth(trimmed)) {
      return noDate(text, trimmed);
    }
    Matcher m = ISO_DATE.matcher(trimmed);
    if (m.matches()) {
      return date(text, m.group(1), m.group(2), m.group(3), century);
    }
    m = PARTED_DATE.matcher(trimmed);
    if (m.matches()) {
      String first = m.group(1);
      return switch (first.length() > 2 ? DateOrder.YEAR_MONTH_DAY : order) {
        case DAY_MONTH_YEAR -> date(text, m.group(4), m.group(3), first, century);
        case MONTH_DAY_YEAR -> date(text, m.group(4), first, m.group(3), century);
        case YEAR_MONTH_DAY -> date(text, first, m.group(3), m.group(4), century);
      };
    }
    m = DAY_NAMED.matcher(trimmed);
    if (m.matches() && month(m.group(2)) != null) {
      return date(text, m.group(3), month(m.group(2)), m.group(1), century);
    }
    m = NAMED_DAY.matcher(trimmed);
    if (m.matches() && month(m.group(1)) != null) {
      return date(text, m.group(3), month(m.group(1)), m.group(2), century);
    }
    return noDate(text, trimmed);
  }

  /** False for what can't be a date for want of digits, or for letters that are no month. */
  static boolean mayBeDate(String text) {
    int length = text.length();
    if (length < SHORTEST_DATE || length > 40) {
      return false;
    }
    int digits = 0;
    int letters = 0;
    for (int i = 0; i < length; i++) {
      char c = text.charAt(i);
      if (c >= '0' && c <= '9') {
        digits++;
      } else if (Character.isLetter(c)) {
        letters++;
      }
    }
    return digits >= 3 && digits < length && (letters == 0 || letters > 2);
  }

  private static boolean beginsWithMonth(String text) {
    int letters = 1;
    while (letters < text.length() && Character.isLetter(text.charAt(letters))) {
      letters++;
    }
    return letters >= 3 && MonthNames.number(text.substring(0, letters)) != null;
  }

  private static Problem noDate(String text, String trimmed) {
    return new Problem(
        ProblemCode.NOT_A_DATE,
        text,
        trimmed.chars().anyMatch(Character::isDigit) ? "no single day" : "no date in it");
  }

  private static String month(String name) {
    Integer number = MonthNames.number(name);
    return number == null ? null : number.toString();
  }

  private static Object date(String text, String year, String month, String day, String century) {
    if (year.length() == 3 || year.length() == 1 || day.length() > 2) {
      return new Problem(ProblemCode.NOT_A_DATE, text, "not written as a date");
    }
    if (year.length() == 2 && century == null) {
      return new Problem(ProblemCode.NOT_A_DATE, text, "the year has two figures");
    }
    int fullYear = Integer.parseInt(year.length() == 2 ? century + year : year);
    int monthNumber = Integer.parseInt(month);
    if (monthNumber < 1 || monthNumber > 12) {
      return new Problem(ProblemCode.NOT_A_DATE, text, "there is no month " + monthNumber);
    }
    try {
      return LocalDate.of(fullYear, monthNumber, Integer.parseInt(day));
    } catch (DateTimeException e) {
      return new Problem(ProblemCode.NOT_A_DATE, text, "no such day");
    }
  }

  /**
   * Reads a date with a time after it, parted by a space or a T; a zone may follow as in ISO 8601
   * ({@code Z}, {@code +02:00}).
   *
   * @return a {@link LocalDateTime}, an {@link OffsetDateTime} if a zone is given, or a {@link
   *     Problem}
   */
  public static Object dateTime(String text, DateOrder order, String century) {
    String trimmed = text.strip();
    Matcher zoned = ZONED.matcher(trimmed);
    if (zoned.matches()) {
      Object local = dateTime(zoned.group(1), order, century);
      if (!(local instanceof LocalDateTime moment)) {
        Problem problem = (Problem) local;
        return new Problem(problem.code(), text, problem.reason());
      }
      try {
        return moment.atOffset(ZoneOffset.of(zoned.group(2).replace("z", "Z")));
      } catch (DateTimeException e) {
        return new Problem(ProblemCode.NOT_A_TIME, text, "there is no such zone");
      }
    }
    int gap = Math.max(trimmed.lastIndexOf(' '), trimmed.lastIndexOf('T'));
    if (gap < 6 || trimmed.indexOf(':', gap) < 0) {
      Object date = date(trimmed, order, century);
      return date instanceof LocalDate day ? day.atStartOfDay() : date;
    }
    Object date = date(trimmed.substring(0, gap), order, century);
    Object time = time(trimmed.substring(gap + 1));
    if (date instanceof LocalDate day && time instanceof LocalTime clock) {
      return LocalDateTime.of(day, clock);
    }
    Problem problem = (Problem) (date instanceof Problem ? date : time);
    return new Problem(problem.code(), text, problem.reason());
  }

  /**
   * Reads a time of day on the 24-hour clock, {@code H:mm} or {@code H:mm:ss}.
   *
   * @return a {@link LocalTime} or a {@link Problem}
   */
  public static Object time(String text) {
    String trimmed = text.strip();
    try {
      return LocalTime.parse(trimmed.indexOf(':') == 1 ? "0" + trimmed : trimmed);
    } catch (DateTimeParseException e) {
      return new Problem(ProblemCode.NOT_A_TIME, text, "not a time of day");
    }
  }

  /**
   * Reads yes/no words.
   *
   * @return a {@link Boolean} or a {@link Problem}
   */
  public static Object truth(String text) {
    Boolean value = TRUTH.get(text.strip().toLowerCase(Locale.ROOT));
    return value != null
        ? value
        : new Problem(ProblemCode.NOT_TRUE_OR_FALSE, text, "neither yes nor no");
  }
}
