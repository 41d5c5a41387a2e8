package org.zestyporter.core.fill;

import org.zestyporter.core.value.Problem;

/**
 * What a fill gave for a cell.
 *
 * @param value the value to write; null for blank
 * @param problem why the value can't be taken; null if it can
 * @param softened true if there is a problem and the plan says to go on with {@code value} instead
 */
public record Filled(Object value, Problem problem, boolean softened) {
  static final Filled BLANK = new Filled(null, null, false);

  /** True if the row can't be written because of this field. */
  public boolean rejects() {
    return problem != null && !softened;
  }
}
