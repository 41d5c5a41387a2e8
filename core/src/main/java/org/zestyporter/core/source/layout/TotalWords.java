package org.zestyporter.core.source.layout;

import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import org.zestyporter.core.source.cache.RawRow;

/** Words with which lines of totals begin, in the languages of the senders. */
final class TotalWords {
  private static final List<String> WORDS =
      List.of(
          "totals?",
          "totaal",
          "totale?",
          "totalt",
          "sum",
          "somme",
          "summe",
          "gesamt",
          "gesamtsumme",
          "zwischensumme",
          "summa",
          "suma",
          "soma",
          "razem",
          "ogółem",
          "celkem",
          "součet",
          "spolu",
          "súčet",
          "toplam",
          "ara toplam",
          "genel toplam",
          "yhteensä",
          "összesen",
          "mindösszesen",
          "ukupno",
          "skupaj",
          "i alt",
          "sammenlagt",
          "kokku",
          "kopā",
          "iš viso",
          "итого",
          "всего",
          "разом",
          "всього",
          "усього",
          "сума",
          "общо",
          "укупно",
          "σύνολο",
          "סה\"כ",
          "المجموع",
          "الإجمالي",
          "合計",
          "総計",
          "小計",
          "合计",
          "总计",
          "小计",
          "總計",
          "합계",
          "총계",
          "소계");

  private static final String ANY = "\\s*(grand\\s+|sub[- ]?)?(" + String.join("|", WORDS) + ")";
  private static final int HOW = Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE;
  private static final Pattern BEGINS = Pattern.compile(ANY + "\\b.{0,40}", HOW);
  private static final Pattern ALONE = Pattern.compile(ANY + "\\s*[:.]?\\s*", HOW);

  /** True for the first two letters of one, if they are of ASCII; 0 is any other letter. */
  private static final boolean[][] PAIRS = new boolean[128][128];

  /** The first letters of the others. */
  private static final char[] OTHERS;

  static {
    PAIRS['g']['r'] = true;
    StringBuilder others = new StringBuilder();
    for (String word : WORDS) {
      if (word.charAt(0) < 0x80) {
        PAIRS[word.charAt(0)][plain(word.charAt(1))] = true;
      } else {
        others.append(word.charAt(0)).append(Character.toUpperCase(word.charAt(0)));
      }
    }
    OTHERS = others.toString().toCharArray();
    Arrays.sort(OTHERS);
  }

  private TotalWords() {}

  /** True if a text begins with such a word, and is not much longer. */
  static boolean begins(String text) {
    int at = 0;
    while (at < text.length() && text.charAt(at) == ' ') {
      at++;
    }
    if (at + 1 >= text.length()) {
      return false;
    }
    char first = text.charAt(at);
    boolean may =
        first < 0x80
            ? mayBegin(first, text.charAt(at + 1))
            : Arrays.binarySearch(OTHERS, first) >= 0;
    return may && BEGINS.matcher(text).matches();
  }

  /**
   * False if no such word begins so.
   *
   * @param bytes holds a text in UTF-8
   * @param from where it begins with something that is no space
   */
  static boolean mayBegin(byte[] bytes, int from, int to) {
    return to - from > 1 && (bytes[from] < 0 || mayBegin(bytes[from], bytes[from + 1]));
  }

  private static boolean mayBegin(int first, int next) {
    return PAIRS[plain(first)][plain(next)];
  }

  /** A letter of ASCII as it is written small; 0 for any other. */
  private static int plain(int letter) {
    int of = letter < 0 || letter >= 0x80 ? 0 : letter;
    return of >= 'A' && of <= 'Z' ? of | 0x20 : of;
  }

  /** True if a row begins with such a word and has fewer cells than most. */
  static boolean begins(RawRow row, long usual) {
    return row.filled() < usual && begins(row.firstText());
  }

  /** True if a line that begins so is a total, seeing how many of the usual cells it has filled. */
  static boolean isTotal(String text, long filled, long usual) {
    return ALONE.matcher(text).matches() ? filled < usual : filled * 2 <= usual;
  }
}
