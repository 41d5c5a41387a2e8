package org.zestyporter.core.step;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;

/** Adds a fixed number. */
final class Add extends Operation {

  Add() {
    super(
        Group.COMPUTE,
        "Add",
        "a fixed number, or take it away with a minus",
        Setting.number("number"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    BigDecimal added = new BigDecimal(step.setting("number"));
    return StepFunction.onNumber("add", n -> n.add(added));
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("number", "0"));
  }
}
