package org.zestyporter.core.run;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.value.Values;

/** A record that a row makes, known to other records before the application has numbered it. */
final class RowRecord {
  private final TableInfo table;
  private final String label;
  private final long line;
  private final Object[] values;
  private volatile @Nullable List<Object> key;

  /**
   * @param values what it is given, by the table's fields
   */
  RowRecord(TableInfo table, String label, long line, Object[] values) {
    this.table = table;
    this.label = label;
    this.line = line;
    this.values = values;
  }

  /** Notes the primary key that the application gave it. */
  void made(@Nullable List<Object> given) {
    key = given;
  }

  /**
   * What a link to it holds.
   *
   * @return null if the field is blank, and no part of the primary key that the application gives
   */
  @Nullable Object link(FieldInfo field) {
    Object given = values[table.fields().indexOf(field)];
    if (given != null && !(given instanceof Pending)) {
      return given;
    }
    int part = table.fields(table.primaryKey()).indexOf(field);
    if (part < 0) {
      return null;
    }
    return new Pending() {
      @Override
      public @Nullable Object key() {
        List<Object> made = key;
        return made == null ? null : made.get(part);
      }

      @Override
      public String toString() {
        Object made = key();
        return made == null ? "new " + label + " of line " + line : Values.text(made);
      }
    };
  }
}
