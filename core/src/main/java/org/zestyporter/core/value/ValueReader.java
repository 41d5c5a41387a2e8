package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.DateTimeParseException;
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
  private static final Pattern COMMA_NUMBER = numberPattern("[. '’\u00A0\u202F]", ",");
  private static final Pattern POINT_NUMBER = numberPattern("[, '’\u00A0\u202F]", "\\.");
  private static final Pattern TWO_NUMBERS = Pattern.compile("\\d\\D+\\d.*");
  private static final Pattern FEET = Pattern.compile("\\d+\\s*(['’′]|ft|feet).*");
  private static final Pattern ISO_DATE = Pattern.compile("(\\d{4})-(\\d{1,2})-(\\d{1,2})");
  private static final Pattern PARTED_DATE =
      Pattern.compile("(\\d{1,4})\\s?([./-])\\s?(\\d{1,2})\\s?\\2\\s?(\\d{1,4})");
  private static final Pattern DAY_NAMED =
      Pattern.compile("(\\d{1,2})\\.?[ -](\\p{L}{3,9})\\.?[ -,]{1,2}(\\d{2}|\\d{4})");
  private static final Pattern NAMED_DAY =
      Pattern.compile("(\\p{L}{3,9})\\.? (\\d{1,2}),? (\\d{2}|\\d{4})");
  private static final Map<String, Integer> MONTHS =
      Map.ofEntries(
          Map.entry("jan", 1),
          Map.entry("feb", 2),
          Map.entry("mar", 3),
          Map.entry("apr", 4),
          Map.entry("may", 5),
          Map.entry("jun", 6),
          Map.entry("jul", 7),
          Map.entry("aug", 8),
          Map.entry("sep", 9),
          Map.entry("oct", 10),
          Map.entry("nov", 11),
          Map.entry("dec", 12));
  private static final Map<String, Boolean> TRUTH =
      Map.ofEntries(
          Map.entry("true", true),
          Map.entry("yes", true),
          Map.entry("y", true),
          Map.entry("1", true),
          Map.entry("x", true),
          Map.entry("false", false),
          Map.entry("no", false),
          Map.entry("n", false),
          Map.entry("0", false));

  private ValueReader() {}

  private static Pattern numberPattern(String grouping, String decimal) {
    return Pattern.compile(
        "([+-]?)(\\d+|\\d{1,3}(?:("
            + grouping
            + ")\\d{3}(?:\\3\\d{3})*)|)(?:"
            + decimal
            + "(\\d+))?(-?)");
  }

  /**
   * Reads a number.
   *
   * @param decimal the decimal sign, comma or point; the other one may group thousands
   * @return a {@link BigDecimal} or a {@link Problem}
   */
  public static Object number(String text, String decimal) {
    String trimmed = text.strip();
    Matcher m = (",".equals(decimal) ? COMMA_NUMBER : POINT_NUMBER).matcher(trimmed);
    if (!m.matches() || (m.group(2).isEmpty() && m.group(4) == null)) {
      return new Problem(ProblemCode.NOT_A_NUMBER, text, whyNoNumber(trimmed, decimal));
    }
    if (!m.group(1).isEmpty() && !m.group(5).isEmpty()) {
      return new Problem(ProblemCode.NOT_A_NUMBER, text, "it has two signs");
    }
    String whole = m.group(3) == null ? m.group(2) : m.group(2).replace(m.group(3), "");
    String digits = (whole.isEmpty() ? "0" : whole) + (m.group(4) == null ? "" : "." + m.group(4));
    BigDecimal value = new BigDecimal(digits);
    return "-".equals(m.group(1)) || "-".equals(m.group(5)) ? value.negate() : value;
  }

  private static String whyNoNumber(String text, String decimal) {
    if (FEET.matcher(text).matches() && TWO_NUMBERS.matcher(text).find()) {
      return "two numbers, feet and inches";
    }
    if (text.chars().noneMatch(Character::isDigit)) {
      return "no number in it";
    }
    String other = ",".equals(decimal) ? "point" : "comma";
    if (text.matches("[+-]?\\d+[.,]\\d+")) {
      return "the " + other + " does not part thousands here";
    }
    return TWO_NUMBERS.matcher(text).find() && !text.matches("[\\d.,]+")
        ? "more than a number in it"
        : "not written as a number";
  }

  /**
   * Reads a date: ISO 8601 always, else in the given order, also with English month names.
   *
   * @param century the first two figures for years written with two, or null if such years are a
   *     problem
   * @return a {@link LocalDate} or a {@link Problem}
   */
  public static Object date(String text, DateOrder order, String century) {
    String trimmed = text.strip();
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
    return new Problem(
        ProblemCode.NOT_A_DATE,
        text,
        trimmed.chars().anyMatch(Character::isDigit) ? "no single day" : "no date in it");
  }

  private static String month(String name) {
    Integer number = MONTHS.get(name.substring(0, 3).toLowerCase(Locale.ROOT));
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
   * Reads a date with a time after it, parted by a space or a T.
   *
   * @return a {@link LocalDateTime} or a {@link Problem}
   */
  public static Object dateTime(String text, DateOrder order, String century) {
    String trimmed = text.strip();
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
