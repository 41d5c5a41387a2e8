package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Texts;

/** Takes what stands behind one text and before another. */
final class TakeBetween extends Operation {

  TakeBetween() {
    super(
        Group.PARTS,
        "Take between",
        "what stands behind one text and before another; the whole if neither is there",
        Setting.text("after").open(),
        Setting.text("before").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    String after = step.setting("after");
    String before = step.setting("before");
    return StepFunction.onText(
        s -> {
          int from = after == null ? -1 : s.indexOf(after);
          int start = from < 0 ? 0 : from + after.length();
          int end = before == null ? -1 : s.indexOf(before, start);
          return Texts.trim(s.substring(start, end < 0 ? s.length() : end));
        });
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("after", "(", "before", ")"));
  }
}
