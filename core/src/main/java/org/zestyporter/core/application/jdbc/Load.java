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
 */
record Load(
    Connection connection,
    Going going,
    TableInfo table,
    List<FieldInfo> fields,
    List<Change> changes) {

  List<FieldInfo> keyFields() {
    return table.fields(table.primaryKey());
  }
}
