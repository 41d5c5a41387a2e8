package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Codes;
import org.zestyporter.core.value.Values;

/** Brings languages to their codes (ISO 639). */
final class Language extends Operation {

  Language() {
    super(
        Group.KNOWN,
        "Language to code",
        "names in many languages to the code of ISO 639",
        Setting.choice("form", "two-letter", "three-letter").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    boolean three = "three-letter".equals(step.setting("form"));
    return (value, row) -> {
      Object found = Codes.language(Values.text(value));
      return three && found instanceof String code ? Codes.longLanguage(code) : found;
    };
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return Integer.valueOf(3).equals(occasion.field().length())
        ? List.of(Map.of("form", "three-letter"))
        : List.of(Map.of());
  }
}
