package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.SameWords;

/**
 * Words of a column that mean one of a field's choices, in another language, as its short form or
 * without its accents: {@code férfi} for {@code male}, {@code Frau} for {@code F}, {@code livrata}
 * for {@code livrată}.
 *
 * @param meanings choices by the words as they are written
 * @param known rows whose words are choices, or mean one
 * @param rows all rows
 */
record ChoiceWords(Map<String, String> meanings, long known, long rows) {
  /** Share of a column's rows whose words must be known. */
  private static final double ENOUGH = 0.6;

  private static final int MOST_WORDS = 60;
  private static final int MOST_CHOICES = 40;

  /** The words; null if a column holds none such, or too much else. */
  static @Nullable ChoiceWords of(FieldInfo field, DistinctValues column) {
    List<String> choices = field.choices();
    if (choices == null
        || field.type() != FieldType.TEXT
        || choices.size() > MOST_CHOICES
        || column.beyond() > 0
        || column.tallies().size() > MOST_WORDS) {
      return null;
    }
    Map<String, String> own = new HashMap<>();
    choices.forEach(c -> own.put(LinkValues.COMPARISON.prepare(c), c));
    Map<String, String> meanings = new LinkedHashMap<>();
    boolean anyMeant = false;
    long known = 0;
    long rows = 0;
    for (var value : column.tallies().entrySet()) {
      String word = value.getKey().text().strip();
      String choice = own.get(LinkValues.COMPARISON.prepare(word));
      if (choice == null) {
        List<String> spelt =
            choices.stream().filter(c -> SameWords.areSpeltAlike(word, c)).toList();
        List<String> meant =
            spelt.isEmpty() ? choices.stream().filter(c -> SameWords.are(word, c)).toList() : spelt;
        choice = meant.size() == 1 ? meant.get(0) : null;
        anyMeant |= choice != null;
      }
      if (choice != null) {
        meanings.put(word, choice);
        known += value.getValue().rows();
      }
      rows += value.getValue().rows();
    }
    return anyMeant && known >= rows * ENOUGH ? new ChoiceWords(meanings, known, rows) : null;
  }

  /**
   * True if all words are known, and more than one choice is meant: they say what the field does.
   */
  boolean isTelling() {
    return known == rows && new HashSet<>(meanings.values()).size() > 1;
  }

  /** What makes choices of the words. */
  List<Step> steps() {
    List<Step> steps = new ArrayList<>(List.of(Step.of(StepKind.TRIM)));
    meanings.forEach(
        (word, choice) -> {
          if (!word.equals(choice)) {
            steps.add(Step.of(StepKind.REPLACE, "from", word, "to", choice));
          }
        });
    return steps;
  }

  /** Why it is thought so. */
  String told() {
    return String.format(Locale.ROOT, "%,d of %,d values mean one of its choices", known, rows);
  }
}
