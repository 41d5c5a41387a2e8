package org.zestyporter.core.fill;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.value.Comparison;

/** The phrasebooks that a plan may use, ready for looking up words. */
public final class Phrases {
  /** No phrasebooks at all. */
  public static final Phrases NONE = new Phrases(List.of());

  private static final Comparison ALIKE =
      Comparison.ignoring(
          Set.of(Comparison.Ignore.CASE, Comparison.Ignore.SPACES, Comparison.Ignore.ACCENTS));

  private final Map<String, Map<String, Optional<String>>> books = new HashMap<>();

  /**
   * @param books later ones replace earlier ones of the same name
   */
  public Phrases(List<Phrasebook> books) {
    for (Phrasebook book : books) {
      Map<String, Optional<String>> phrases = new HashMap<>();
      for (Phrasebook.Phrase phrase : book.phrases()) {
        phrases.put(prepare(phrase.from()), Optional.ofNullable(phrase.to()));
      }
      this.books.put(book.name(), phrases);
    }
  }

  /** The form in which words are looked up. */
  public static String prepare(String word) {
    return ALIKE.prepare(word);
  }

  public boolean has(String book) {
    return books.containsKey(book);
  }

  /**
   * The translation of a word.
   *
   * @return null if the book has none; empty if the word means blank
   */
  @SuppressWarnings("OptionalAssignedToNull")
  Optional<String> find(String book, String word) {
    return books.getOrDefault(book, Map.of()).get(prepare(word));
  }
}
