package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession.Change;
import org.zestyporter.core.value.ValueColumn;

/**
 * Records that go to the database together, and by which way.
 *
 * @param fields what all of them have values for
 * @param changes all inserts, or all updates
 * @param leavesBlanks true if a blank in a field that has a default is left to the database;
 *     otherwise it is given
 */
record Load(
    Connection connection,
    Going going,
    TableInfo table,
    List<FieldInfo> fields,
    List<Change> changes,
    boolean leavesBlanks) {

  List<FieldInfo> keyFields() {
    return table.fields(table.primaryKey());
  }

  /** True if the value of a field is left to the database. */
  boolean leaves(Change change, int field) {
    return leavesBlanks && change.values().get(field) == null && fields.get(field).mayBeLeft();
  }

  /** True if any part of a primary key is among the fields. */
  boolean givesKeys() {
    return fields.stream().anyMatch(keyFields()::contains);
  }

  /** The parts of the primary key of updates, and then the fields. */
  List<FieldInfo> keysAndFields() {
    List<FieldInfo> all = new ArrayList<>(keyFields());
    all.addAll(fields);
    return all;
  }

  /** The columns of these. */
  ValueColumn[] columns() {
    int keys = keyFields().size();
    ValueColumn[] columns = new ValueColumn[keys + fields.size()];
    for (int c = 0; c < columns.length; c++) {
      Object[] values = new Object[changes.size()];
      for (int i = 0; i < values.length; i++) {
        Change change = changes.get(i);
        values[i] = c < keys ? change.key().get(c) : change.values().get(c - keys);
      }
      columns[c] = ValueColumn.of(values, null);
    }
    return columns;
  }

  /** SQL that sets some fields equal to those of {@code s}, or compares them. */
  static String equal(Dialect dialect, List<FieldInfo> some, String of, String between) {
    return some.stream()
        .map(f -> dialect.quote(f.name()))
        .map(name -> of + name + " = s." + name)
        .collect(Collectors.joining(between));
  }
}
