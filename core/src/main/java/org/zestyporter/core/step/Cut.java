package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Texts;

/** Cuts a text to a length, and has each cut counted. */
final class Cut extends Operation {

  Cut() {
    super(
        Group.TIDY,
        "Cut to length",
        "keeps the first characters and counts what it cut",
        Setting.whole("length"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    int most = step.whole("length");
    return (value, row) -> {
      if (!(value instanceof String text) || Texts.length(text) <= most) {
        return value;
      }
      String kept = Texts.part(text, 0, most);
      return new Noted(
          kept.isEmpty() ? null : kept,
          new Problem(ProblemCode.CUT, text, "cut to " + most + " characters"));
    };
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("length", occasion.length("40")));
  }

  @Override
  boolean losesParts() {
    return true;
  }
}
