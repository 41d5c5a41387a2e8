package org.zestyporter.core.step;

import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Texts;

/** Drops spaces at both ends. */
final class Trim extends Operation {

  Trim() {
    super(Group.TIDY, "Trim", "drops spaces at both ends");
  }

  @Override
  StepFunction compile(Step step, Names names) {
    return StepFunction.onText(Texts::trim);
  }
}
