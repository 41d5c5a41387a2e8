package org.zestyporter.core.value;

import com.ibm.icu.util.PersianCalendar;
import com.ibm.icu.util.TimeZone;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.chrono.Chronology;
import java.time.chrono.HijrahChronology;
import java.time.chrono.MinguoChronology;
import java.time.chrono.ThaiBuddhistChronology;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Calendars in which some offices count their days: the years of Thailand (2567 is 2024) and of
 * Taiwan (113 is 2024), the Umm al-Qura calendar of Saudi Arabia (1445), as Java's {@link
 * Chronology} knows them, and the solar one of Iran (1403) as Unicode's library does.
 */
public enum OtherCalendar {
  BUDDHIST(ThaiBuddhistChronology.INSTANCE, 4),
  MINGUO(MinguoChronology.INSTANCE, 2),
  HIJRI((y, m, d) -> LocalDate.from(HijrahChronology.INSTANCE.date(y, m, d))),
  PERSIAN(OtherCalendar::persian);

  /** Which day of ours a day is. */
  @FunctionalInterface
  private interface Days {
    LocalDate of(int year, int month, int day);
  }

  /** 15/3/2567, 113.03.15, and what stands behind it. */
  private static final Pattern PARTED =
      Pattern.compile("(\\d{1,4})\\s?([./-])\\s?(\\d{1,2})\\s?\\2\\s?(\\d{1,4})(?!\\d)(.*)");

  /** 1130315. */
  private static final Pattern TOGETHER = Pattern.compile("(\\d{2,3})(\\d{2})(\\d{2})");

  /** The year beside a month's name; the sign of the era says nothing more. */
  private static final Pattern YEAR =
      Pattern.compile("(?:พ\\.?ศ\\.?\\s?)?(?<!\\d)(\\d{3,4})(?!\\d)");

  /** ۱۲ مرداد ۱۴۰۲ and 1445 Ramadan 3, with what may stand before it. */
  private static final Pattern NAMED =
      Pattern.compile(
          "(?:[\\p{L}\\p{M}\\s\u200C]+[,،]?\\s)??(\\d{1,4})[\\s./-]*"
              + "(\\p{L}[\\p{L}\\p{M}\\s.'’ʻʿ\u200C-]*?)[\\s.,،/-]*(\\d{1,4})(?!\\d)(.*)");

  /** What says only that it is this calendar. */
  private static final Pattern ERA =
      Pattern.compile("\\s?(?:هـ\\.?|ه\\.?\\s?[شق]\\.?|\\bA\\.?[HP]\\.?|\\bH)$");

  /** Years before this one are none that an application holds. */
  private static final int EARLIEST = 1700;

  /** By which years of that calendar are told: no others lie there. */
  private static final int BUDDHIST_FROM = 2400;

  private static final int BUDDHIST_TO = 2699;
  private static final int BUDDHIST_AHEAD = 543;

  /** No year of the calendar of Iran for long. */
  private static final int MUSLIM_TO = 1499;

  /** Letters of the longest day with its week's and month's name, generously. */
  public static final int LONGEST = 80;

  private final Days days;

  /** Digits that a year has at least. */
  private final int digits;

  /** True if it has the same months and days, and only counts other years. */
  private final boolean onlyYears;

  OtherCalendar(Chronology years, int digits) {
    this.days = (y, m, d) -> LocalDate.from(years.date(y, m, d));
    this.digits = digits;
    this.onlyYears = true;
  }

  OtherCalendar(Days days) {
    this.days = days;
    this.digits = 4;
    this.onlyYears = false;
  }

  /** Months by their names, which are only wanted once such a day was seen. */
  private static final class Months {
    static final CalendarMonths HIJRI = new CalendarMonths("islamic");
    static final CalendarMonths PERSIAN = new CalendarMonths("persian");
  }

  private @Nullable Integer month(String name) {
    return (this == HIJRI ? Months.HIJRI : Months.PERSIAN).number(name);
  }

  private static LocalDate persian(int year, int month, int day) {
    if (year > MUSLIM_TO) {
      throw new DateTimeException("the year");
    }
    PersianCalendar calendar = new PersianCalendar(TimeZone.GMT_ZONE);
    calendar.setLenient(false);
    calendar.clear();
    calendar.set(year, month - 1, day);
    try {
      return LocalDate.ofEpochDay(TimeUnit.MILLISECONDS.toDays(calendar.getTimeInMillis()));
    } catch (IllegalArgumentException e) {
      throw new DateTimeException("no such day", e);
    }
  }

