package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;

/**
 * Tells records by where they stand (PostgreSQL's documentation, 5.6, System Columns): those that
 * one command copied in stand one behind the other, and bear the number of one part of the
 * transaction.
 */
final class PostgresPlaces {
  /** The first version that goes straight to a range of places in a table. */
  private static final int FINDS_PLACES = 14;

  private final Dialect dialect;
  private final Connection connection;
  private final TableInfo table;

  PostgresPlaces(Dialect dialect, Connection connection, TableInfo table) {
    this.dialect = dialect;
    this.connection = connection;
    this.table = table;
  }

  /**
   * A condition for records that were written one behind the other; null if they may stand
   * elsewhere.
   *
   * @param keys their primary keys, in the order in which they were written
   */
  @Nullable String together(List<List<Object>> keys) throws SQLException {
    FieldInfo key = table.field(table.primaryKey().get(0));
    boolean isTold =
        connection.getMetaData().getDatabaseMajorVersion() >= FINDS_PLACES
            && table.primaryKey().size() == 1
            && dialect.arrayOf(key) != null;
    if (!isTold) {
      return null;
    }
    String sql =
        "SELECT ctid::text, xmin::text FROM "
            + dialect.name(table)
            + " WHERE "
            + dialect.quote(key.name())
            + " IN (?, ?) ORDER BY ctid";
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      Fields.bind(query, 1, key, keys.get(0).get(0), dialect);
      Fields.bind(query, 2, key, keys.get(keys.size() - 1).get(0), dialect);
      try (ResultSet found = query.executeQuery()) {
        return between(found, keys.size());
      }
    }
  }

  /** The records from the first that was found to the last; null if many others may be between. */
  private static @Nullable String between(ResultSet found, int count) throws SQLException {
    String first = null;
    String last = null;
    String by = null;
    boolean isOne = true;
    while (found.next()) {
      last = found.getString(1);
      first = first == null ? last : first;
      isOne &= by == null || by.equals(found.getString(2));
      by = found.getString(2);
    }
    // each page holds one of them at least
    return first == null || !isOne || page(last) - page(first) > count
        ? null
        : "ctid BETWEEN '%s'::tid AND '%s'::tid AND xmin = '%s'::xid".formatted(first, last, by);
  }

  /** The number of the page that a record stands in, of a place such as (76,2). */
  private static long page(String place) {
    return Long.parseLong(place.substring(1, place.indexOf(',')));
  }
}
