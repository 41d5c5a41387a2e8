package org.zestyporter.core.value;

import java.text.Normalizer;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import org.apache.commons.text.similarity.JaroWinklerSimilarity;

/** Tells which of some values a word that is spelt otherwise may mean. */
public final class Alike {
  private static final JaroWinklerSimilarity SIMILARITY = new JaroWinklerSimilarity();
  private static final double NEAR = 0.82;

  /** What becomes of a likeness where figures differ: it is far below any that is near. */
  private static final double OF_OTHER_FIGURES = 0.5;

  /** As near as a word in other letters. */
  private static final double MEANT = 0.99;

  /** What is the same but for slips is likelier than what looks much like it. */
  private static final double OF_NO_SLIP = 0.98;

  private static final double OF_EACH_SLIP = 0.015;
  private static final double OF_WHOLE = 0.005;

  private Alike() {}

  private record Ranked(String value, double likeness) {}

  /** The values most like a word, or that mean the same, the likeliest first; the far off last. */
  public static List<String> ranked(String word, Collection<String> values, int most) {
    String wanted = fold(word);
    return values.stream()
        .map(v -> new Ranked(v, SameWords.are(word, v) ? MEANT : likeness(word, wanted, v)))
        .sorted(
            Comparator.comparingDouble((Ranked r) -> -r.likeness()).thenComparing(Ranked::value))
        .limit(most)
        .map(Ranked::value)
        .toList();
  }

  /** True if a word is probably a value that is spelt otherwise, or means the same. */
  public static boolean isNear(String word, String value) {
    return SameWords.are(word, value) || likeness(word, fold(word), value) >= NEAR;
  }

  /** As they are spelt, or as they sound if they are written in two scripts: Боје and Boje. */
  private static double likeness(String word, String folded, String value) {
    double spelt = likeness(folded, fold(value));
    if (spelt >= NEAR || LatinSounds.isOther(word) == LatinSounds.isOther(value)) {
      return spelt;
    }
    String one = LatinSounds.of(Texts.small(word));
    String other = LatinSounds.of(Texts.small(value));
    return one.isEmpty() || other.isEmpty() ? spelt : Math.max(spelt, likeness(one, other) * MEANT);
  }

  /** Without accents, capitals and marks; words parted by one space. */
  static String fold(String text) {
    // Korean syllables by their letters, of which one may be a slip
    String plain =
        Normalizer.normalize(Texts.small(Texts.withoutAccents(text)), Normalizer.Form.NFD);
    StringBuilder folded = new StringBuilder(plain.length());
    boolean isApart = false;
    for (int at = 0, c; at < plain.length(); at += Character.charCount(c)) {
      c = plain.codePointAt(at);
      if (!isPart(c)) {
        isApart = true;
        continue;
      }
      if (isApart && !folded.isEmpty()) {
        folded.append(' ');
      }
      isApart = false;
      folded.appendCodePoint(c);
    }
    return folded.toString();
  }

  private static boolean isPart(int c) {
    return switch (Character.getType(c)) {
      case Character.DECIMAL_DIGIT_NUMBER, Character.LETTER_NUMBER, Character.OTHER_NUMBER -> true;
      default -> Texts.isLetter(c);
    };
  }

  /** Of the whole texts, or of a word of one that is the other, or of what one is short for. */
  private static double likeness(String a, String b) {
    double whole = SIMILARITY.apply(a, b);
    String figures = figures(a);
    if (!figures.isEmpty() && !figures(b).isEmpty() && !figures.equals(figures(b))) {
      // number 13 is another one than number 1, however alike they look
      return whole * OF_OTHER_FIGURES;
    }
    int slips = Spelling.slipsOf(a, b);
    if (slips >= 0) {
      // of two that begin alike the one with fewer slips is meant: Leire by Lire, and not Iker
      return Math.max(whole, OF_NO_SLIP - OF_EACH_SLIP * slips + OF_WHOLE * whole);
    }
    if (!b.isEmpty() && initials(a).equals(b.replace(" ", ""))) {
      return Math.max(whole, 0.9);
    }
    for (String part : a.split(" ")) {
      if (part.length() > 2 && part.equals(b)) {
        return Math.max(whole, 0.97);
      }
    }
    for (String part : b.split(" ")) {
      if (part.length() > 2 && part.equals(a)) {
        return Math.max(whole, 0.95);
      }
    }
    return whole;
  }

  private static String figures(String text) {
    return Spelling.figures(text).replaceFirst("^0+(?=.)", "");
  }

  /** 6A of 6ème A, and F of female. */
  private static String initials(String text) {
    StringBuilder initials = new StringBuilder();
    for (String word : text.split(" ")) {
      initials.append(word, 0, Math.min(1, word.length()));
    }
    return initials.toString();
  }
}
