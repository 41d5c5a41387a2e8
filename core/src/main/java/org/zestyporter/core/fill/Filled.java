package org.zestyporter.core.fill;

import org.zestyporter.core.value.Problem;

/**
 * What a fill gave for a row.
 *
 * @param value the value to write; null for blank
 * @param problem why the value can't be taken, or what is to be counted; null if there is nothing
 * @param softened true if there is a problem and the plan says to go on with {@code value} instead
 * @param question true if one answer settles the problem for all rows with this value
 */
public record Filled(Object value, Problem problem, boolean softened, boolean question) {
  static final Filled BLANK = new Filled(null, null, false);

  Filled(Object value, Problem problem, boolean softened) {
    this(value, problem, softened, false);
  }

  /** True if the row can't be written because of this field. */
  public boolean rejects() {
    return problem != null && !softened;
  }
}
