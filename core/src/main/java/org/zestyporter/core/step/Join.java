package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.Values;

/** Puts another column behind the value. */
final class Join extends Operation {

  Join() {
    super(
        Group.BLANKS,
        "Join",
        "another column behind it",
        Setting.column("column"),
        Setting.text("between").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    String between = step.setting("between", " ");
    return new OtherColumn(
        column(step, names),
        (value, added) ->
            added == null || added instanceof Problem || value == null
                ? added == null ? value : added
                : Values.text(value) + between + Values.text(added));
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return each("column", occasion.others().stream().limit(6).toList());
  }
}
