package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.ValueReader;

/** Reads a text as a number. */
final class ReadNumber extends Operation {

  ReadNumber() {
    super(
        Group.READ,
        "Read as number",
        "in the sender's way of writing",
        Setting.choice("decimal", ",", ".").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    String decimal = step.setting("decimal", names.locale().decimal());
    return StepFunction.toNumber(text -> ValueReader.number(text, decimal));
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return openAndEach("decimal", List.of(",", "."));
  }
}
