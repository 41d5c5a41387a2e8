package org.zestyporter.core.value;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.chrono.JapaneseDate;
import java.time.chrono.JapaneseEra;
import java.time.chrono.MinguoDate;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads dates: in figures, with the names of months, and as they are written in East Asia, where
 * years may be counted by eras.
 */
final class DateReader {
  private static final Pattern ISO_DATE = Pattern.compile("(\\d{4})-(\\d{1,2})-(\\d{1,2})");
  private static final Pattern BASIC_DATE = Pattern.compile("[12]\\d{7}");
  private static final Pattern PARTED_DATE =
      Pattern.compile("(\\d{1,4})\\s?([./-])\\s?(\\d{1,2})\\s?\\2\\s?(\\d{1,4})");

  /** The name of a month; short ones have a point within in Thai. */
  private static final String MONTH =
      "[\\p{L}\\p{M}]{3,14}|[\\p{L}\\p{M}]{1,3}\\.[\\p{L}\\p{M}]{1,2}|\\p{L}{2}";

  private static final String DAY = "(\\d{1,2})(?:\\.|st|nd|rd|th|er|º|ª)?";

  /** 3 November 2026, 3. Nov 26, 3-Nov-2026, 03/Nov/2026, 3 de marzo de 2026. */
  private static final Pattern DAY_NAMED =
      Pattern.compile(
          DAY
              + "(?:[ /-]|[.] ?| de | d['’]| of )("
              + MONTH
              + ")(?:\\.|\\.? de |\\.?[ ,/-]{1,2})(\\d{2}|\\d{4})\\.?");

  /** 03NOV2026. */
  private static final Pattern TOGETHER = Pattern.compile("(\\d{1,2})(\\p{L}{3})(\\d{4})");

  /** November 3, 2026. */
  private static final Pattern NAMED_DAY =
      Pattern.compile("(" + MONTH + ")\\.? " + DAY + ",? (\\d{2}|\\d{4})");

  /** 2026. november 3., 2026-Nov-03, 2026 m. lapkričio 3 d. */
  private static final Pattern YEAR_NAMED =
      Pattern.compile("(\\d{4})(?:\\.| m\\.)?[ -](" + MONTH + ")\\.?[ -](\\d{1,2})(?:\\.| d\\.)?");

  /** 2026. gada 3. novembrī. */
  private static final Pattern YEAR_DAY_NAMED =
      Pattern.compile("(\\d{4})\\. gada (\\d{1,2})\\. (" + MONTH + ")");

  /** 2026年11月3日, 令和8年11月3日, 民國115年11月3日, 2026년 11월 3일; R8.11.3. */
  private static final Pattern EAST_ASIAN =
      Pattern.compile(
          "(\\p{IsHan}{2}|[MTSHRmtshr])?\\s?(\\d{1,4}|元)[年년./-]\\s?(\\d{1,2})[月월./-]\\s?(\\d{1,2})[日号號일.]?");

  private static final Map<String, JapaneseEra> ERAS =
      Map.ofEntries(
          Map.entry("明治", JapaneseEra.MEIJI),
          Map.entry("大正", JapaneseEra.TAISHO),
          Map.entry("昭和", JapaneseEra.SHOWA),
          Map.entry("平成", JapaneseEra.HEISEI),
          Map.entry("令和", JapaneseEra.REIWA),
          Map.entry("M", JapaneseEra.MEIJI),
          Map.entry("T", JapaneseEra.TAISHO),
          Map.entry("S", JapaneseEra.SHOWA),
          Map.entry("H", JapaneseEra.HEISEI),
          Map.entry("R", JapaneseEra.REIWA));

  /** What stands for "year" behind a date: 3 ноября 2026 г., 3 stycznia 2026 r. */
  private static final Pattern WORD_BEHIND = Pattern.compile("(?<=\\d{4})(?:\\s?[гр]\\.?| r\\.)$");

  private static final int SHORTEST = 6;

  private static final char SOUTH_ASIAN = 0x0900;

  private DateReader() {}

