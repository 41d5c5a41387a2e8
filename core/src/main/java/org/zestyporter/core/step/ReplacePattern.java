package org.zestyporter.core.step;

import com.google.re2j.Pattern;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Patterns;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.Values;

/** Replaces the parts that are of a pattern. */
final class ReplacePattern extends Operation {
  /** Characters that a replacement may make. */
  private static final long MOST_MADE = 20_000_000;

  ReplacePattern() {
    super(
        Group.WORDS,
        "Replace by pattern",
        "parts that are of a pattern; $1 is its first group",
        Setting.pattern("pattern"),
        Setting.text("to").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    Pattern pattern = Patterns.compile(step.setting("pattern"));
    String to = step.setting("to", "");
    try {
      pattern.matcher("").replaceAll(to);
    } catch (IndexOutOfBoundsException | IllegalArgumentException e) {
      throw refused("“" + to + "” names a group that is not there");
    }
    return (value, row) -> {
      String text = Values.text(value);
      if ((text.length() + 1L) * to.length() > MOST_MADE) {
        return new Problem(ProblemCode.FORMULA, text, "the text could become too long");
      }
      try {
        String changed = pattern.matcher(text).replaceAll(to);
        return changed.equals(text) ? value : changed.isEmpty() ? null : changed;
      } catch (IndexOutOfBoundsException | IllegalArgumentException e) {
        return new Problem(
            ProblemCode.FORMULA, text, "“" + to + "” names a group that the pattern has not");
      }
    };
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("pattern", Texts.BETWEEN_WORDS));
  }

  @Override
  boolean losesParts() {
    return true;
  }
}
