package org.zestyporter.core.step;

import java.time.temporal.TemporalAdjuster;
import java.time.temporal.TemporalAdjusters;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;

/** Takes the first or last day of a date's month or year. */
final class PeriodEdge extends Operation {

  PeriodEdge() {
    super(
        Group.COMPUTE,
        "First or last day",
        "of the date's month or year",
        Setting.choice("which", "first", "last"),
        Setting.choice("of", "month", "year"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    boolean first = "first".equals(step.setting("which"));
    boolean year = "year".equals(step.setting("of"));
    TemporalAdjuster edge =
        year
            ? first ? TemporalAdjusters.firstDayOfYear() : TemporalAdjusters.lastDayOfYear()
            : first ? TemporalAdjusters.firstDayOfMonth() : TemporalAdjusters.lastDayOfMonth();
    return StepFunction.onDate(d -> d.with(edge));
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("which", "first", "of", "month"));
  }
}
