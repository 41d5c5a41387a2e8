package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Codes;
import org.zestyporter.core.value.Values;

/** Brings countries to their codes (ISO 3166-1). */
final class Country extends Operation {

  Country() {
    super(
        Group.KNOWN,
        "Country to code",
        "names in many languages and codes to the code of ISO 3166",
        Setting.choice("form", "two-letter", "three-letter", "number").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    UnaryOperator<String> form =
        switch (step.setting("form", "two-letter")) {
          case "three-letter" -> Codes::longCountry;
          case "number" -> Codes::countryNumber;
          default -> code -> code;
        };
    return (value, row) -> {
      Object found = Codes.country(Values.text(value));
      return found instanceof String code ? form.apply(code) : found;
    };
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return Integer.valueOf(3).equals(occasion.field().length())
        ? List.of(Map.of("form", "three-letter"))
        : List.of(Map.of());
  }
}
