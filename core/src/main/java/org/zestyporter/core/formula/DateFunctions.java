package org.zestyporter.core.formula;

import static org.zestyporter.core.formula.Function.Group.DATE;
import static org.zestyporter.core.formula.Functions.refuse;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.Period;
import java.time.temporal.ChronoUnit;
import java.time.temporal.IsoFields;
import java.time.temporal.TemporalAdjusters;
import java.util.List;
import java.util.Locale;
import java.util.function.ToIntFunction;

/**
 * Dates and times (ODF 1.2 part 2, 6.10). Dates are values of their own here, not day numbers; a
 * date plus a number is the day so many days on.
 */
final class DateFunctions {
  private DateFunctions() {}

  private static Function.Builder date(String name, String parameters) {
    return Function.named(name, DATE, parameters, Kind.DATE);
  }

  private static Function.Builder number(String name, String parameters) {
    return Function.named(name, DATE, parameters, Kind.NUMBER);
  }

  static List<Function> all() {
    return List.of(
        date("DATE", "year N, month N, day N")
            .says("the date of a year, month and day; month 13 is January of the next year")
            .example("DATE(2026; 11; 3)", "2026-11-03")
            .does((a, s) -> date(a)),
        date("DATEVALUE", "text T")
            .says("a text as a date, in the sender’s order of day, month and year")
            .example("DATEVALUE([Arrives])", "2026-11-03")
            .lazily(
                (c, call, parts) -> {
                  Code text = c.need(parts.get(0), Kind.TEXT, "DATEVALUE");
                  return scope -> Reads.date(text.run(scope), parts.get(0).locale());
                }),
        Function.named("TIME", DATE, "hour N, minute N, second N", Kind.TIME)
            .says("the time of day of an hour, minute and second")
            .example("TIME(9; 30; 0)", "09:30")
            .does((a, s) -> time(a)),
        Function.named("TIMEVALUE", DATE, "text T", Kind.TIME)
            .says("a text as a time of day")
            .example("TIMEVALUE(\"9:30\")", "09:30")
            .lazily(
                (c, call, parts) -> {
                  Code text = c.need(parts.get(0), Kind.TEXT, "TIMEVALUE");
                  return scope -> Reads.time(text.run(scope), parts.get(0).locale());
                }),
        part("YEAR", "the year", "YEAR([Arrives])", "2026", LocalDate::getYear),
        part("MONTH", "the month, 1 to 12", "MONTH([Arrives])", "11", LocalDate::getMonthValue),
        part("DAY", "the day of the month", "DAY([Arrives])", "3", LocalDate::getDayOfMonth),
        clock("HOUR", "the hour, 0 to 23", "HOUR(\"2026-11-03 14:05\")", "14", LocalTime::getHour),
        clock("MINUTE", "the minute", "MINUTE(\"14:05\")", "5", LocalTime::getMinute),
        clock("SECOND", "the second", "SECOND(\"14:05:30\")", "30", LocalTime::getSecond),
        number("WEEKDAY", "date D, type N?")
            .says("the day of the week: 1 is Sunday; with type 2, 1 is Monday; with 3, 0 is Monday")
            .example("WEEKDAY([Arrives]; 2)", "2")
            .does((a, s) -> weekday(a)),
        part(
            "ISOWEEKNUM",
            "the number of the week by ISO 8601",
            "ISOWEEKNUM([Arrives])",
            "45",
            d -> d.get(IsoFields.WEEK_OF_WEEK_BASED_YEAR)),
        number("DAYS", "end D, start D")
            .says("the days from the start to the end")
            .example("DAYS([Insured until]; [Arrives])", "148")
            .does((a, s) -> Numbers.days(Reads.day(a[1]), Reads.day(a[0]))),
        number("DATEDIF", "start D, end D, unit T")
            .says(
                "whole years “y”, months “m” or days “d” between dates; “ym”, “md” what is left over")
            .example("DATEDIF([Arrives]; [Insured until]; \"m\")", "4")
            .does((a, s) -> between(Reads.day(a[0]), Reads.day(a[1]), (String) a[2])),
        date("EDATE", "date D, months N")
            .says("so many months on, or back; the last day of a month stays inside it")
            .example("EDATE(\"2026-01-31\"; 1)", "2026-02-28")
            .does((a, s) -> Reads.day(a[0]).plusMonths(months(a[1]))),
        date("EOMONTH", "date D, months N?")
            .says("the last day of the month, so many months on")
            .example("EOMONTH([Arrives]; 0)", "2026-11-30")
            .does(
                (a, s) ->
                    Reads.day(a[0])
                        .plusMonths(a.length > 1 && a[1] != null ? months(a[1]) : 0)
                        .with(TemporalAdjusters.lastDayOfMonth())),
        number("NETWORKDAYS", "start D, end D")
            .says("the days from Monday to Friday between two dates, both counted")
            .example("NETWORKDAYS(\"2026-11-02\"; \"2026-11-09\")", "6")
            .does((a, s) -> BigDecimal.valueOf(workDays(Reads.day(a[0]), Reads.day(a[1])))),
        date("WORKDAY", "date D, days N")
            .says("so many days from Monday to Friday on")
            .example("WORKDAY(\"2026-11-06\"; 1)", "2026-11-09")
            .does((a, s) -> workDay(Reads.day(a[0]), a[1])),
        date("TODAY", "")
            .says("the day on which the run starts, the same for all rows")
            .example("TODAY() - TODAY()", "0")
            .does((a, s) -> s.now().toLocalDate()),
        date("NOW", "")
            .says("the date and time at which the run starts, the same for all rows")
            .example("NOW() - NOW()", "0")
            .does((a, s) -> s.now().truncatedTo(ChronoUnit.SECONDS)));
  }

