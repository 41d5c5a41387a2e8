package org.zestyporter.core.fill;

/** What a step does to a value: gives another value, null for blank, or a problem. */
@FunctionalInterface
interface StepFunction {

  /**
   * @param value null only if {@link #takesBlank}; never a problem
   */
  Object apply(Object value, Row row);

  /** True if it also has something to do where the value is blank. */
  default boolean takesBlank() {
    return false;
  }

  /** A step that also works on blanks. */
  static StepFunction onBlanksToo(StepFunction function) {
    return new StepFunction() {
      @Override
      public Object apply(Object value, Row row) {
        return function.apply(value, row);
      }

      @Override
      public boolean takesBlank() {
        return true;
      }
    };
  }
}
