package org.zestyporter.core.source.layout;

import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import org.zestyporter.core.source.cache.RawRow;
import org.zestyporter.core.value.Texts;

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
          "γενικό σύνολο",
          "άθροισμα",
          "samtals",
          "jumlah",
          "tổng",
          "tổng cộng",
          "cộng",
          "cəmi",
          "yekun",
          "барлығы",
          "жами",
          "รวม",
          "ยอดรวม",
          "कुल",
          "योग",
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

  /** Letters of ASCII, a space, and all else. */
  private static final int LETTERS = 32;

  private static final String ANY =
      "\\s*(grand\\s+|sub[- ]?)?(" + Texts.small(String.join("|", WORDS)) + ")";
  private static final int HOW = Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE;
  private static final Pattern BEGINS = Pattern.compile(ANY + "\\b.{0,40}", HOW);
  private static final Pattern ALONE = Pattern.compile(ANY + "\\s*[:.]?\\s*", HOW);

  /** A bit for the first three letters of one, by {@link #plain}. */
  private static final long[] BEGINNINGS = new long[LETTERS * LETTERS * LETTERS / Long.SIZE];

  /** A bit for the first letter of each, by {@link #plain}. */
  private static final long FIRSTS;

  /** The first letters of those that begin with no letter of ASCII. */
  private static final char[] OTHERS;

  static {
    StringBuilder others = new StringBuilder();
    long firsts = 1L << plain('g') | 1L << plain('s');
    for (String word : WORDS) {
      if (word.charAt(0) < 0x80) {
        learn(word);
        firsts |= 1L << plain(word.charAt(0));
      } else {
        others.append(word.charAt(0)).append(Character.toUpperCase(word.charAt(0)));
      }
    }
    learn("grand");
    learn("sub");
    FIRSTS = firsts;
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
    if (at == text.length()) {
      return false;
    }
    char first = text.charAt(at);
    boolean may =
        first < 0x80
            ? at + 2 < text.length() && mayBegin(first, text.charAt(at + 1), text.charAt(at + 2))
            : Arrays.binarySearch(OTHERS, first) >= 0;
    return may && BEGINS.matcher(Texts.small(text)).matches();
  }

  /**
   * False if no such word begins so.
   *
   * @param bytes holds a text in UTF-8
   * @param from where it begins with something that is no space
   */
  static boolean mayBegin(byte[] bytes, int from, int to) {
    return to - from > 2
        && (bytes[from] < 0 || mayBegin(bytes[from], bytes[from + 1], bytes[from + 2]));
  }

  /** False if no such word begins with a byte of UTF-8. */
  static boolean mayBegin(int first) {
    return first >= 0x80 || (FIRSTS >>> plain(first) & 1) != 0;
  }

  private static boolean mayBegin(int first, int second, int third) {
    int bit = (plain(first) * LETTERS + plain(second)) * LETTERS + plain(third);
    return (BEGINNINGS[bit / Long.SIZE] >>> bit & 1) != 0;
  }

  /** What stands behind a letter that is not of ASCII is told in characters and in bytes apart. */
  private static void learn(String word) {
    int second = plain(word.charAt(1));
    for (int third = 0; third < LETTERS; third++) {
      if (second == 0 || third == plain(word.charAt(2))) {
        int bit = (plain(word.charAt(0)) * LETTERS + second) * LETTERS + third;
        BEGINNINGS[bit / Long.SIZE] |= 1L << bit;
      }
    }
  }

  /** From 1 on a letter of ASCII, capital or not, and a space; 0 for all else. */
  private static int plain(int letter) {
    int small = letter | 0x20;
    return letter == ' ' ? LETTERS - 1 : small >= 'a' && small <= 'z' ? small - 'a' + 1 : 0;
  }

  /** True if a row begins with such a word and has fewer cells than most. */
  static boolean begins(RawRow row, long usual) {
    return row.filled() < usual && begins(row.firstText());
  }

  /** True if a line that begins so is a total, seeing how many of the usual cells it has filled. */
  static boolean isTotal(String text, long filled, long usual) {
    return ALONE.matcher(Texts.small(text)).matches() ? filled < usual : filled * 2 <= usual;
  }
}
