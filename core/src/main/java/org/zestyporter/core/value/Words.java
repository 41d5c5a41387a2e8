package org.zestyporter.core.value;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/** Compares the names of columns and fields as a person would. */
public final class Words {
  private static final Vocabulary KNOWN = Vocabulary.INSTANCE;

  /** What comes by wire: e-mail, E-post, е-пошта. */
  private static final Pattern MAIL = Pattern.compile("(?i)(?<!\\p{L})[eе]-(?=\\p{L})");

  /**
   * Where a word begins within a name: dateOfBirth, VATNumber. Not behind a single letter, for kWh
   * and eMail are one word.
   */
  private static final Pattern HUMP =
      Pattern.compile("(?<=\\p{L}\\p{Ll})(?=\\p{Lu})|(?<=\\p{Lu}{2})(?=\\p{Lu}\\p{Ll}{2})");

  private static final Pattern BETWEEN = Pattern.compile(Texts.BETWEEN_WORDS);

  private static final Memo<List<String>> PARTED = new Memo<>(Words::part);

  private static final Memo<List<String>> UNDATED =
      new Memo<>(
          name -> of(name).stream().filter(w -> !says(w, "date") && !says(w, "time")).toList());

  /** Bits for the letters that words begin with; the others are for meanings. */
  static final int LETTERS = 26;

  /** Likeness of words that mean the same. */
  private static final double SAME = 0.9;

  /** Letters in common at the beginning by which words are of one kind, whatever their ends. */
  private static final int STEM = 7;

  /** Of names that are not the same. */
  private static final int MOST = 95;

  /** Of a word and a short form of it. */
  private static final double SHORT = 0.75;

  /** Of a word that several were drawn together to, which begins with letters of the first. */
  private static final int CLIPPED = 84;

  private static final int SHORTEST_CLIPPED = 5;
  private static final int LONGEST_CLIPPED = 24;
  private static final int SHORTEST_CLIP = 3;

  /** Words that are drawn together to one. */
  private static final int MOST_CLIPPED = 4;

  private Words() {}

  /**
   * The telling words of a name: small letters without accents, no fillers, no units; short forms
   * and compounds parted into the words that they stand for.
   */
  public static List<String> of(String name) {
    return PARTED.of(name);
  }

  /** The same without those that only say that it is a date or a time; may be empty. */
  public static List<String> undated(String name) {
    return UNDATED.of(name);
  }

  private static List<String> part(String name) {
    List<String> words = new ArrayList<>();
    List<String> fillers = new ArrayList<>();
    for (String word : split(name)) {
      if (KNOWN.isFiller(word)) {
        fillers.add(word);
      } else if (UnitWords.find(word) == null) {
        words.addAll(KNOWN.parts(word));
      }
    }
    return List.copyOf(words.isEmpty() ? (fillers.isEmpty() ? split(name) : fillers) : words);
  }

  public static List<String> split(String name) {
    String spaced = HUMP.matcher(MAIL.matcher(name).replaceAll("e")).replaceAll(" ");
    List<String> words = new ArrayList<>();
    for (String word : BETWEEN.split(Vocabulary.bare(spaced))) {
      if (!word.isEmpty()) {
        words.add(word);
      }
    }
    return words;
  }

  /** True if one of a name's words means the same as a word, in any language that is known. */
  public static boolean says(String name, String word) {
    return split(name).stream().anyMatch(w -> w.equals(word) || KNOWN.meanTheSame(w, word));
  }

  /**
   * What a name's words begin with and mean, as bits: names without a common one don't agree at
   * all. To spare comparing each of many names with each of many others.
   */
  public static long traits(String name) {
    List<String> words = of(name);
    long traits = KNOWN.traits(String.join("", words));
    for (String word : words) {
      int letter = word.charAt(0) % LETTERS;
      traits |= 1L << letter | KNOWN.traits(word);
      String sound = LatinSounds.of(word);
      if (!sound.isEmpty()) {
        traits |= 1L << sound.charAt(0) % LETTERS;
      }
    }
    return traits;
  }

  /** How well two names agree, 0 to 100. A currency counts only if both say one. */
  public static int agreement(List<String> a, List<String> b) {
    if (a.isEmpty() || b.isEmpty()) {
      return 0;
    }
    if (a.equals(b)) {
      return 100;
    }
    boolean hasCurrency = hasCurrency(a);
    return hasCurrency == hasCurrency(b)
        ? ofWords(a, b)
        : hasCurrency ? ofWords(withoutCurrency(a), b) : ofWords(a, withoutCurrency(b));
  }

  private static boolean hasCurrency(List<String> words) {
    for (String word : words) {
      if (KNOWN.isCurrency(word)) {
        return true;
      }
    }
    return false;
  }

  private static List<String> withoutCurrency(List<String> words) {
    List<String> others = words.stream().filter(w -> !KNOWN.isCurrency(w)).toList();
    return others.isEmpty() ? words : others;
  }

