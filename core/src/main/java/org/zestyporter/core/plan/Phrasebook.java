package org.zestyporter.core.plan;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Remembered translations from a source's words to the application's values.
 *
 * @param name by which steps and formulas know it
 * @param phrases the translations; of two for one word the later one holds
 */
public record Phrasebook(String name, List<Phrase> phrases) {

  /**
   * A translation.
   *
   * @param from the source's word; capitals, accents and spaces don't matter
   * @param to the application's value; null if the word means blank
   */
  public record Phrase(String from, @Nullable String to) {}

  public Phrasebook {
    phrases = phrases == null ? List.of() : List.copyOf(phrases);
  }
}
