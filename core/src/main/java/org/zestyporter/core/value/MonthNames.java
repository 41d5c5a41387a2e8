package org.zestyporter.core.value;

import java.time.Month;
import java.time.format.TextStyle;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * Names of months in the languages of the senders, full and short, from the JDK's locale data
 * (Unicode CLDR). A short form that means different months in different languages is left out.
 */
final class MonthNames {
  private static final List<String> LANGUAGES =
      List.of(
          "de", "fr", "es", "it", "nl", "pt", "sv", "da", "nb", "fi", "pl", "cs", "sk", "hu", "ro",
          "hr", "sl", "et", "lv", "lt", "el", "tr", "ru", "uk", "bg");
  private static final Map<String, Integer> NUMBERS = numbers();

  private MonthNames() {}

  private static Map<String, Integer> numbers() {
    Map<String, Integer> english = new HashMap<>();
    add(english, Locale.ENGLISH, new HashSet<>());
    english.put("sept", 9);
    Map<String, Integer> others = new HashMap<>();
    Set<String> unclear = new HashSet<>();
    for (String language : LANGUAGES) {
      add(others, Locale.forLanguageTag(language), unclear);
    }
    others.keySet().removeAll(unclear);
    others.putAll(english);
    return Map.copyOf(others);
  }

  private static void add(Map<String, Integer> names, Locale locale, Set<String> unclear) {
    for (Month month : Month.values()) {
      for (TextStyle style :
          List.of(
              TextStyle.FULL,
              TextStyle.SHORT,
              TextStyle.FULL_STANDALONE,
              TextStyle.SHORT_STANDALONE)) {
        String name = bare(month.getDisplayName(style, locale));
        Integer other = name.length() < 3 ? null : names.put(name, month.getValue());
        if (other != null && other != month.getValue()) {
          unclear.add(name);
        }
      }
    }
  }

  private static String bare(String name) {
    return name.toLowerCase(Locale.ROOT).replace(".", "");
  }

  /** The number of a month, or null if that is no month's name. */
  static Integer number(String name) {
    return NUMBERS.get(bare(name));
  }
}
