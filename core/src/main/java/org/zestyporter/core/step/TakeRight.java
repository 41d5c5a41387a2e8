package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Texts;

/** Takes the last characters. */
final class TakeRight extends Operation {

  TakeRight() {
    super(Group.PARTS, "Take the last", "characters", Setting.whole("count"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    int count = step.whole("count");
    return StepFunction.onText(s -> Texts.part(s, Texts.length(s) - count, Integer.MAX_VALUE));
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("count", occasion.length("2")));
  }
}
