package org.zestyporter.core.value;

import java.text.Normalizer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Digits of any script, and the wide signs that East Asian texts use beside their own, as the plain
 * ones: １２，０００ is 12,000 and ٢٠٢٦ is 2026.
 */
public final class AsciiSigns {
  /** The wide signs stand in Unicode as far behind the plain ones, from ! to ~. */
  private static final int WIDE = 0xFF01 - '!';

  /** What becomes of marks that only turn the direction of writing. */
  private static final char GONE = '\0';

  /** Katakana half as wide, of which a voiced one takes two signs. */
  private static final Pattern HALF = Pattern.compile("[\uFF61-\uFF9F]+");

  private AsciiSigns() {}

  /** As texts are tidied: with katakana as wide as they are mostly written, besides. */
  public static String tidy(String text) {
    String plain = of(text);
    Matcher half = HALF.matcher(plain);
    return half.find()
        ? half.replaceAll(kana -> Normalizer.normalize(kana.group(), Normalizer.Form.NFKC))
        : plain;
  }

  /** The same text if it holds none of them. */
  static String of(String text) {
    for (int i = 0; i < text.length(); i++) {
      if (plain(text.charAt(i)) != text.charAt(i)) {
        return replaced(text, i);
      }
    }
    return text;
  }

  private static String replaced(String text, int first) {
    StringBuilder plain = new StringBuilder(text.length()).append(text, 0, first);
    for (int i = first; i < text.length(); i++) {
      char c = plain(text.charAt(i));
      if (c != GONE) {
        plain.append(c);
      }
    }
    return plain.toString();
  }

  private static char plain(char c) {
    if (c < 0x0600) {
      return c;
    }
    if (c >= 0xFF01 && c <= 0xFF5E) {
      return (char) (c - WIDE);
    }
    if (isTurn(c)) {
      return GONE;
    }
    switch (c) {
      case '\u3000':
        return ' ';
      case '￥':
        return '¥';
      case '￡':
        return '£';
      case '￦':
        return '₩';
      default:
        int digit = Character.digit(c, 10);
        return digit < 0 ? c : (char) ('0' + digit);
    }
  }

  /** True for a mark that turns the direction of writing (Unicode, annex 9), and nobody sees. */
  private static boolean isTurn(char c) {
    return c == 0x061C
        || c == 0x200E
        || c == 0x200F
        || c >= 0x202A && c <= 0x202E
        || c >= 0x2066 && c <= 0x2069;
  }
}
