package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;

/** Computes a formula, in which {@code [value]} is the value so far. */
final class Formula extends Operation {

  Formula() {
    super(
        Group.KNOWN,
        "Formula",
        "write your own; [value] is the value so far",
        Setting.formula("formula"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    return new ValueFormula(step.setting("formula"), names);
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("formula", "[value]"));
  }
}
