package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Formats;
import org.zestyporter.core.formula.Names;

/** Writes a number or date as text. */
final class Format extends Operation {

  Format() {
    super(
        Group.COMPUTE,
        "Write as text",
        "a number or date in a format: 0000, #,##0.00, d mmmm yyyy",
        Setting.text("format"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    String format = step.setting("format");
    return (value, row) -> {
      Object text = Formats.write(value, format);
      return "".equals(text) ? null : text;
    };
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("format", "0"));
  }
}
