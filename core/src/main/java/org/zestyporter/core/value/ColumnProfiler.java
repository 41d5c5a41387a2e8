package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Tells what a column holds from all of its distinct values. */
public final class ColumnProfiler {
  private static final Pattern LEADING_ZERO = Pattern.compile("[+-]?0\\d.*");
  private static final Pattern COMMA_DECIMAL =
      Pattern.compile("[+-]?[\\d.]*\\d,(\\d{1,2}|\\d{4,})");
  private static final Pattern POINT_DECIMAL =
      Pattern.compile("[+-]?[\\d,]*\\d\\.(\\d{1,2}|\\d{4,})");
  private static final Pattern PARTED_DATE =
      Pattern.compile("\\s*(\\d{1,2})([./-])(\\d{1,2})\\2(\\d{2}|\\d{4})\\s*");
  private static final int SHOWN = 12;

  private ColumnProfiler() {}

  /** Votes of a column on how its sender writes numbers and dates, in rows. */
  public record Votes(long comma, long point, long dayFirst, long monthFirst, long eitherWay) {
    public static final Votes NONE = new Votes(0, 0, 0, 0, 0);

    public Votes plus(Votes o) {
      return new Votes(
          comma + o.comma,
          point + o.point,
          dayFirst + o.dayFirst,
          monthFirst + o.monthFirst,
          eitherWay + o.eitherWay);
    }
  }

  /** Counts what the texts of a column say about decimal sign and date order. */
  public static Votes votes(DistinctValues values) {
    long comma = 0;
    long point = 0;
    long dayFirst = 0;
    long monthFirst = 0;
    long either = 0;
    for (Map.Entry<Cell, DistinctValues.Tally> e : values.tallies().entrySet()) {
      if (e.getKey().kind() != Cell.Kind.TEXT) {
        continue;
      }
      String text = e.getKey().text().strip();
      long rows = e.getValue().rows();
      Matcher date = PARTED_DATE.matcher(text);
      if (date.matches()) {
        int first = Integer.parseInt(date.group(1));
        int second = Integer.parseInt(date.group(3));
        if (first > 12 && first <= 31 && second <= 12) {
          dayFirst += rows;
        } else if (second > 12 && second <= 31 && first <= 12) {
          monthFirst += rows;
        } else {
          either += rows;
        }
      } else if (COMMA_DECIMAL.matcher(text).matches()) {
        comma += rows;
      } else if (POINT_DECIMAL.matcher(text).matches()) {
        point += rows;
      }
    }
    return new Votes(comma, point, dayFirst, monthFirst, either);
  }

  /** Profiles a column in the locale that the whole file was found to have. */
  public static ColumnProfile profile(
      String name, String letter, DistinctValues values, LocaleSettings locale) {
    Map<ValueType, Long> fits = new EnumMap<>(ValueType.class);
    long rows = 0;
    int longest = 0;
    for (Map.Entry<Cell, DistinctValues.Tally> e : values.tallies().entrySet()) {
      long n = e.getValue().rows();
      rows += n;
      longest = Math.max(longest, e.getKey().text().length());
      fits.merge(typeOf(e.getKey(), locale), n, Long::sum);
    }
    ValueType type = decide(fits, rows);
    Comparator<Map.Entry<Cell, DistinctValues.Tally>> frequent =
        Comparator.comparingLong(e -> -e.getValue().rows());
    List<ColumnProfile.ValueCount> samples =
        values.tallies().entrySet().stream()
            .sorted(frequent)
            .limit(SHOWN)
            .map(ColumnProfiler::count)
            .toList();
    List<ColumnProfile.ValueCount> misfits =
        type == ValueType.TEXT
            ? List.of()
            : values.tallies().entrySet().stream()
                .filter(e -> !fits(typeOf(e.getKey(), locale), type))
                .sorted(frequent)
                .limit(SHOWN)
                .map(ColumnProfiler::count)
                .toList();
    Comparable<?>[] range = range(values, type, locale);
    Votes votes = type == ValueType.DATE ? votes(values) : Votes.NONE;
    return new ColumnProfile(
        name,
        letter,
        type,
        pattern(type, values, locale),
        values.blank(),
        values.tallies().size(),
        values.beyond() > 0,
        Values.text(range[0]),
        Values.text(range[1]),
        longest,
        votes.eitherWay() > 0 && votes.dayFirst() == 0 && votes.monthFirst() == 0,
        samples,
        misfits);
  }

  private static ColumnProfile.ValueCount count(Map.Entry<Cell, DistinctValues.Tally> e) {
    return new ColumnProfile.ValueCount(
        e.getKey().text(), e.getValue().rows(), e.getValue().line());
  }

