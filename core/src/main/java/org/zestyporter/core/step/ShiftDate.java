package org.zestyporter.core.step;

import java.time.Period;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;

/** Shifts a date. */
final class ShiftDate extends Operation {

  ShiftDate() {
    super(
        Group.COMPUTE,
        "Shift date",
        "so many days, weeks, months or years on, or back",
        Setting.count("by"),
        Setting.choice("unit", "days", "weeks", "months", "years"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    int by = step.whole("by");
    Period period =
        switch (step.setting("unit", "days")) {
          case "weeks" -> Period.ofWeeks(by);
          case "months" -> Period.ofMonths(by);
          case "years" -> Period.ofYears(by);
          default -> Period.ofDays(by);
        };
    return StepFunction.onDate(d -> d.plus(period));
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("by", "1", "unit", "days"));
  }
}
