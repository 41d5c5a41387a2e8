package org.zestyporter.core.step;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.formula.FormulaException;
import org.zestyporter.core.formula.Kind;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.formula.Scope;

/** A formula that may name the value so far: {@code LEN([value])}. */
public final class ValueFormula implements StepFunction {
  private final Formula formula;
  private final int at;

  /**
   * @throws FormulaException naming the place at fault
   */
  public ValueFormula(String text, Names names) {
    WithValueName inStep = new WithValueName(names);
    formula = Formula.compile(text, inStep);
    at = inStep.valueIndex();
  }

  /** What kind of value it gives. */
  public Kind kind() {
    return formula.kind();
  }

  @Override
  public @Nullable Object apply(@Nullable Object value, Scope row) {
    return formula.run(new WithValue(row, at, value));
  }

  @Override
  public boolean takesBlank() {
    return true;
  }

  @Override
  public List<Integer> columns() {
    return formula.columns().stream().filter(c -> c != at).toList();
  }

  @Override
  public boolean perRow() {
    return formula.usesLine();
  }
}