  /** As plans call it. */
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }

  /** The calendar that a plan calls so. */
  public static OtherCalendar of(String word) {
    return valueOf(word.toUpperCase(Locale.ROOT));
  }

  /** True for a day whose year can only be one of the Buddhist calendar. */
  public static boolean isBuddhist(Object value) {
    int year =
        value instanceof LocalDate day
            ? day.getYear()
            : value instanceof LocalDateTime moment ? moment.getYear() : 0;
    return year >= BUDDHIST_FROM && year <= BUDDHIST_TO;
  }

  /**
   * Reads a date of this calendar, or a moment if the text holds a time.
   *
   * @param order of day, month and year where the year does not come first
   * @return a {@link LocalDate}, a moment, or a {@link Problem}
   */
  public Object read(String text, DateOrder order) {
    String plain = ERA.matcher(AsciiSigns.of(text.strip())).replaceFirst("");
    try {
      String written = this == MINGUO ? parted(plain) : plain;
      Matcher m = PARTED.matcher(written);
      if (m.matches()) {
        return read(text, ofParts(m, order) + m.group(5), DateOrder.YEAR_MONTH_DAY);
      }
      return onlyYears ? withYear(text, plain, order) : named(text, plain);
    } catch (DateTimeException e) {
      return not(text, "no such day in the " + word() + " calendar");
    }
  }

  private Object withYear(String text, String plain, DateOrder order) {
    Matcher m = YEAR.matcher(plain);
    if (!m.find()) {
      return not(text, "not written as a date");
    }
    int year = days.of(Integer.parseInt(m.group(1)), 1, 1).getYear();
    return read(text, m.replaceFirst(String.valueOf(known(year))), order);
  }

  private Object named(String text, String plain) {
    Matcher m = NAMED.matcher(plain);
    Integer month = plain.length() <= LONGEST && m.matches() ? month(m.group(2)) : null;
    if (month == null) {
      return not(text, "not written as a date");
    }
    boolean isYearFirst = m.group(1).length() > 2;
    LocalDate day = day(m.group(isYearFirst ? 1 : 3), month, m.group(isYearFirst ? 3 : 1));
    return read(text, day + m.group(4), DateOrder.YEAR_MONTH_DAY);
  }

  private static String parted(String text) {
    return TOGETHER.matcher(text).replaceFirst("$1-$2-$3");
  }

  private LocalDate ofParts(Matcher m, DateOrder order) {
    DateOrder own = m.group(1).length() > 2 ? DateOrder.YEAR_MONTH_DAY : order;
    String year = own == DateOrder.YEAR_MONTH_DAY ? m.group(1) : m.group(4);
    String month = own == DateOrder.MONTH_DAY_YEAR ? m.group(1) : m.group(3);
    String day =
        switch (own) {
          case YEAR_MONTH_DAY -> m.group(4);
          case MONTH_DAY_YEAR -> m.group(3);
          case DAY_MONTH_YEAR -> m.group(1);
        };
    return day(year, Integer.parseInt(month), day);
  }

  private LocalDate day(String year, int month, String day) {
    if (year.length() < digits || day.length() > 2) {
      throw new DateTimeException("not written as a date");
    }
    LocalDate date = days.of(Integer.parseInt(year), month, Integer.parseInt(day));
    known(date.getYear());
    return date;
  }

  private static int known(int year) {
    if (year < EARLIEST || year > 9999) {
      throw new DateTimeException("the year");
    }
    return year;
  }

  private static Object read(String text, String gregorian, DateOrder order) {
    Object read =
        gregorian.indexOf(':') > 0
            ? ValueReader.dateTime(gregorian, order, null)
            : ValueReader.date(gregorian, order, null);
    return read instanceof Problem problem ? not(text, problem.reason()) : read;
  }

  private static Problem not(String text, String why) {
    return new Problem(ProblemCode.NOT_A_DATE, text, why);
  }

  /** A day of a cell that was meant as one of this calendar; else the day itself. */
  public Object meant(Object value) {
    if (this != BUDDHIST || !isBuddhist(value)) {
      return value;
    }
    return value instanceof LocalDate day
        ? day.minusYears(BUDDHIST_AHEAD)
        : ((LocalDateTime) value).minusYears(BUDDHIST_AHEAD);
  }
}
