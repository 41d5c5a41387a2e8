package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Abilities;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.Settled;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** What differs between databases; each dialect overrides only that. */
interface Dialect {

  /** The query for the texts of a table's check constraints; parameters are schema and table. */
  String checkQuery();

  /** The types of a table's fields by the fields' names. */
  Map<String, NativeType> types(Connection connection, String schema, String table)
      throws SQLException;

  /** Schemas of the database's own. */
  boolean isSystemSchema(String schema);

  /** The statement that limits how long this session waits for a lock. */
  String lockWait(long millis);

  /** The database's errors in the user's words. */
  DatabaseErrors errors();

  /** True if the text of a value must be handed over with its type left open. */
  default boolean openTyped(FieldInfo field) {
    return false;
  }

  /**
   * The element type of an array by which a set of the field's values can be handed over at once;
   * null if there is none.
   */
  default @Nullable String arrayOf(FieldInfo field) {
    return null;
  }

  /** What the database is able to do. */
  default Abilities abilities() {
    return new Abilities(true, true, false, true);
  }

  /** Prepares a query whose records will be {@link #read} by column. */
  default void toRead(PreparedStatement query) throws SQLException {
    // values are asked for one by one
  }

  /** Reads a value of the record that a query stands at. */
  default void read(ResultSet found, int column, FieldInfo field, ColumnMaker into)
      throws SQLException {
    into.put(Fields.read(found, column, field));
  }

  /** True if JSON must be handed over as bytes, since as a text it would become a JSON string. */
  default boolean jsonAsBytes() {
    return false;
  }

  /** The tables whose records a view shows, as far as the database tells. */
  default List<String> shownBy(Connection connection, String schema, String view)
      throws SQLException {
    return List.of();
  }

  /** Sets of fields that identify a record, the primary key among them. */
  default List<List<String>> uniques(
      Connection connection, String catalog, String schema, String table) throws SQLException {
    Map<String, List<String>> indexes = new LinkedHashMap<>();
    try (ResultSet index =
        connection.getMetaData().getIndexInfo(catalog, schema, table, true, true)) {
      while (index.next()) {
        String field = index.getString("COLUMN_NAME");
        String partial = index.getString("FILTER_CONDITION");
        if (field != null && partial == null) {
          indexes.computeIfAbsent(index.getString("INDEX_NAME"), n -> new ArrayList<>()).add(field);
        }
      }
    }
    return List.copyOf(indexes.values());
  }

  /**
   * Claims tables for a transaction, so that no other one of ours writes into them meanwhile.
   *
   * @param exclusive tables that are written
   * @param shared tables that records are looked up in
   * @return false if another one has them; the transaction goes on then
   */
  default boolean claim(Connection connection, Set<String> exclusive, Set<String> shared)
      throws SQLException {
    return true;
  }

  /** What tells this transaction from all others, even after a crash; null if nothing does. */
  default @Nullable String mark(Connection connection) throws SQLException {
    return null;
  }

  /** What became of a transaction by its mark; null if the database can't tell. */
  default @Nullable Settled settled(Connection connection, String mark) throws SQLException {
    return null;
  }

  /**
   * Brings what was just committed to the disk, where the database has not done so by itself.
   *
   * @throws SQLException if nobody can tell whether it is there
   */
  default void makeLasting(Connection connection) throws SQLException {
    // a server has done so before it answered
  }

  /**
   * Throws if the database behind a connection is no longer where it was.
   *
   * @throws PorterException with code {@code database-lost}
   */
  default void requireThere(Connection connection) throws SQLException {
    // a server tells by itself
  }

  /** Inserts many records at once, all with the same fields. */
  @FunctionalInterface
  interface BulkInsert {
    /**
     * @return the primary key of each, in their order
     */
    List<List<Object>> insert(List<WriteSession.Change> changes) throws SQLException;
  }

  /**
   * A faster way into a table than statements; it must give and leave the same.
   *
   * @param changes what it is wanted for
   * @return null if there is none for these
   */
  default @Nullable BulkInsert bulkInsert(
      Connection connection,
      TableInfo table,
      List<FieldInfo> fields,
      List<WriteSession.Change> changes)
      throws SQLException {
    return null;
  }

  default String quote(String identifier) {
    return '"' + identifier.replace("\"", "\"\"") + '"';
  }

  default String name(TableInfo table) {
    return table.schema() == null
        ? quote(table.relation())
        : quote(table.schema()) + "." + quote(table.relation());
  }

  /** The query for what else of a table only the database knows; parameters as before. */
  String ownRulesQuery();

  /** Rules of a table that only the database knows, in a few words each. */
  default List<String> ownRules(Connection connection, String schema, String table)
      throws SQLException {
    List<String> rules = new ArrayList<>();
    for (String query : List.of(checkQuery(), ownRulesQuery())) {
      boolean check = query.equals(checkQuery());
      try (PreparedStatement statement = connection.prepareStatement(query)) {
        statement.setString(1, schema);
        statement.setString(2, table);
        try (ResultSet found = statement.executeQuery()) {
          while (found.next()) {
            String rule = found.getString(1);
            if (!check || CheckRule.parse(rule) == null) {
              rules.add(rule);
            }
          }
        }
      }
    }
    return rules;
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

  /**
   * The dialect of a database.
   *
   * @throws PorterException if it is not a supported one
   */
  static Dialect of(DatabaseMetaData metadata) throws SQLException {
    return of(metadata.getDatabaseProductName());
  }

  static Dialect of(String product) {
    return switch (product) {
      case "PostgreSQL" -> new PostgresDialect();
      case "H2" -> new H2Dialect();
      default ->
          throw ErrorCode.UNKNOWN_DATABASE.error(
              product + " is not supported yet; PostgreSQL and H2 are.");
    };
  }
}
