package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Measures;

/** Converts a number from one unit of measure to another. */
final class ConvertUnit extends Operation {

  ConvertUnit() {
    super(
        Group.COMPUTE,
        "Convert unit",
        "from one unit of measure to another",
        Setting.unit("from"),
        Setting.unit("to"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    String from = step.setting("from");
    String to = step.setting("to");
    Measures.Conversion conversion = Measures.conversion(from, to);
    if (conversion == null) {
      throw refused(
          Measures.find(from).title()
              + " and "
              + Measures.find(to).title()
              + " don't measure the same");
    }
    return StepFunction.onNumber("convert", conversion::apply);
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    Measures.Measure from = occasion.columnUnit();
    Measures.Measure to = occasion.fieldUnit();
    return List.of(
        from != null && to != null
            ? Map.of("from", from.symbol(), "to", to.symbol())
            : Map.of("from", "ft", "to", "m"));
  }
}
