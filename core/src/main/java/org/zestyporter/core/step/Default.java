package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.formula.Scope;

/** Uses a fixed value where there is none. */
final class Default extends Operation {

  Default() {
    super(Group.BLANKS, "Where blank, use", "a fixed value", Setting.text("value"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    return new Instead(step.setting("value"));
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    FieldInfo field = occasion.field();
    String usual = field.type().isNumber() ? "0" : "unknown";
    return List.of(Map.of("value", field.choices() == null ? usual : field.choices().get(0)));
  }

  @Override
  boolean losesParts() {
    return true;
  }

  private record Instead(String blank) implements StepFunction {
    @Override
    public Object apply(@Nullable Object value, Scope row) {
      return value == null ? blank : value;
    }

    @Override
    public boolean takesBlank() {
      return true;
    }
  }
}
