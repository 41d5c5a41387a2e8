package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.ValueReader;
import org.zestyporter.core.value.Words;

/**
 * Which of a column's two words say yes and no of a field, as its name tells: {@code Active} and
 * {@code Inactive} of {@code is_active}.
 *
 * @param yes as they are written
 * @param no as they are written; empty if the column holds one word only
 */
record TruthWords(List<String> yes, List<String> no) {
  private static final int MOST_SPELLINGS = 8;
  private static final int LONGEST = 30;

  /** The words; null if these are others, or can be read as yes and no anyway. */
  static @Nullable TruthWords of(FieldInfo field, DistinctValues column) {
    int spellings = column.tallies().size();
    if (field.type() != FieldType.BOOLEAN || column.beyond() > 0 || spellings > MOST_SPELLINGS) {
      return null;
    }
    Map<String, List<String>> written = new TreeMap<>();
    for (Cell cell : column.tallies().keySet()) {
      String text = cell.text().strip();
      if (!text.isEmpty()) {
        written.computeIfAbsent(Texts.small(text), t -> new ArrayList<>()).add(text);
      }
    }
    List<String> words = List.copyOf(written.keySet());
    if (words.isEmpty() || words.size() > 2 || !words.stream().allMatch(TruthWords::isWord)) {
      return null;
    }
    List<String> saying = words.stream().filter(w -> says(field, w)).toList();
    if (saying.size() != 1) {
      return null;
    }
    String yes = saying.get(0);
    List<String> no = words.stream().filter(w -> !w.equals(yes)).toList();
    return new TruthWords(written.get(yes), no.isEmpty() ? List.of() : written.get(no.get(0)));
  }

  private static boolean isWord(String text) {
    return text.length() <= LONGEST
        && text.chars().noneMatch(c -> Character.isDigit(c) || c == '|')
        && !(ValueReader.truth(text) instanceof Boolean);
  }

  /**
   * True if all that is said is in the field's name: “paid” is, “not paid” and “paid in” aren't.
   */
  private static boolean says(FieldInfo field, String text) {
    List<String> of = Words.of(field.name());
    return Words.split(text).stream()
        .allMatch(word -> of.stream().anyMatch(name -> Words.alike(word, name) >= 0.9));
  }

  /** Reads the words as yes and no. */
  Step step() {
    String all = String.join("|", yes);
    return no.isEmpty()
        ? Step.of(StepKind.READ_BOOLEAN, "yes", all)
        : Step.of(StepKind.READ_BOOLEAN, "yes", all, "no", String.join("|", no));
  }

  /** Why it is thought so. */
  String told(FieldInfo field) {
    return "“" + yes.get(0) + "” says what " + field.name() + " is";
  }
}
