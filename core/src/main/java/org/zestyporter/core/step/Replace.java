package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Values;

/** Replaces one whole value by another. */
final class Replace extends Operation {

  Replace() {
    super(
        Group.WORDS,
        "Replace",
        "one whole value by another, ignoring capitals",
        Setting.text("from"),
        Setting.text("to").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    String from = step.setting("from");
    String to = step.setting("to");
    return (value, row) -> Values.text(value).equalsIgnoreCase(from) ? to : value;
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    String first = occasion.first("x");
    return List.of(Map.of("from", first, "to", first));
  }
}
