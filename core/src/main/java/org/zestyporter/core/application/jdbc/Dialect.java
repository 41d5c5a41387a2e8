package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Abilities;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.Settled;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** What differs between databases; each dialect overrides only that. */
interface Dialect {

  /** The texts of a table's check constraints, by the constraints' names. */
  Map<String, String> checkTexts(Connection connection, String schema, String table)
      throws SQLException;

  /** How its check constraints are to be understood. */
  default SqlRule.Ways ways() {
    return new SqlRule.Ways(false, false);
  }

  /** What else of a table only the database knows, in a few words each. */
  List<String> ruleTexts(Connection connection, String schema, String table) throws SQLException;

  /** Reads the types of tables' fields; what several have in common is read once. */
  @FunctionalInterface
  interface Types {
    /** The types of a table's fields by the fields' names. */
    Map<String, NativeType> of(String schema, String table) throws SQLException;
  }

  Types types(Connection connection);

  /** Schemas of the database's own. */
  boolean isSystemSchema(String schema);

  /**
   * The statements by which a session is set up.
   *
   * @param lockMillis how long it waits for a lock
   */
  List<String> settings(long lockMillis);

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
    return new Abilities(true, true, false, true, true);
  }

  /** A value in the form in which the driver is given it. */
  default Object bound(FieldInfo field, Object value) {
    return value;
  }

  /** True if the database compares the field's values no more strictly than we do. */
  default boolean canBeKey(FieldInfo field) {
    return switch (field.storage().kind()) {
      case TEXT -> !openTyped(field);
      case PADDED, CASELESS, NUMBER, DATE, MOMENT, UUID -> true;
      default -> false;
    };
  }

  /** False for a value that no record can hold, and that the database would refuse to look for. */
  default boolean canAsk(FieldInfo field, Object value) {
    return true;
  }

  /** Prepares a query whose records will be {@link #read} by column. */
  default void toRead(PreparedStatement query) throws SQLException {
    // values are asked for one by one
  }

  /** A value of the record that a query stands at; a text if it is none of the field's type. */
  default @Nullable Object value(ResultSet found, int column, FieldInfo field) throws SQLException {
    return Fields.read(found, column, field);
  }

  /** Reads a value of the record that a query stands at into a column. */
  default void read(ResultSet found, int column, FieldInfo field, ColumnMaker into)
      throws SQLException {
    into.put(value(found, column, field));
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

  /** A field of a foreign key, and the field of another table that it points at. */
  record Pointer(String field, @Nullable String schema, String table, String to) {}

  /** The foreign keys of a table, each with its fields. */
  default Collection<List<Pointer>> foreignKeys(
      Connection connection, String catalog, String schema, String table) throws SQLException {
    Map<String, List<Pointer>> keys = new LinkedHashMap<>();
    try (ResultSet imported = connection.getMetaData().getImportedKeys(catalog, schema, table)) {
      while (imported.next()) {
        keys.computeIfAbsent(imported.getString("FK_NAME"), n -> new ArrayList<>())
            .add(
                new Pointer(
                    imported.getString("FKCOLUMN_NAME"),
                    imported.getString("PKTABLE_SCHEM"),
                    imported.getString("PKTABLE_NAME"),
                    imported.getString("PKCOLUMN_NAME")));
      }
    }
    return keys.values();
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

  /** The fields with which indexes of a table begin that are over all of its records. */
  default Set<String> indexed(Connection connection, TableInfo table) throws SQLException {
    return indexed(connection, connection.getCatalog(), table.schema(), table.relation());
  }

  /** The same of a table by its names, as the driver wants them. */
  default Set<String> indexed(
      Connection connection, @Nullable String catalog, @Nullable String schema, String relation)
      throws SQLException {
    Set<String> seen = new HashSet<>();
    Set<String> first = new HashSet<>();
    try (ResultSet index =
        connection.getMetaData().getIndexInfo(catalog, schema, relation, false, true)) {
      while (index.next()) {
        String field = index.getString("COLUMN_NAME");
        boolean whole = index.getString("FILTER_CONDITION") == null;
        // the fields of an index come in their order
        if (field != null && seen.add(index.getString("INDEX_NAME")) && whole) {
          first.add(field);
        }
      }
    }
    return first;
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

  /**
   * Throws if nothing can be brought into a table.
   *
   * @throws PorterException saying why
   */
  default void requireFillable(Connection connection, String schema, String table)
      throws SQLException {
    // every table can be filled
  }

  /** Lets go of what was claimed and does not end with the transaction. */
  default void release(Connection connection) throws SQLException {
    // it does
  }

  /** Limits how long a statement may take. */
  default void limit(Statement statement, int seconds) throws SQLException {
    statement.setQueryTimeout(seconds);
  }

  /** What a field is written as to be searched as a text. */
  default String asText(String expression) {
    return "CAST(" + expression + " AS VARCHAR(4000))";
  }

  /** What follows the table's name to insert a record that has defaults only. */
  default String onlyDefaults() {
    return " DEFAULT VALUES";
  }

  /**
   * What a transaction begins with, so that rules which a database keeps for the commit are checked
   * with each statement, while it is known which records it was about. Rules that may judge several
   * records together are not among them.
   */
  default List<String> checkingAtOnce(Connection connection) throws SQLException {
    return List.of();
  }

  /** Looks after links that {@link #checkingAtOnce} has no say in. */
  default LinkCheck linkCheck(Connection connection) throws SQLException {
    return LinkCheck.NONE;
  }

  /**
   * Has the database check now what it keeps for the commit.
   *
   * @throws SQLException if it refuses, as the commit would
   */
  default void checkAll(Connection connection) throws SQLException {
    // most keep nothing
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

  /** True if {@code DEFAULT} can stand among the values of several records. */
  default boolean takesDefaults() {
    return false;
  }

  /** True if the database goes in this process, so that many statements cost hardly more. */
  default boolean isNear() {
    return false;
  }

  /**
   * Inserts records in a way other than by statements that tell the keys they made; it must give
   * and leave the same.
   *
   * @return the primary key of each, in their order, fewer if some were not kept; null if there is
   *     no such way for these
   */
  default @Nullable List<List<Object>> insert(Load load) throws SQLException {
    return null;
  }

  /** How many records are written at once. */
  default Copying copying(Connection connection, Going going) {
    return Copying.NONE;
  }

  /**
   * A condition for records that were written one behind the other, and for no others, so that the
   * database need not look for each of them; null if there is none, or they may stand elsewhere.
   *
   * @param keys their primary keys
   */
  default @Nullable String together(Connection connection, TableInfo table, List<List<Object>> keys)
      throws SQLException {
    return null;
  }

  /** The expression that adds up the values of a field. */
  default String sum(String field) {
    return "SUM(" + field + ")";
  }

  /** What the values of a field add up to, by what the database says of it. */
  default BigDecimal sum(BigDecimal told, FieldInfo field) {
    return told;
  }

  /** True if a value that was written into the field stands there as it was given. */
  default boolean keeps(FieldInfo field) {
    return switch (field.storage().kind()) {
      case NUMBER, DATE, BOOLEAN, UUID, PADDED, CASELESS, MOMENT, TIME -> true;
      case TEXT -> field.choices() == null;
      default -> false;
    };
  }

  /**
   * True if nothing of the database's own, such as a trigger, changes the records that are written
   * into a table.
   */
  default boolean isUntouched(Connection connection, TableInfo table) throws SQLException {
    return false;
  }

  default String quote(String identifier) {
    return '"' + identifier.replace("\"", "\"\"") + '"';
  }

  default String name(TableInfo table) {
    return table.schema() == null
        ? quote(table.relation())
        : quote(table.schema()) + "." + quote(table.relation());
  }

  /** Why a record was refused, as far as the database tells. */
  default Breach breach(SQLException e) {
    return Breach.of(e);
  }

  /** What its connections are made by: no other driver has to be there, or sees the address. */
  Driver driver() throws SQLException;

  /** Makes a connection. */
  default Connection connect(String url, Properties told) throws SQLException {
    Connection connection = driver().connect(url, told);
    if (connection == null) {
      throw new SQLException("the driver does not know what to do with " + url, "08001");
    }
    return connection;
  }

  /**
   * The dialect of a database.
   *
   * @throws PorterException if it is not a supported one
   */
  static Dialect of(String product) {
    return switch (product) {
      case "PostgreSQL" -> new PostgresDialect();
      case "H2" -> new H2Dialect();
      case "MariaDB" -> new MariaDialect();
      case "SQLite" -> new SqliteDialect();
      default ->
          throw ErrorCode.UNKNOWN_DATABASE.error(
              product + " is not supported yet; " + Address.SUPPORTED + " are.");
    };
  }
}
