package org.zestyporter.core.run;

import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.RowRule;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.Rules;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/** What records of a destination must hold to: the checks that people made, and the table's own. */
final class RecordRules {
  private final TableInfo table;
  private final Rules checks;

  RecordRules(TableInfo table, Rules checks) {
    this.table = table;
    this.checks = checks;
  }

  boolean isEmpty() {
    return checks.isEmpty() && table.rules().isEmpty();
  }

  /**
   * Why a record must not be written; null if it may be.
   *
   * @param values by the table's fields
   * @param isNew true if the database fills what is left blank
   */
  LedgerEntry.@Nullable Note broken(Object[] values, boolean isNew, long line) {
    Rules.Broken broken = checks.isEmpty() ? null : checks.broken(values, line);
    if (broken != null) {
      return new LedgerEntry.Note(ProblemCode.CHECK, null, broken.check(), broken.reason(), false);
    }
    for (RowRule rule : table.rules()) {
      if (!(isNew && dependsOnDefaults(rule, values)) && !rule.holds(values)) {
        return told(rule, values);
      }
    }
    return null;
  }

  private boolean dependsOnDefaults(RowRule rule, Object[] values) {
    for (int f : rule.fields()) {
      FieldInfo field = table.fields().get(f);
      if (values[f] == null && field.mayBeLeft()) {
        return true;
      }
    }
    return false;
  }

  private LedgerEntry.Note told(RowRule rule, Object[] values) {
    int only = rule.fields().size() == 1 ? rule.fields().iterator().next() : -1;
    return new LedgerEntry.Note(
        ProblemCode.CHECK,
        only < 0 ? null : table.fields().get(only).name(),
        only < 0 ? null : Values.text(values[only]),
        RowRule.broken(rule.text()),
        false);
  }
}
