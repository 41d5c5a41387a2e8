package org.zestyporter.core.value;

import com.ibm.icu.text.DateFormatSymbols;
import com.ibm.icu.util.ULocale;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The months of a calendar as they are called where it is used (Unicode's locale data). */
final class CalendarMonths {
  private static final List<String> LANGUAGES = List.of("en", "fa", "ar", "ps", "ur", "tr", "id");

  private final Map<String, Integer> numbers = new HashMap<>();

  /**
   * @param type as Unicode calls the calendar, such as {@code persian}
   */
  CalendarMonths(String type) {
    for (String language : LANGUAGES) {
      DateFormatSymbols symbols =
          DateFormatSymbols.getInstance(new ULocale(language + "@calendar=" + type));
      for (int width : List.of(DateFormatSymbols.WIDE, DateFormatSymbols.ABBREVIATED)) {
        String[] names = symbols.getMonths(DateFormatSymbols.FORMAT, width);
        for (int month = 0; month < names.length; month++) {
          numbers.putIfAbsent(bare(names[month]), month + 1);
        }
      }
    }
  }

  /** The number of a month, or null if that is no month's name. */
  @Nullable Integer number(String name) {
    return numbers.get(bare(name));
  }

  /** Letters alone: apostrophes and joiners are left out by many, and ماه says “month”. */
  private static String bare(String name) {
    String letters = Texts.small(Texts.withoutAccents(name)).replaceAll("[^\\p{L}]", "");
    return letters.length() > 5 && letters.endsWith("ماه")
        ? letters.substring(0, letters.length() - 3)
        : letters;
  }
}
