package org.zestyporter.core.value;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;

/** Compares the names of columns and fields as a person would. */
public final class Words {
  private static final Vocabulary KNOWN = Vocabulary.INSTANCE;

  private static final Pattern ACCENTS = Pattern.compile("\\p{M}");

  /** Likeness of words that mean the same. */
  private static final double SAME = 0.9;

  /** Of a word and a short form of it. */
  private static final double SHORT = 0.75;

  private Words() {}

  /**
   * The telling words of a name: small letters without accents, no fillers, no units; short forms
   * and compounds parted into the words that they stand for.
   */
  public static List<String> of(String name) {
    List<String> words = new ArrayList<>();
    List<String> fillers = new ArrayList<>();
    for (String word : split(name)) {
      if (KNOWN.isFiller(word)) {
        fillers.add(word);
      } else if (UnitWords.find(word) == null) {
        words.addAll(KNOWN.parts(word));
      }
    }
    return words.isEmpty() ? (fillers.isEmpty() ? split(name) : fillers) : words;
  }

  public static List<String> split(String name) {
    String spaced =
        name.replaceAll("(?i)e-mail", "email")
            .replaceAll("(\\p{Ll})(\\p{Lu})", "$1 $2")
            .toLowerCase(Locale.ROOT);
    spaced =
        ACCENTS
            .matcher(Normalizer.normalize(spaced.replace("ß", "ss"), Normalizer.Form.NFD))
            .replaceAll("");
    List<String> words = new ArrayList<>();
    for (String word : spaced.split("[^\\p{L}\\p{N}]+")) {
      if (!word.isEmpty()) {
        words.add(word);
      }
    }
    return words;
  }

  /** How well two names agree, 0 to 100. */
  public static int agreement(List<String> a, List<String> b) {
    if (a.isEmpty() || b.isEmpty()) {
      return 0;
    }
    if (a.equals(b)) {
      return 100;
    }
    String wholeA = String.join("", a);
    String wholeB = String.join("", b);
    if (wholeA.equals(wholeB) || KNOWN.meanTheSame(wholeA, wholeB)) {
      return 90;
    }
    double matched = 0;
    for (String word : a) {
      matched += b.stream().mapToDouble(other -> alike(word, other)).max().orElse(0);
    }
    return (int) Math.round(95 * matched * 2 / (a.size() + b.size()));
  }

  public static double alike(String a, String b) {
    if (a.equals(b)) {
      return 1;
    }
    if (KNOWN.meanTheSame(a, b)) {
      return SAME;
    }
    String shorter = a.length() < b.length() ? a : b;
    String longer = shorter.equals(a) ? b : a;
    if (shorter.length() >= 3 && longer.startsWith(shorter)) {
      return SAME;
    }
    if (isShortFor(shorter, longer)) {
      return SHORT;
    }
    int common = 0;
    while (common < shorter.length() && a.charAt(common) == b.charAt(common)) {
      common++;
    }
    return common >= 4 && common * 3 >= longer.length() * 2 ? 0.8 : 0;
  }

  /** True for the first consonants of a word, or some of its letters with the first. */
  private static boolean isShortFor(String shorter, String longer) {
    if (shorter.length() < 2
        || shorter.length() * 2 > longer.length() * 2 - 2
        || shorter.charAt(0) != longer.charAt(0)) {
      return false;
    }
    String skeleton = longer.charAt(0) + longer.substring(1).replaceAll("[aeiou]", "");
    if (skeleton.startsWith(shorter)) {
      return true;
    }
    int at = 0;
    for (int i = 0; i < longer.length() && at < shorter.length(); i++) {
      at += longer.charAt(i) == shorter.charAt(at) ? 1 : 0;
    }
    // three letters of a long word may be those of many
    return shorter.length() >= 3 && at == shorter.length() && longer.length() <= 2 * at;
  }

  /** The first letters of the words of a text, fillers included. */
  public static String initials(String text) {
    StringBuilder initials = new StringBuilder();
    split(text).forEach(word -> initials.append(word.charAt(0)));
    return initials.toString();
  }
}
