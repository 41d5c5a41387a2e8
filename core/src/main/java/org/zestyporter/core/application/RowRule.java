package org.zestyporter.core.application;

import java.util.Set;

/** A rule of a table over the values of one record, which can be told before the record is sent. */
public interface RowRule {

  /** Why a record is not written that breaks a rule. */
  static String broken(String rule) {
    return "it breaks the table's rule " + rule;
  }

  /** The rule as the database has it. */
  String text();

  /** Indexes of the table's fields that it looks at. */
  Set<Integer> fields();

  /**
   * False if a record breaks it. As in SQL (ISO/IEC 9075-2, 4.17.3), what can't be told because a
   * value is blank is not broken.
   *
   * @param values by the table's fields
   */
  boolean holds(Object[] values);
}
