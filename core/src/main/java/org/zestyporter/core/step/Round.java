package org.zestyporter.core.step;

import java.math.RoundingMode;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;

/** Rounds to so many places. */
final class Round extends Operation {

  Round() {
    super(
        Group.COMPUTE,
        "Round",
        "half away from zero, or always up or down",
        Setting.whole("places"),
        Setting.choice("how", "half", "up", "down").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    int places = step.whole("places");
    RoundingMode mode =
        switch (step.setting("how", "half")) {
          case "up" -> RoundingMode.UP;
          case "down" -> RoundingMode.DOWN;
          default -> RoundingMode.HALF_UP;
        };
    return StepFunction.onNumber("round", n -> n.setScale(places, mode));
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    Integer scale = occasion.field().scale();
    return List.of(Map.of("places", String.valueOf(scale == null ? 0 : scale)));
  }
}
