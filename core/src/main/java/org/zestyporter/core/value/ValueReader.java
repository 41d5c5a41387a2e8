package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.HashMap;
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
  private static final Pattern ZONED =
      Pattern.compile("(.{6,40}[T ]\\d{1,2}:\\d{2}\\S*?) ?([Zz]|UTC|GMT|[+-]\\d{2}(?::?\\d{2})?)");
  private static final Map<String, Boolean> TRUTH = truths();

  private static final int SHORTEST_DATE = 6;

  private ValueReader() {}

  /** Words for yes and no in the languages of the senders; {@code no} is English. */
  private static Map<String, Boolean> truths() {
    Map<String, Boolean> words = new HashMap<>();
    for (String word :
        ("true yes y 1 x + on wahr ja j vrai oui o vero sì sim sí verdadero tak kyllä ano áno igen já"
                + " iva bai po այո კი bəli иә ооба тийм"
                + " evet jah taip jā da да так ya có हाँ हां ใช่ ναι 是 はい 예 네 כן نعم بله بلی آری ○ ◯ 〇 ✓ ✔ ☑ 有 有り あり")
            .split(" ")) {
      words.put(Texts.small(word), true);
    }
    for (String word :
        ("false no n 0 off falsch nein faux non falso não nee nej nei nie ei ne nē nem nu"
                + " le ez jo ոչ არა xeyr жоқ жок үгүй"
                + " hayır hayir нет не ні tidak không नहीं ไม่ใช่ όχι 否 いいえ 아니오 아니요 לא لا خیر نه ☐ 無 无 無し なし")
            .split(" ")) {
      words.put(Texts.small(word), false);
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
   * of months in European languages, and as written in East Asia, with or without an era.
   *
   * @param century the first two figures for years written with two, or null if such years are a
   *     problem
   * @return a {@link LocalDate} or a {@link Problem}
   */
  public static Object date(String text, DateOrder order, String century) {
    return DateReader.read(text, order, century);
  }

  /** False for what can't be a date for want of digits, or for letters that are no month. */
  static boolean mayBeDate(String text) {
    return DateReader.mayBe(text);
  }

  /**
   * Reads a date with a time after it, parted by a space, a comma or a T; a zone may follow as in
   * ISO 8601 ({@code Z}, {@code +02:00}).
   *
   * @return a {@link LocalDateTime}, an {@link OffsetDateTime} if a zone is given, or a {@link
   *     Problem}
   */
  public static Object dateTime(String text, DateOrder order, String century) {
    String trimmed = AsciiSigns.of(text.strip());
    Matcher zoned = mayHaveZone(trimmed) ? ZONED.matcher(trimmed) : null;
    if (zoned != null && zoned.matches()) {
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
    int begin = ClockReader.begin(trimmed);
    if (begin < SHORTEST_DATE) {
      Object date = date(trimmed, order, century);
      return date instanceof LocalDate day ? day.atStartOfDay() : date;
    }
    Object date = date(withoutMark(trimmed.substring(0, begin)), order, century);
    Object time = time(trimmed.substring(begin));
    if (date instanceof LocalDate day && time instanceof LocalTime clock) {
      return LocalDateTime.of(day, clock);
    }
    Problem problem = (Problem) (date instanceof Problem ? date : time);
    return new Problem(problem.code(), text, problem.reason());
  }

  /** True for a time that ends with Z or the like, or with a sign behind it. */
  private static boolean mayHaveZone(String text) {
    int last = text.length() - 1;
    int colon = text.indexOf(':');
    return colon > 0
        && ("ZzCT".indexOf(text.charAt(last)) >= 0
            || text.indexOf('+', colon) > 0
            || text.indexOf('-', colon) > 0);
  }

  /** A date without what parts it from its time. */
  private static String withoutMark(String date) {
    String bare = date.strip();
    int last = bare.length() - 1;
    return bare.endsWith(",") || bare.endsWith("T") && Character.isDigit(bare.charAt(last - 1))
        ? bare.substring(0, last)
        : bare;
  }

  /**
   * Reads a time of day, {@code H:mm} or {@code H:mm:ss}, on the clock of 24 hours, or with the
   * half of the day before or behind it on that of 12.
   *
   * @return a {@link LocalTime} or a {@link Problem}
   */
  public static Object time(String text) {
    LocalTime time = ClockReader.find(AsciiSigns.of(text.strip()));
    return time != null ? time : new Problem(ProblemCode.NOT_A_TIME, text, "not a time of day");
  }

  /**
   * Reads yes/no words.
   *
   * @return a {@link Boolean} or a {@link Problem}
   */
  public static Object truth(String text) {
    Boolean value = TRUTH.get(Texts.small(AsciiSigns.of(text.strip())));
    return value != null
        ? value
        : new Problem(ProblemCode.NOT_TRUE_OR_FALSE, text, "neither yes nor no");
  }
}
