package org.zestyporter.core.step;

import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.AsciiSigns;

/**
 * Writes the digits of other scripts, and signs that are wide or half as wide, as the usual ones.
 */
final class PlainSigns extends Operation {

  PlainSigns() {
    super(Group.TIDY, "Plain signs", "figures such as ۱۲, १२ or １２ become 12, wide Ａ becomes A");
  }

  @Override
  StepFunction compile(Step step, Names names) {
    return StepFunction.onText(AsciiSigns::tidy);
  }
}
