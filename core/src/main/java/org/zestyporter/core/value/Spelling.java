package org.zestyporter.core.value;

import java.util.Arrays;
import java.util.List;
import org.apache.commons.text.similarity.LevenshteinDistance;

/**
 * Tells whether two texts are spelt alike: the same but for a slip or two, and none of their words
 * another one. Capitals, accents, marks and the order of words make no difference; figures have to
 * agree.
 *
 * <pre>{@code
 * Spelling.slips(Spelling.of("Lindqvist, Ánna"), Spelling.of("Anna Lindquist")); // 1
 * }</pre>
 *
 * @param forms what is compared: the text as it is and with its words in order, if that is another
 * @param figures the figures of the text, in order
 */
public record Spelling(List<String> forms, String figures) {
  /** Slips that any two texts may have. */
  public static final int MOST_SLIPS = 2;

  /** Kinds of letters that are counted apart. */
  private static final int KINDS = 21;

  private static final int SHORT = 4;
  private static final int LONG = 8;
  private static final LevenshteinDistance[] DISTANCES = {
    new LevenshteinDistance(0), new LevenshteinDistance(1), new LevenshteinDistance(2)
  };

  /** How a text is compared. */
  public static Spelling of(String text) {
    String plain = Alike.fold(text);
    String ordered = ordered(plain);
    return new Spelling(
        plain.equals(ordered) ? List.of(plain) : List.of(plain, ordered), figures(plain));
  }

  private static String ordered(String plain) {
    String[] words = plain.split(" ");
    Arrays.sort(words);
    return String.join(" ", words);
  }

  /**
   * The slips between two folded texts, whatever words they make; under 0 if they are more than
   * texts of their length may have.
   */
  static int slipsOf(String a, String b) {
    int shorter = Math.min(a.length(), b.length());
    int most = mostSlips(shorter);
    if (Math.max(a.length(), b.length()) - shorter > most || shorter == 0) {
      return -1;
    }
    int slips = DISTANCES[most].apply(a, b);
    return slips >= 0 || a.indexOf(' ') < 0 ? slips : DISTANCES[most].apply(ordered(a), ordered(b));
  }

  /** The figures of a text, in order. */
  static String figures(String text) {
    StringBuilder figures = new StringBuilder();
    for (int i = 0; i < text.length(); i++) {
      if (Character.isDigit(text.charAt(i))) {
        figures.append(text.charAt(i));
      }
    }
    return figures.toString();
  }

  /**
   * Slips that a text of some length may have: none under four characters, one under eight, else
   * two. A slip is a letter too many, too few, or another one (Levenshtein's distance).
   */
  public static int mostSlips(int length) {
    return length < SHORT ? 0 : length < LONG ? 1 : MOST_SLIPS;
  }

  /**
   * How often the text has which letters, as bits: one for the first, one for the second and one
   * for all others of a kind. A slip changes two of them at most, so that texts which differ in
   * more than twice their slips need not be compared.
   */
  public long letters() {
    long bits = 0;
    String plain = forms.get(0);
    for (int i = 0; i < plain.length(); i++) {
      int kind = plain.charAt(i) % KINDS * 3;
      long own = bits >>> kind & 7;
      bits |= plain.charAt(i) == ' ' ? 0 : (own << 1 | 1) << kind & 7L << kind;
    }
    return bits;
  }

  /** True if nothing is left to be compared. */
  public boolean isBlank() {
    return forms.get(0).isEmpty();
  }

  /** The slips between two texts; under 0 if they are not spelt alike. */
  public static int slips(Spelling a, Spelling b) {
    if (a.isBlank() || b.isBlank() || !a.figures.equals(b.figures)) {
      return -1;
    }
    int least = -1;
    for (String one : a.forms) {
      for (String other : b.forms) {
        int most = mostSlips(Math.min(one.length(), other.length()));
        int slips = DISTANCES[most].apply(one, other);
        slips = slips > 0 && !haveLikeWords(one, other) ? -1 : slips;
        least = slips >= 0 && (least < 0 || slips < least) ? slips : least;
      }
    }
    return least;
  }

  /** False if a word of one is another word in the other; letters that change places are a slip. */
  private static boolean haveLikeWords(String one, String other) {
    String[] ones = one.split(" ");
    String[] others = other.split(" ");
    for (int w = 0; ones.length == others.length && w < ones.length; w++) {
      int most = mostSlips(Math.min(ones[w].length(), others[w].length()));
      if (slips(ones[w], others[w]) > most) {
        return false;
      }
    }
    return true;
  }

  /** The slips between two words, two neighbours that change places being one of them. */
  private static int slips(String a, String b) {
    int[] before = new int[b.length() + 1];
    int[] last = new int[b.length() + 1];
    int[] row = new int[b.length() + 1];
    for (int j = 0; j < row.length; j++) {
      last[j] = j;
    }
    for (int i = 1; i <= a.length(); i++) {
      row[0] = i;
      for (int j = 1; j <= b.length(); j++) {
        boolean same = a.charAt(i - 1) == b.charAt(j - 1);
        int least = Math.min(last[j - 1] + (same ? 0 : 1), Math.min(last[j], row[j - 1]) + 1);
        boolean swapped =
            i > 1
                && j > 1
                && a.charAt(i - 1) == b.charAt(j - 2)
                && a.charAt(i - 2) == b.charAt(j - 1);
        row[j] = swapped ? Math.min(least, before[j - 2] + 1) : least;
      }
      int[] free = before;
      before = last;
      last = row;
      row = free;
    }
    return last[b.length()];
  }
}