  private static int ofWords(List<String> a, List<String> b) {
    if (a.size() + b.size() > 2 && isSameWhole(a, b)) {
      return 90;
    }
    if (a.size() == 1 && isClipped(a.get(0), b) || b.size() == 1 && isClipped(b.get(0), a)) {
      return CLIPPED;
    }
    double matched = 0;
    for (String word : a) {
      double best = 0;
      for (String other : b) {
        best = Math.max(best, alike(word, other));
      }
      matched += best;
    }
    // words that mean the same as one are no better than that one
    return (int) Math.round(Math.min(MOST, MOST * matched * 2 / (a.size() + b.size())));
  }

  /** True if the words of both are the same, or mean the same, once they are written as one. */
  private static boolean isSameWhole(List<String> a, List<String> b) {
    int ofA = length(a);
    int ofB = length(b);
    boolean mayMean = ofA <= KNOWN.longest() && ofB <= KNOWN.longest();
    boolean sameEnds = ofA == ofB && a.get(0).charAt(0) == b.get(0).charAt(0);
    if (!sameEnds && !mayMean) {
      return false;
    }
    String wholeA = String.join("", a);
    String wholeB = String.join("", b);
    return wholeA.equals(wholeB) || mayMean && KNOWN.meanTheSame(wholeA, wholeB);
  }

  private static int length(List<String> words) {
    int length = 0;
    for (String word : words) {
      length += word.length();
    }
    return length;
  }

  /** True for a word that several were drawn together to: INVDATE, Auftragsdatum as AUFDAT. */
  private static boolean isClipped(String word, List<String> whole) {
    return whole.size() > 1
        && whole.size() <= MOST_CLIPPED
        && word.length() >= SHORTEST_CLIPPED
        && word.length() <= LONGEST_CLIPPED
        && word.charAt(0) == whole.get(0).charAt(0)
        && !KNOWN.isKnown(word)
        && isClipped(word, 0, whole, 0);
  }

  private static boolean isClipped(String word, int from, List<String> whole, int next) {
    if (next == whole.size()) {
      return from == word.length();
    }
    int least = next == 0 ? SHORTEST_CLIP : 2;
    for (int to = from + least; to <= word.length(); to++) {
      if (isClip(word.substring(from, to), whole.get(next), next == 0)
          && isClipped(word, to, whole, next + 1)) {
        return true;
      }
    }
    return false;
  }

  private static boolean isClip(String clip, String word, boolean isFirst) {
    if (isFirst) {
      return word.startsWith(clip)
          || word.startsWith(clip.substring(0, 1)) && isSkeleton(clip, word);
    }
    return word.startsWith(clip)
        || isShortFor(clip, word)
        || KNOWN.meanTheSame(KNOWN.parts(clip).get(0), word);
  }

  public static double alike(String a, String b) {
    if (a.equals(b)) {
      return 1;
    }
    boolean isSpelt = LatinSounds.isOther(a) != LatinSounds.isOther(b);
    double alike =
        isSpelt ? alikeInSound(LatinSounds.of(a), LatinSounds.of(b)) : alikeInLetters(a, b);
    return alike < SAME && KNOWN.meanTheSame(a, b) ? SAME : alike;
  }

  private static double alikeInSound(String a, String b) {
    if (a.isEmpty() || b.isEmpty()) {
      return 0;
    }
    return a.equals(b) ? 1 : alikeInLetters(a, b);
  }

  private static double alikeInLetters(String a, String b) {
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
    if (common >= 4 && common * 3 >= longer.length() * 2) {
      return 0.8;
    }
    // long words of many languages end in many ways
    return common >= STEM && common * 2 >= longer.length() ? 0.7 : 0;
  }

  /** True for the first consonants of a word, or some of its letters with the first. */
  private static boolean isShortFor(String shorter, String longer) {
    if (shorter.length() < 2
        || shorter.length() == longer.length()
        || shorter.charAt(0) != longer.charAt(0)) {
      return false;
    }
    if (isSkeleton(shorter, longer)) {
      return true;
    }
    int at = 0;
    for (int i = 0; i < longer.length() && at < shorter.length(); i++) {
      at += longer.charAt(i) == shorter.charAt(at) ? 1 : 0;
    }
    // three letters of a long word may be those of many
    return shorter.length() >= 3 && at == shorter.length() && longer.length() <= 2 * at;
  }

  /** True for the first letter of a word and the first consonants behind it. */
  private static boolean isSkeleton(String shorter, String longer) {
    int at = 1;
    for (int i = 1; i < longer.length() && at < shorter.length(); i++) {
      char c = longer.charAt(i);
      if ("aeiou".indexOf(c) < 0) {
        if (c != shorter.charAt(at)) {
          return false;
        }
        at++;
      }
    }
    return at == shorter.length();
  }

  /** The first letters of the words of a text, fillers included. */
  public static String initials(String text) {
    StringBuilder initials = new StringBuilder();
    split(text).forEach(word -> initials.append(word.charAt(0)));
    return initials.toString();
  }
}
