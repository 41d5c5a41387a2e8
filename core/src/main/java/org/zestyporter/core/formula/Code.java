package org.zestyporter.core.formula;

/** A part of a formula, ready to be run. */
@FunctionalInterface
interface Code {

  /**
   * Its value for a row.
   *
   * @return a value, null for blank, or a {@link org.zestyporter.core.value.Problem}
   */
  Object run(Scope scope);
}
