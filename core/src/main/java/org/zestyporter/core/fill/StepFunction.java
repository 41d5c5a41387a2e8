package org.zestyporter.core.fill;

/** What a step does to a value: gives another value, null for blank, or a problem. */
@FunctionalInterface
interface StepFunction {

  /**
   * @param value never null and never a problem
   */
  Object apply(Object value);
}
