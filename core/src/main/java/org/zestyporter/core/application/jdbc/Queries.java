package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Queries of a database's catalogue. */
final class Queries {
  private Queries() {}

  /** The first column of what a query finds; its parameters are texts. */
  static List<String> texts(Connection connection, String sql, String... parameters)
      throws SQLException {
    List<String> texts = new ArrayList<>();
    each(connection, sql, found -> texts.add(found.getString(1)), parameters);
    return texts;
  }

  /** The second columns of what a query finds, by the first; its parameters are texts. */
  static Map<String, String> pairs(Connection connection, String sql, String... parameters)
      throws SQLException {
    Map<String, String> pairs = new LinkedHashMap<>();
    each(connection, sql, found -> pairs.put(found.getString(1), found.getString(2)), parameters);
    return pairs;
  }

  /** Makes something of the row that a query stands at. */
  @FunctionalInterface
  interface Row<T> {
    T of(ResultSet found) throws SQLException;
  }

  /** What a query finds, grouped by its first column; its parameters are texts. */
  static <T> Map<String, List<T>> groups(
      Connection connection, String sql, Row<T> row, String... parameters) throws SQLException {
    Map<String, List<T>> groups = new LinkedHashMap<>();
    each(
        connection,
        sql,
        found ->
            groups.computeIfAbsent(found.getString(1), g -> new ArrayList<>()).add(row.of(found)),
        parameters);
    return groups;
  }

  /** Goes through what a query finds; its parameters are texts. */
  static void each(Connection connection, String sql, Row<?> row, String... parameters)
      throws SQLException {
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      for (int i = 0; i < parameters.length; i++) {
        query.setString(i + 1, parameters[i]);
      }
      try (ResultSet found = query.executeQuery()) {
        while (found.next()) {
          row.of(found);
        }
      }
    }
  }
}
