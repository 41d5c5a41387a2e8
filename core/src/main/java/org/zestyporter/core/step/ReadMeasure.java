package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Measures;

/** Reads a text as a number of one unit of measure. */
final class ReadMeasure extends Operation {

  ReadMeasure() {
    super(
        Group.READ,
        "Read measure",
        "32' 6\", 5 ft 3 in, 1 h 30 min or a bare number, into one unit",
        Setting.unit("in"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    String decimal = names.locale().decimal();
    String unit = step.setting("in");
    return StepFunction.toNumber(text -> Measures.read(text, unit, decimal));
  }

  @Override
  boolean followsDecimal(Step step) {
    return true;
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    Measures.Measure unit =
        occasion.columnUnit() == null ? occasion.fieldUnit() : occasion.columnUnit();
    return List.of(Map.of("in", unit == null ? "m" : unit.symbol()));
  }
}
