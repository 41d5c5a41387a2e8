package org.zestyporter.core.step;

import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Texts;

/** Writes letters without accents. */
final class RemoveAccents extends Operation {

  RemoveAccents() {
    super(Group.TIDY, "Remove accents", "é becomes e, ø becomes o");
  }

  @Override
  StepFunction compile(Step step, Names names) {
    return StepFunction.onText(Texts::withoutAccents);
  }
}
