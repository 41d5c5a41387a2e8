package org.zestyporter.core.value;

import java.util.Arrays;
import java.util.List;
import org.apache.commons.text.similarity.LevenshteinDistance;

/**
 * Tells whether two texts are spelt alike: the same but for a slip or two. Capitals, accents, marks
 * and the order of words make no difference; figures have to agree.
 *
 * <pre>{@code
 * Spelling.slips(Spelling.of("Lindqvist, Ánna"), Spelling.of("Anna Lindquist")); // 1
 * }</pre>
 *
 * @param forms what is compared: the text as it is and with its words in order, if that is another
 * @param figures the figures of the text, in order
 */
public record Spelling(List<String> forms, String figures) {
  private static final int SHORT = 4;
  private static final int LONG = 8;
  private static final LevenshteinDistance[] DISTANCES = {
    new LevenshteinDistance(0), new LevenshteinDistance(1), new LevenshteinDistance(2)
  };

  /** How a text is compared. */
  public static Spelling of(String text) {
    String plain = Alike.fold(text);
    String[] words = plain.split(" ");
    Arrays.sort(words);
    String ordered = String.join(" ", words);
    return new Spelling(
        plain.equals(ordered) ? List.of(plain) : List.of(plain, ordered),
        plain.replaceAll("[^\\p{N}]+", ""));
  }

  /**
   * Slips that a text of some length may have: none under four characters, one under eight, else
   * two. A slip is a letter too many, too few, or another one (Levenshtein's distance).
   */
  public static int mostSlips(int length) {
    return length < SHORT ? 0 : length < LONG ? 1 : 2;
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
        least = slips >= 0 && (least < 0 || slips < least) ? slips : least;
      }
    }
    return least;
  }
}
