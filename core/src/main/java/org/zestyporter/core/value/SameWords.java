package org.zestyporter.core.value;

import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Words of choices that mean the same in the languages of the senders, by the list {@code
 * choices.txt}: {@code férfi} is {@code male}, and so is {@code M}.
 */
public final class SameWords {
  private static final Comparison COMPARISON =
      Comparison.ignoring(
          List.of(Comparison.Ignore.CASE, Comparison.Ignore.SPACES, Comparison.Ignore.ACCENTS));

  private static final Map<String, Integer> MEANINGS = meanings();

  private SameWords() {}

  private static Map<String, Integer> meanings() {
    Map<String, Integer> meanings = new HashMap<>();
    int meaning = 0;
    for (String line : WordLists.lines(SameWords.class, "choices.txt")) {
      for (String word : line.split(",")) {
        meanings.putIfAbsent(COMPARISON.prepare(word), meaning);
      }
      meaning++;
    }
    return Map.copyOf(meanings);
  }

  /** True if both are the same but for capitals, spaces and accents, which many leave out. */
  public static boolean areSpeltAlike(String a, String b) {
    return COMPARISON.prepare(a).equals(COMPARISON.prepare(b));
  }

  /** True if both mean the same choice, as far as is known. */
  public static boolean are(String a, String b) {
    Integer meaning = MEANINGS.get(COMPARISON.prepare(a));
    return meaning != null && meaning.equals(MEANINGS.get(COMPARISON.prepare(b)));
  }
}
