package org.zestyporter.core.value;

import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Currencies as Arabic and Hebrew texts shorten their names, by the code of each (ISO 4217): {@code
 * 4.500 د.أ} is 4.500 JOD.
 */
final class CurrencyWords {
  private static final Map<String, String> CODES =
      Map.ofEntries(
          Map.entry("دأ", "JOD"),
          Map.entry("دا", "JOD"),
          Map.entry("دإ", "AED"),
          Map.entry("دب", "BHD"),
          Map.entry("دت", "TND"),
          Map.entry("دج", "DZD"),
          Map.entry("دع", "IQD"),
          Map.entry("دك", "KWD"),
          Map.entry("دل", "LYD"),
          Map.entry("دم", "MAD"),
          Map.entry("جم", "EGP"),
          Map.entry("جس", "SDG"),
          Map.entry("رس", "SAR"),
          Map.entry("رع", "OMR"),
          Map.entry("رق", "QAR"),
          Map.entry("ري", "YER"),
          Map.entry("لس", "SYP"),
          Map.entry("لل", "LBP"),
          Map.entry("שח", "ILS"));

  /** Two letters, with what stands between and behind them. */
  private static final Pattern SHORT =
      Pattern.compile(
          "(?<![\\p{L}\\p{M}])(\\p{L})(?:\\.\\s?|[\"״”'׳]{1,2})?(\\p{L})\\.?(?![\\p{L}\\p{M}])");

  private static final char FIRST = '\u0590';
  private static final char LAST = '\u06FF';

  private CurrencyWords() {}

  /** The same text with the code in the place of the short name; the text itself without one. */
  static String coded(String text) {
    for (int i = 0; i < text.length(); i++) {
      if (text.charAt(i) >= FIRST && text.charAt(i) <= LAST && Character.isLetter(text.charAt(i))) {
        return replaced(text);
      }
    }
    return text;
  }

  private static String replaced(String text) {
    Matcher m = SHORT.matcher(text);
    String code = m.find() ? CODES.get(m.group(1) + m.group(2)) : null;
    return code == null ? text : text.substring(0, m.start()) + code + text.substring(m.end());
  }
}
