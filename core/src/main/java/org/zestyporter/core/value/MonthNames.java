package org.zestyporter.core.value;

import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Names of months in the languages of the senders, full and short, by the list {@code months.txt}.
 */
final class MonthNames {
  private static final Map<String, Integer> NUMBERS = numbers();

  private MonthNames() {}

  private static Map<String, Integer> numbers() {
    Map<String, Integer> numbers = new HashMap<>();
    int month = 1;
    for (String line : WordLists.lines(MonthNames.class, "months.txt")) {
      for (String name : line.split(" ")) {
        numbers.put(bare(name), month);
      }
      month++;
    }
    return numbers;
  }

  /** As it stands in the list. */
  static String bare(String name) {
    return Texts.small(name).replace(".", "");
  }

  /** The number of a month, or null if that is no month's name. */
  static @Nullable Integer number(String name) {
    return NUMBERS.get(bare(name));
  }
}