  static Object read(String text, DateOrder order, String century) {
    String trimmed = text.strip();
    LocalDate plain = PlainMoment.date(trimmed, order);
    if (plain != null) {
      return plain;
    }
    if (trimmed.length() == 8 && BASIC_DATE.matcher(trimmed).matches()) {
      return date(
          text, trimmed.substring(0, 4), trimmed.substring(4, 6), trimmed.substring(6), century);
    }
    trimmed = withoutWord(AsciiSigns.of(trimmed));
    char last = trimmed.isEmpty() ? ' ' : trimmed.charAt(trimmed.length() - 1);
    if (trimmed.indexOf('年') > 0 || last == '일' || isEra(trimmed)) {
      return eastAsian(text, trimmed);
    }
    if (!mayBe(trimmed) || Character.isLetter(trimmed.charAt(0)) && !beginsWithMonth(trimmed)) {
      return none(text, trimmed);
    }
    Matcher m = ISO_DATE.matcher(trimmed);
    if (m.matches()) {
      return date(text, m.group(1), m.group(2), m.group(3), century);
    }
    // some languages put a point behind the day, or the year, too
    m = PARTED_DATE.matcher(last == '.' ? trimmed.substring(0, trimmed.length() - 1) : trimmed);
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
    m = TOGETHER.matcher(trimmed);
    if (m.matches() && month(m.group(2)) != null) {
      return date(text, m.group(3), month(m.group(2)), m.group(1), century);
    }
    m = NAMED_DAY.matcher(trimmed);
    if (m.matches() && month(m.group(1)) != null) {
      return date(text, m.group(3), month(m.group(1)), m.group(2), century);
    }
    m = YEAR_NAMED.matcher(trimmed);
    if (m.matches() && month(m.group(2)) != null) {
      return date(text, m.group(1), month(m.group(2)), m.group(3), century);
    }
    m = YEAR_DAY_NAMED.matcher(trimmed);
    if (m.matches() && month(m.group(3)) != null) {
      return date(text, m.group(1), month(m.group(3)), m.group(2), century);
    }
    return none(text, trimmed);
  }

  private static String withoutWord(String text) {
    char last = text.isEmpty() ? ' ' : text.charAt(text.length() - 1);
    boolean may = last == '.' || last == 'г' || last == 'р';
    return may ? WORD_BEHIND.matcher(text).replaceFirst("") : text;
  }

  /** True for R8.11.3 and the like. */
  private static boolean isEra(String text) {
    return text.length() >= SHORTEST
        && "MTSHRmtshr".indexOf(text.charAt(0)) >= 0
        && Character.isDigit(text.charAt(1))
        && EAST_ASIAN.matcher(text).matches();
  }

  private static Object eastAsian(String text, String trimmed) {
    Matcher m = EAST_ASIAN.matcher(trimmed);
    if (!m.matches()) {
      return none(text, trimmed);
    }
    String era = m.group(1);
    int year = "元".equals(m.group(2)) ? 1 : Integer.parseInt(m.group(2));
    int month = Integer.parseInt(m.group(3));
    int day = Integer.parseInt(m.group(4));
    try {
      if (era == null) {
        boolean full = m.group(2).length() == 4;
        return full ? LocalDate.of(year, month, day) : not(text, "the year has not four figures");
      }
      if ("民國".equals(era) || "民国".equals(era)) {
        return LocalDate.from(MinguoDate.of(year, month, day));
      }
      JapaneseEra known = ERAS.get(era.length() == 1 ? era.toUpperCase(Locale.ROOT) : era);
      return known == null
          ? not(text, "there is no era " + era)
          : LocalDate.from(JapaneseDate.of(known, year, month, day));
    } catch (DateTimeException e) {
      return not(text, "no such day");
    }
  }

  /** False for what can't be a date for want of digits, or for letters that are no month. */
  static boolean mayBe(String text) {
    int length = text.length();
    if (length < SHORTEST || length > 40) {
      return false;
    }
    int digits = 0;
    int letters = 0;
    for (int i = 0; i < length; i++) {
      char c = text.charAt(i);
      if (c >= '0' && c <= '9') {
        digits++;
      } else if (Character.isLetter(c)) {
        // names of months have three of them, or two of the scripts of South Asia
        letters += c < SOUTH_ASIAN ? 1 : 2;
      } else if (c == '$' || Character.getType(c) == Character.CURRENCY_SYMBOL) {
        return false;
      }
    }
    return digits >= 3
        && digits < length
        && (letters == 0 || letters > 2 || letters == 1 && WORD_BEHIND.matcher(text).find());
  }

  private static boolean beginsWithMonth(String text) {
    int letters = 1;
    while (letters < text.length() && Character.isLetter(text.charAt(letters))) {
      letters++;
    }
    return letters >= 3 && MonthNames.number(text.substring(0, letters)) != null;
  }

  private static Problem none(String text, String trimmed) {
    return not(
        text, trimmed.chars().anyMatch(Character::isDigit) ? "no single day" : "no date in it");
  }

  private static Problem not(String text, String why) {
    return new Problem(ProblemCode.NOT_A_DATE, text, why);
  }

  private static String month(String name) {
    Integer number = MonthNames.number(name);
    return number == null ? null : number.toString();
  }

  private static Object date(String text, String year, String month, String day, String century) {
    if (year.length() == 3 || year.length() == 1 || day.length() > 2) {
      return not(text, "not written as a date");
    }
    if (year.length() == 2 && century == null) {
      return not(text, "the year has two figures");
    }
    int fullYear = Integer.parseInt(year.length() == 2 ? century + year : year);
    int monthNumber = Integer.parseInt(month);
    if (monthNumber < 1 || monthNumber > 12) {
      return not(text, "there is no month " + monthNumber);
    }
    try {
      return LocalDate.of(fullYear, monthNumber, Integer.parseInt(day));
    } catch (DateTimeException e) {
      return not(text, "no such day");
    }
  }
}
