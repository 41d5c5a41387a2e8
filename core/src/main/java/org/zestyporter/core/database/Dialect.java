package org.zestyporter.core.database;

import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;

/** What differs between databases; each dialect overrides only that. */
interface Dialect {

  /** The query for the texts of a table's check constraints; parameters are schema and table. */
  String checkQuery();

  /** True if the text of a value must be handed over with its type left open (enumerations). */
  default boolean openTyped(FieldInfo field) {
    return false;
  }

  default String quote(String identifier) {
    return '"' + identifier.replace("\"", "\"\"") + '"';
  }

  default String name(TableInfo table) {
    return table.schema() == null
        ? quote(table.name())
        : quote(table.schema()) + "." + quote(table.name());
  }

  /** The rules of a table's check constraints that can be told beforehand. */
  default List<CheckRule> checks(Connection connection, String schema, String table)
      throws SQLException {
    List<CheckRule> rules = new ArrayList<>();
    try (PreparedStatement query = connection.prepareStatement(checkQuery())) {
      query.setString(1, schema);
      query.setString(2, table);
      try (ResultSet found = query.executeQuery()) {
        while (found.next()) {
          CheckRule rule = CheckRule.parse(found.getString(1));
          if (rule != null) {
            rules.add(rule);
          }
        }
      }
    }
    return rules;
  }

  /** The dialect of a database; the one of the SQL standard if it is not known. */
  static Dialect of(DatabaseMetaData metadata) throws SQLException {
    return switch (metadata.getDatabaseProductName()) {
      case "PostgreSQL" -> new PostgresDialect();
      default -> new H2Dialect();
    };
  }
}
