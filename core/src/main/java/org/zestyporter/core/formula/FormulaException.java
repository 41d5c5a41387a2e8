package org.zestyporter.core.formula;

import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** A formula that can't be used, with the place at fault. */
public final class FormulaException extends PorterException {
  private static final long serialVersionUID = 1L;

  private final String cause;
  private final int from;
  private final int to;

  /**
   * @param cause in the user's words, without the place
   * @param from first character at fault, from 0
   * @param to the character after the last one at fault
   */
  FormulaException(String cause, int from, int to) {
    super(
        ErrorCode.FORMULA,
        "At character " + (from + 1) + " of the formula: " + cause + ".",
        "",
        null);
    this.cause = cause;
    this.from = from;
    this.to = Math.max(to, from);
  }

  /** What is wrong, without the place. */
  public String what() {
    return cause;
  }

  public int from() {
    return from;
  }

  public int to() {
    return to;
  }
}
