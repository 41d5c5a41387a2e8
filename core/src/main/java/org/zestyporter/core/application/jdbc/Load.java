package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.util.List;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession.Change;

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
}