  private static Function part(
      String name, String says, String example, String gives, ToIntFunction<LocalDate> of) {
    return number(name, "date D")
        .says(says)
        .example(example, gives)
        .does((a, s) -> BigDecimal.valueOf(of.applyAsInt(Reads.day(a[0]))));
  }

  private static Function clock(
      String name, String says, String example, String gives, ToIntFunction<LocalTime> of) {
    return number(name, "time C")
        .says(says)
        .example(example, gives)
        .does((a, s) -> BigDecimal.valueOf(of.applyAsInt((LocalTime) a[0])));
  }

  private static Object date(Object[] a) {
    try {
      int year = TextFunctions.whole(a[0]);
      LocalDate date =
          LocalDate.of(year, 1, 1)
              .plusMonths(TextFunctions.whole(a[1]) - 1L)
              .plusDays(TextFunctions.whole(a[2]) - 1L);
      return year < 1 || date.getYear() < 1 || date.getYear() > 9999
          ? refuse(a[0], "no year from 1 to 9999")
          : date;
    } catch (DateTimeException e) {
      return refuse(a[0], "no such day");
    }
  }

  private static Object time(Object[] a) {
    long seconds =
        TextFunctions.whole(a[0]) * 3600L
            + TextFunctions.whole(a[1]) * 60L
            + TextFunctions.whole(a[2]);
    return seconds < 0
        ? refuse(a[0], "before midnight")
        : LocalTime.ofSecondOfDay(seconds % 86_400);
  }

  private static long months(Object number) {
    return Math.max(-120_000, Math.min(120_000, TextFunctions.whole(number)));
  }

  private static Object weekday(Object[] a) {
    int monday = Reads.day(a[0]).getDayOfWeek().getValue();
    return switch (TextFunctions.whole(a, 1, 1)) {
      case 1 -> BigDecimal.valueOf(monday % 7 + 1L);
      case 2 -> BigDecimal.valueOf(monday);
      case 3 -> BigDecimal.valueOf(monday - 1L);
      default -> refuse(a[1], "the type is 1, 2 or 3");
    };
  }

  private static Object between(LocalDate start, LocalDate end, String unit) {
    if (end.isBefore(start)) {
      return refuse(end, "lies before the start");
    }
    Period period = Period.between(start, end);
    return switch (unit.toLowerCase(Locale.ROOT)) {
      case "y" -> BigDecimal.valueOf(period.getYears());
      case "m" -> BigDecimal.valueOf(period.toTotalMonths());
      case "d" -> BigDecimal.valueOf(ChronoUnit.DAYS.between(start, end));
      case "ym" -> BigDecimal.valueOf(period.getMonths());
      case "md" -> BigDecimal.valueOf(period.getDays());
      default -> refuse(unit, "the unit is y, m, d, ym or md");
    };
  }

  private static long workDays(LocalDate start, LocalDate end) {
    return end.isBefore(start) ? -countUpTo(end, start) : countUpTo(start, end);
  }

  private static long countUpTo(LocalDate start, LocalDate end) {
    long days = ChronoUnit.DAYS.between(start, end) + 1;
    long count = days / 7 * 5;
    for (long i = 0; i < days % 7; i++) {
      count += isWork(start.plusDays(i)) ? 1 : 0;
    }
    return count;
  }

  private static boolean isWork(LocalDate day) {
    return day.getDayOfWeek() != DayOfWeek.SATURDAY && day.getDayOfWeek() != DayOfWeek.SUNDAY;
  }

  private static Object workDay(LocalDate start, Object days) {
    int wanted = TextFunctions.whole(days);
    int step = wanted < 0 ? -1 : 1;
    LocalDate date = start.plusDays(wanted / 5 * 7L);
    int left = Math.abs(wanted % 5);
    while (left > 0 || (wanted != 0 && !isWork(date))) {
      date = date.plusDays(step);
      left -= left > 0 && isWork(date) ? 1 : 0;
    }
    return date;
  }
}
