package org.zestyporter.core.source.layout;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.ValueReader;

/** Titles that go on from column to column: months, dates, years, quarters, numbered words. */
public final class TitleSeries {
  private static final Pattern YEAR = Pattern.compile("(?:19|20)\\d{2}(?:[/-]\\d{2,4})?");
  private static final Pattern MONTH_AND_YEAR =
      Pattern.compile("(\\p{L}{3,12})\\.?[ '/-]{0,2}((?:19|20)?\\d{2})");
  private static final Pattern YEAR_AND_MONTH = Pattern.compile("((?:19|20)\\d{2})[-/.](\\d{1,2})");
  private static final Pattern MONTH_OF_YEAR = Pattern.compile("(\\d{1,2})[-/.]((?:19|20)\\d{2})");
  private static final Pattern QUARTER =
      Pattern.compile("(?i)q\\s?([1-4])(?:[ /-]*((?:19|20)?\\d{2}))?");
  private static final Pattern WEEK =
      Pattern.compile("(?i)(?:week|wk|kw|w)\\.?\\s?(\\d{1,2})(?:[ /-]*((?:19|20)?\\d{2}))?");
  private static final Pattern NUMBERED = Pattern.compile("(\\D{1,40}?)[ #_.-]{0,2}(\\d{1,4})");

  private TitleSeries() {}

  /**
   * A title's place in its series.
   *
   * @param kind what the series is of; what its column is called
   * @param place grows from title to title
   */
  public record Place(String kind, long place) {}

  /** The place of a title; null if it belongs to no series. */
  public static Place of(Cell cell) {
    String text = cell.text().strip();
    if (cell.kind() == Cell.Kind.DATE || cell.kind() == Cell.Kind.DATETIME) {
      return new Place("Date", LocalDate.parse(text.substring(0, 10)).toEpochDay());
    }
    boolean isText = cell.kind() == Cell.Kind.TEXT;
    Place month = isText ? month(text) : null;
    if (month != null) {
      return month;
    }
    if (YEAR.matcher(text).matches()) {
      return new Place("Year", Long.parseLong(text.substring(0, 4)));
    }
    if (!isText) {
      return null;
    }
    Matcher m = QUARTER.matcher(text);
    if (m.matches()) {
      return new Place("Quarter", year(m.group(2)) * 4 + Long.parseLong(m.group(1)));
    }
    m = WEEK.matcher(text);
    if (m.matches()) {
      return new Place("Week", year(m.group(2)) * 53 + Long.parseLong(m.group(1)));
    }
    if (ValueReader.date(text, DateOrder.DAY_MONTH_YEAR, "20") instanceof LocalDate day) {
      return new Place("Date", day.toEpochDay());
    }
    m = NUMBERED.matcher(text);
    return m.matches() ? new Place(m.group(1).strip(), Long.parseLong(m.group(2))) : null;
  }

  private static Place month(String text) {
    int alone = monthNumber(text);
    if (alone > 0) {
      return new Place("Month", alone);
    }
    Matcher m = MONTH_AND_YEAR.matcher(text);
    if (m.matches() && monthNumber(m.group(1)) > 0) {
      return new Place("Month", year(m.group(2)) * 12 + monthNumber(m.group(1)));
    }
    m = YEAR_AND_MONTH.matcher(text);
    if (m.matches() && Integer.parseInt(m.group(2)) <= 12 && !isSeason(m)) {
      return new Place("Month", year(m.group(1)) * 12 + Long.parseLong(m.group(2)));
    }
    m = MONTH_OF_YEAR.matcher(text);
    return m.matches() && Integer.parseInt(m.group(1)) <= 12
        ? new Place("Month", year(m.group(2)) * 12 + Long.parseLong(m.group(1)))
        : null;
  }

  /** A year and the next one, as 2009/10. */
  private static boolean isSeason(Matcher m) {
    return Integer.parseInt(m.group(2)) == (Integer.parseInt(m.group(1)) + 1) % 100;
  }

  /** The number of a month's name; 0 if it is none. */
  private static int monthNumber(String name) {
    return ValueReader.date(
                "1 " + name.toLowerCase(Locale.ROOT) + " 2000", DateOrder.DAY_MONTH_YEAR, null)
            instanceof LocalDate day
        ? day.getMonthValue()
        : 0;
  }

  private static long year(String written) {
    return written == null ? 0 : Long.parseLong(written.length() == 2 ? "20" + written : written);
  }

  /** True if all titles are of one series and each comes after the one before. */
  public static boolean rises(List<Cell> titles) {
    Place before = null;
    for (Cell title : titles) {
      Place place = of(title);
      if (place == null || before != null && !goesOn(before, place)) {
        return false;
      }
      before = place;
    }
    return true;
  }

  /** True if a title comes later in the series of another; after December comes January. */
  public static boolean goesOn(Place before, Place place) {
    boolean newYear = "Month".equals(place.kind()) && before.place() - place.place() == 11;
    return before.kind().equals(place.kind()) && (place.place() > before.place() || newYear);
  }
}
