package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Texts;

/** Fills a value up to a length. */
final class Pad extends Operation {

  Pad() {
    super(
        Group.TIDY,
        "Pad",
        "fills up to a length with a sign",
        Setting.whole("length"),
        Setting.text("with"),
        Setting.choice("side", "left", "right").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    int length = step.whole("length");
    String with = step.setting("with", " ");
    boolean right = "right".equals(step.setting("side"));
    return StepFunction.onShown(
        s -> {
          int missing = length - Texts.length(s);
          if (missing <= 0) {
            return s;
          }
          String filling = Texts.part(with.repeat(missing), 0, missing);
          return right ? s + filling : filling + s;
        });
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("length", occasion.length("5"), "with", "0"));
  }
}
