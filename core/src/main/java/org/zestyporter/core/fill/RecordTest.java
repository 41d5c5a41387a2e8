package org.zestyporter.core.fill;

import java.util.List;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.formula.FormulaException;
import org.zestyporter.core.formula.Kind;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** A condition on the records of a table, such as {@code [sold] = FALSE()}. */
public final class RecordTest {
  private final Formula formula;
  private final List<FieldInfo> fields;
  private final int[] indexes;
  private final int width;
  private final RunContext context;

  /**
   * @param text a formula over the names of the fields
   * @throws PorterException with code {@code condition} if it is none, or tells no truth value
   */
  public RecordTest(String text, TableInfo table, RunContext context) {
    try {
      this.formula = Formula.compile(text, Rules.names(table));
    } catch (FormulaException e) {
      throw ErrorCode.CONDITION.error(
          "The condition on the records of " + table.name() + ": " + e.getMessage());
    }
    if (formula.kind() != Kind.LOGICAL && formula.kind() != Kind.ANY) {
      throw ErrorCode.CONDITION.error(
          "The condition on the records of "
              + table.name()
              + " gives no TRUE or FALSE: "
              + text
              + ". Compare something, as in [name] = \"x\".");
    }
    this.indexes = formula.columns().stream().mapToInt(Integer::intValue).toArray();
    this.fields = formula.columns().stream().map(table.fields()::get).toList();
    this.width = table.fields().size();
    this.context = context;
  }

  /** The fields that it looks at. */
  public List<FieldInfo> fields() {
    return fields;
  }

  /**
   * True if it holds for a record; false also where it can't be told.
   *
   * @param values of its fields, in their order
   */
  public boolean holds(Object[] values) {
    Object[] byField = new Object[width];
    for (int i = 0; i < indexes.length; i++) {
      byField[indexes[i]] = values[i];
    }
    return Boolean.TRUE.equals(formula.run(new Rules.RecordScope(byField, 0, context)));
  }
}
