package org.zestyporter.core.formula;

import java.util.List;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Problem;

/** A formula that says yes or no to a row. */
public final class Condition {
  private final Formula formula;

  private Condition(Formula formula) {
    this.formula = formula;
  }

  /**
   * Compiles a condition.
   *
   * @param of what it is a condition of, in the user's words
   * @throws PorterException with code {@code condition} if the formula can't be used or gives no
   *     yes or no
   */
  public static Condition compile(String text, Names names, String of) {
    Formula formula;
    try {
      formula = Formula.compile(text, names);
    } catch (FormulaException e) {
      throw ErrorCode.CONDITION.error(
          "The condition of " + of + " can't be used: " + e.getMessage());
    }
    if (!formula.kind().mayBeLogical()) {
      throw ErrorCode.CONDITION.error(
          "The condition of " + of + " gives no yes or no: “" + text + "”.");
    }
    return new Condition(formula);
  }

  /**
   * What it says to a row.
   *
   * @return true, false, null for blank, or a {@link Problem}
   */
  public Object of(Scope row) {
    return formula.run(row);
  }

  /** Indexes of the columns that it reads, each once. */
  public List<Integer> columns() {
    return formula.columns();
  }
}
