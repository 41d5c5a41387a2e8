package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Values;

/** Takes some words for blank. */
final class BlankWhen extends Operation {

  BlankWhen() {
    super(
        Group.BLANKS, "Blank when", "it is one of these words, parted by |", Setting.text("words"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    Set<String> blanks = Choices.of(step.setting("words"));
    return (value, row) -> blanks.contains(Choices.prepare(Values.text(value))) ? null : value;
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("words", occasion.first("n/a")));
  }

  @Override
  boolean losesParts() {
    return true;
  }
}
