package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Month;
import java.time.format.TextStyle;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

class MonthNamesTest {
  private static final List<String> LANGUAGES =
      List.of(
          "de", "fr", "es", "it", "nl", "pt", "sv", "da", "nb", "fi", "pl", "cs", "sk", "hu", "ro",
          "hr", "sl", "et", "lv", "lt", "el", "tr", "ru", "uk", "bg");

  /** The list holds what Unicode CLDR says, whatever edition of it this Java has. */
  @Test
  void monthsAreNamedAsTheLocaleDataSays() {
    Map<String, Set<Integer>> said = new HashMap<>();
    LANGUAGES.forEach(language -> say(said, Locale.forLanguageTag(language)));
    Map<String, Set<Integer>> english = new HashMap<>();
    say(english, Locale.ENGLISH);
    said.putAll(english);
    int known = 0;
    for (Map.Entry<String, Set<Integer>> name : said.entrySet()) {
      Integer number = MonthNames.number(name.getKey());
      if (name.getValue().size() > 1) {
        assertThat(number).as("%s, which is several", name.getKey()).isNull();
      } else if (number != null) {
        assertThat(name.getValue()).as(name.getKey()).containsExactly(number);
        known++;
      }
    }
    assertThat(known).isGreaterThan(said.size() * 9 / 10);
  }

  private static void say(Map<String, Set<Integer>> said, Locale locale) {
    for (Month month : Month.values()) {
      for (TextStyle style : TextStyle.values()) {
        String name = MonthNames.bare(month.getDisplayName(style, locale));
        if (name.length() >= 3) {
          said.computeIfAbsent(name, n -> new HashSet<>()).add(month.getValue());
        }
      }
    }
  }

  @Test
  void aMonthIsKnownHoweverItIsWritten() {
    assertThat(MonthNames.number("Sept.")).isEqualTo(9);
    assertThat(MonthNames.number("MÄRZ")).isEqualTo(3);
    assertThat(MonthNames.number("Οκτωβρίου")).isEqualTo(10);
    assertThat(MonthNames.number("lipca")).isEqualTo(7);
    assertThat(MonthNames.number("harbour")).isNull();
  }
}
