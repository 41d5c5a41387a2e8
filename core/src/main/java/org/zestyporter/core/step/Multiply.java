package org.zestyporter.core.step;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;

/** Multiplies by a fixed number. */
final class Multiply extends Operation {

  Multiply() {
    super(Group.COMPUTE, "Multiply", "by a fixed number", Setting.number("by"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    BigDecimal by = new BigDecimal(step.setting("by"));
    return StepFunction.onNumber("multiply", n -> n.multiply(by));
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("by", "1"));
  }
}
