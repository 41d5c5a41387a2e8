package org.zestyporter.core.step;

import java.util.List;
import java.util.function.BinaryOperator;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.formula.Scope;
import org.zestyporter.core.value.Texts;

/**
 * A step that also reads another column.
 *
 * @param column index of that column
 * @param with takes the value and what the other column holds, both null if blank
 */
record OtherColumn(int column, BinaryOperator<@Nullable Object> with) implements StepFunction {

  @Override
  public @Nullable Object apply(@Nullable Object value, Scope row) {
    Object other = row.column(column);
    if (other instanceof String text) {
      String trimmed = Texts.trim(text);
      other = trimmed.isEmpty() ? null : trimmed;
    }
    return with.apply(value, other);
  }

  @Override
  public boolean takesBlank() {
    return true;
  }

  @Override
  public List<Integer> columns() {
    return List.of(column);
  }
}
