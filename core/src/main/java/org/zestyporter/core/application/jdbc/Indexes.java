package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;

/** By which fields records of a table are found without reading all of them. */
final class Indexes {
  /** Letters that every database takes for a name. */
  private static final int LONGEST_NAME = 60;

  private final Dialect dialect;
  private final TableInfo table;

  Indexes(Dialect dialect, TableInfo table) {
    this.dialect = dialect;
    this.table = table;
  }

  /** True if the primary key, or an index over all records, begins with one of the fields. */
  boolean lead(Connection connection, List<FieldInfo> fields) throws SQLException {
    List<String> key = table.primaryKey();
    if (!key.isEmpty() && fields.stream().anyMatch(f -> f.name().equals(key.get(0)))) {
      return true;
    }
    Set<String> first = dialect.indexed(connection, table);
    return fields.stream().anyMatch(f -> first.contains(f.name()));
  }

  /** The statement that makes an index over fields. */
  String statement(List<FieldInfo> fields) {
    String name =
        fields.stream()
            .map(FieldInfo::name)
            .collect(Collectors.joining("_", table.relation() + "_", ""));
    return "CREATE INDEX "
        + dialect.quote(name.substring(0, Math.min(LONGEST_NAME, name.length())))
        + " ON "
        + dialect.name(table)
        + fields.stream()
            .map(f -> dialect.quote(f.name()))
            .collect(Collectors.joining(", ", " (", ")"));
  }
}
