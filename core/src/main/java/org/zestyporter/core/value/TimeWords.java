package org.zestyporter.core.value;

import com.ibm.icu.text.MeasureFormat;
import com.ibm.icu.util.Measure;
import com.ibm.icu.util.MeasureUnit;
import com.ibm.icu.util.TimeUnit;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What units of time are called in the languages of the senders, in each of their forms, as the
 * Unicode Common Locale Data Repository knows them. A word that means different units in different
 * languages is none.
 */
final class TimeWords {
  private static final List<String> LANGUAGES =
      List.of(
          "de", "fr", "es", "it", "nl", "pt", "pl", "cs", "sk", "sl", "hr", "hu", "ro", "tr", "sv",
          "da", "nb", "fi", "et", "lv", "lt", "el", "ru", "uk", "bg", "sr", "ja", "zh", "ko", "he",
          "ar", "en");

  private static final List<TimeUnit> UNITS =
      List.of(
          MeasureUnit.YEAR,
          MeasureUnit.MONTH,
          MeasureUnit.WEEK,
          MeasureUnit.DAY,
          MeasureUnit.HOUR,
          MeasureUnit.MINUTE,
          MeasureUnit.SECOND);

  /** So many of a unit take all forms of its word. */
  private static final double[] COUNTS = {0, 1, 1.5, 2, 3, 5, 11, 20, 21, 22};

  private static final Map<String, String> WORDS = words();

  private TimeWords() {}

  /** The unit that a word means: {@code year}, {@code month} … {@code second}; null if none. */
  static @Nullable String unit(String word) {
    return WORDS.get(word);
  }

  private static Map<String, String> words() {
    Map<String, String> words = new HashMap<>();
    Set<String> ambiguous = new HashSet<>();
    for (String language : LANGUAGES) {
      Locale locale = Locale.forLanguageTag(language);
      for (MeasureFormat.FormatWidth width :
          List.of(MeasureFormat.FormatWidth.WIDE, MeasureFormat.FormatWidth.SHORT)) {
        MeasureFormat format = MeasureFormat.getInstance(locale, width);
        for (TimeUnit unit : UNITS) {
          for (double count : COUNTS) {
            String word = word(format.format(new Measure(count, unit)), locale);
            String known = words.putIfAbsent(word, unit.getSubtype());
            if (known != null && !known.equals(unit.getSubtype())) {
              ambiguous.add(word);
            }
          }
        }
      }
    }
    words.keySet().removeAll(ambiguous);
    words.keySet().removeIf(w -> w.isEmpty() || !w.codePoints().allMatch(Character::isLetter));
    return Map.copyOf(words);
  }

  /** What stands beside the number. */
  private static String word(String formatted, Locale locale) {
    return formatted
        .toLowerCase(locale)
        .replaceAll("[\\d\\p{Nd}.,٫٬\\p{Cf}]", "")
        .replaceAll("[\\p{Z}]+", " ")
        .strip();
  }
}
