package org.zestyporter.core.step;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ValueReader;

/** Reads a text as a share of a hundred. */
final class ReadPercent extends Operation {
  private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);

  ReadPercent() {
    super(
        Group.READ,
        "Read as percent",
        "12 % becomes 0.12, or 12",
        Setting.choice("as", "fraction", "points").open(),
        Setting.choice("decimal", ",", ".").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    String decimal = step.setting("decimal", names.locale().decimal());
    boolean points = "points".equals(step.setting("as"));
    return StepFunction.toNumber(
        text -> {
          boolean signed = text.contains("%");
          Object number = ValueReader.number(text.replace("%", "").strip(), decimal);
          if (number instanceof Problem p) {
            return new Problem(p.code(), text, p.reason());
          }
          return points || !signed ? number : ((BigDecimal) number).divide(HUNDRED);
        });
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return openAndEach("as", List.of("points"));
  }
}
