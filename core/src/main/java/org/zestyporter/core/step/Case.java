package org.zestyporter.core.step;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Texts;

/** Changes between capitals and small letters. */
final class Case extends Operation {

  Case() {
    super(
        Group.TIDY,
        "Change case",
        "capitals, small letters or names with their particles",
        Setting.choice("to", "upper", "lower", "title", "sentence", "name"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    return StepFunction.onText(
        switch (step.setting("to", "title")) {
          case "upper" -> s -> s.toUpperCase(Locale.ROOT);
          case "lower" -> s -> s.toLowerCase(Locale.ROOT);
          case "sentence" -> Texts::sentence;
          case "name" -> Texts::personalName;
          default -> Texts::title;
        });
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return each("to", List.of("upper", "lower", "title", "sentence", "name"));
  }
}
