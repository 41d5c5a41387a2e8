package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;

/** Takes another column where the value is blank. */
final class OrColumn extends Operation {

  OrColumn() {
    super(Group.BLANKS, "Else take", "another column where it is blank", Setting.column("column"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    return new OtherColumn(column(step, names), (value, other) -> value == null ? other : value);
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return each("column", occasion.others().stream().limit(6).toList());
  }
}