  private static ValueType decide(Map<ValueType, Long> fits, long rows) {
    if (rows == 0) {
      return ValueType.EMPTY;
    }
    long whole = fits.getOrDefault(ValueType.WHOLE, 0L);
    long decimal = fits.getOrDefault(ValueType.DECIMAL, 0L);
    long needed = (rows * 9 + 9) / 10;
    if (whole + decimal >= needed) {
      return decimal == 0 ? ValueType.WHOLE : ValueType.DECIMAL;
    }
    long dateTime = fits.getOrDefault(ValueType.DATETIME, 0L);
    if (dateTime > 0 && fits.getOrDefault(ValueType.DATE, 0L) + dateTime >= needed) {
      return ValueType.DATETIME;
    }
    for (ValueType type : List.of(ValueType.DATE, ValueType.TIME, ValueType.BOOLEAN)) {
      if (fits.getOrDefault(type, 0L) >= needed) {
        return type;
      }
    }
    return ValueType.TEXT;
  }

  private static boolean fits(ValueType cell, ValueType column) {
    return cell == column
        || (column == ValueType.DECIMAL && cell == ValueType.WHOLE)
        || (column == ValueType.DATETIME && cell == ValueType.DATE);
  }

  private static ValueType typeOf(Cell cell, LocaleSettings locale) {
    switch (cell.kind()) {
      case NUMBER:
        return cell.text().indexOf('.') < 0 ? ValueType.WHOLE : ValueType.DECIMAL;
      case DATE:
        return ValueType.DATE;
      case DATETIME:
        return ValueType.DATETIME;
      case TIME:
        return ValueType.TIME;
      case BOOLEAN:
        return ValueType.BOOLEAN;
      case ERROR:
        return ValueType.TEXT;
      default:
        return typeOf(cell.text().strip(), locale);
    }
  }

  private static ValueType typeOf(String text, LocaleSettings locale) {
    if (text.chars().noneMatch(Character::isDigit)) {
      return switch (text.toLowerCase(java.util.Locale.ROOT)) {
        case "true", "false", "yes", "no" -> ValueType.BOOLEAN;
        default -> ValueType.TEXT;
      };
    }
    if (ValueReader.number(text, locale.decimal()) instanceof BigDecimal number) {
      boolean code = LEADING_ZERO.matcher(text).matches() && number.scale() <= 0;
      return code ? ValueType.TEXT : number.scale() > 0 ? ValueType.DECIMAL : ValueType.WHOLE;
    }
    if (ValueReader.date(text, locale.dateOrder(), "20") instanceof LocalDate) {
      return ValueType.DATE;
    }
    if (text.indexOf(':') > 0) {
      if (ValueReader.time(text) instanceof LocalTime) {
        return ValueType.TIME;
      }
      if (ValueReader.dateTime(text, locale.dateOrder(), "20") instanceof LocalDateTime) {
        return ValueType.DATETIME;
      }
    }
    return ValueType.TEXT;
  }

  private static String pattern(ValueType type, DistinctValues values, LocaleSettings locale) {
    return switch (type) {
      case WHOLE -> "#0";
      case DECIMAL -> ",".equals(locale.decimal()) ? "#0,0" : "#0.0";
      case DATE -> datePattern(values, locale);
      default -> null;
    };
  }

  private static String datePattern(DistinctValues values, LocaleSettings locale) {
    for (Cell cell : values.tallies().keySet()) {
      Matcher m = PARTED_DATE.matcher(cell.text());
      if (cell.kind() == Cell.Kind.TEXT && m.matches()) {
        String sign = m.group(2);
        return locale.dateOrder() == DateOrder.MONTH_DAY_YEAR
            ? "M" + sign + "d" + sign + "yyyy"
            : "d" + sign + "M" + sign + "yyyy";
      }
    }
    return "yyyy-MM-dd";
  }

  @SuppressWarnings({"unchecked", "rawtypes"})
  private static Comparable[] range(DistinctValues values, ValueType type, LocaleSettings locale) {
    Comparable least = null;
    Comparable greatest = null;
    for (Cell cell : values.tallies().keySet()) {
      Object value = cell.value();
      if (value instanceof String text) {
        value = parsed(text.strip(), type, locale);
      }
      if (type == ValueType.DATETIME && value instanceof LocalDate day) {
        value = day.atStartOfDay();
      }
      if (!(value instanceof Comparable comparable)
          || (least != null && least.getClass() != value.getClass())) {
        continue;
      }
      least = least == null || comparable.compareTo(least) < 0 ? comparable : least;
      greatest = greatest == null || comparable.compareTo(greatest) > 0 ? comparable : greatest;
    }
    return new Comparable[] {least, greatest};
  }

  private static Object parsed(String text, ValueType type, LocaleSettings locale) {
    return switch (type) {
      case WHOLE, DECIMAL -> ValueReader.number(text, locale.decimal());
      case DATE -> ValueReader.date(text, locale.dateOrder(), "20");
      case DATETIME -> ValueReader.dateTime(text, locale.dateOrder(), "20");
      case TIME -> ValueReader.time(text);
      case BOOLEAN -> ValueReader.truth(text);
      default -> text;
    };
  }
}
