package org.zestyporter.core.step;

import java.util.regex.Pattern;
import org.zestyporter.core.formula.Names;

/** Takes out what can't be seen: control characters, zero-width ones, marks of direction. */
final class RemoveControls extends Operation {
  private static final Pattern CONTROLS = Pattern.compile("[\\p{Cc}\\p{Cf}\\p{Co}&&[^\\n\\r\\t]]+");
  private static final Pattern BREAKS = Pattern.compile("[\\n\\r\\t]+");

  RemoveControls() {
    super(
        Group.TIDY, "Remove control characters", "line breaks become spaces, others and marks go");
  }

  @Override
  StepFunction compile(Step step, Names names) {
    return StepFunction.onText(
        s -> CONTROLS.matcher(BREAKS.matcher(s).replaceAll(" ")).replaceAll(""));
  }
}
