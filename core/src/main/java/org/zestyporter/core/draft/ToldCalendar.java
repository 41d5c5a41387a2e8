package org.zestyporter.core.draft;

import java.util.List;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.AsciiSigns;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.OtherCalendar;
import org.zestyporter.core.value.Problem;

/** Tells in which calendar the days of a column are written. */
final class ToldCalendar {
  private static final Pattern YEAR = Pattern.compile("(?<!\\d)[12]\\d{3}(?!\\d)");

  /** A year of the calendars of Iran and Arabia. */
  private static final Pattern MUSLIM_YEAR = Pattern.compile("(?<!\\d)1[2-4]\\d\\d(?!\\d)");

  /** Among so many days is a 31st, where there is one at all. */
  private static final int ENOUGH = 400;

  private static final Pattern ARABIC = Pattern.compile("[\u0600-\u06FF]");

  /** Figures and letters of which Arabic has others, or none. */
  private static final Pattern IRANIAN =
      Pattern.compile("[\u06F0-\u06F9\u067E\u0686\u0698\u06A9\u06AF\u06CC]");

  private ToldCalendar() {}

  /**
   * The calendar that days are written in, where they can be of no other and not of ours, but for a
   * few.
   *
   * @param written days, as they stand in the file
   * @param ours reads a text as a day of ours; gives a problem if it is none
   * @param beside what else the file says, by whose letters people are told
   * @return null if they may be days of ours, or nobody can tell
   */
  static @Nullable OtherCalendar of(
      List<String> written, Function<String, Object> ours, DateOrder order, String beside) {
    if (!mostly(written.stream().filter(t -> hasYear(t, YEAR)).count(), written.size())) {
      return null;
    }
    List<Object> known =
        written.stream().map(ours).filter(day -> !(day instanceof Problem)).toList();
    if (mostly(known.stream().filter(OtherCalendar::isBuddhist).count(), known.size())) {
      return OtherCalendar.BUDDHIST;
    }
    if (!mostly(written.stream().filter(t -> hasYear(t, MUSLIM_YEAR)).count(), written.size())) {
      return null;
    }
    long persian = read(OtherCalendar.PERSIAN, written, order);
    long hijri = read(OtherCalendar.HIJRI, written, order);
    if (!mostly(Math.max(persian, hijri), written.size())) {
      return null;
    }
    String text = beside + String.join("", written);
    boolean isArabic = ARABIC.matcher(text).find();
    boolean isSure = Math.max(persian, hijri) == written.size() && written.size() >= ENOUGH;
    if (!isArabic && !known.isEmpty() && !isSure) {
      // days of an archive are as old
      return null;
    }
    if (persian != hijri) {
      return persian > hijri ? OtherCalendar.PERSIAN : OtherCalendar.HIJRI;
    }
    // no month of the moon has 31 days
    return isArabic && IRANIAN.matcher(text).find() ? OtherCalendar.PERSIAN : OtherCalendar.HIJRI;
  }

  private static boolean hasYear(String text, Pattern year) {
    return text.length() <= OtherCalendar.LONGEST && year.matcher(AsciiSigns.tidy(text)).find();
  }

  private static boolean mostly(long some, int all) {
    return all > 0 && some * 10 >= all * 9L;
  }

  private static long read(OtherCalendar calendar, List<String> written, DateOrder order) {
    return written.stream().filter(t -> !(calendar.read(t, order) instanceof Problem)).count();
  }
}
