package org.zestyporter.core.plan;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.step.StepKind;

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

  /** True if a fill translates by it, in a step or in a formula. */
  public boolean isUsedBy(Fill fill) {
    boolean inOrigin =
        fill.origin() != null
            && fill.origin().lookedUpBy() instanceof Origin.Formula of
            && of.formula() != null
            && isNamedIn(of.formula());
    return inOrigin
        || fill.steps().stream()
            .anyMatch(
                s ->
                    name.equals(s.setting("book"))
                        || (s.kind() == StepKind.FORMULA
                            && s.setting("formula") != null
                            && isNamedIn(s.setting("formula"))));
  }

  /** True if a formula names it. */
  public boolean isNamedIn(String formula) {
    return formula.contains("\"" + name.replace("\"", "\"\"") + "\"");
  }

  public Phrasebook {
    phrases = phrases == null ? List.of() : List.copyOf(phrases);
  }
}
