package org.zestyporter.core.database;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Values;

/**
 * A business application's database.
 *
 * <p>Records are looked up in sets, never one by one. A record's key is the list of its primary key
 * values.
 *
 * <pre>{@code
 * Database marina = Database.connect("jdbc:h2:./marina", "sa", "");
 * TableInfo vessel = marina.table("vessel");
 * marina.scan(vessel, vessel.fields(List.of("registration")), values -> …);
 * }</pre>
 */
public final class Database {
  private static final int KEYS_PER_QUERY = 500;
  private static final int FETCH_SIZE = 2_000;

  /** Hands out connections; the caller closes them. */
  @FunctionalInterface
  public interface Connections {
    Connection get() throws SQLException;
  }

  private final Connections connections;
  private final Map<String, TableInfo> known = new ConcurrentHashMap<>();
  private volatile Dialect dialect;

  public Database(Connections connections) {
    this.connections = connections;
  }

  /** A database reached through its JDBC address, one connection for each use. */
  public static Database connect(String url, String user, String password) {
    return new Database(() -> DriverManager.getConnection(url, user, password));
  }

  /** Names of all tables, in alphabetical order. */
  public List<String> tableNames() {
    return use(connection -> new Metadata(connection, dialect(connection)).tableNames());
  }

  /**
   * A table with its fields, ignoring capitals in the name. It is read once; {@link #forget} makes
   * the next call read it again.
   *
   * @throws PorterException if there is no such table, with code {@code no-such-table}
   */
  public TableInfo table(String name) {
    return known.computeIfAbsent(name, this::readTable);
  }

  private TableInfo readTable(String name) {
    return use(
        connection -> {
          Metadata metadata = new Metadata(connection, dialect(connection));
          for (String found : metadata.tableNames()) {
            if (found.equalsIgnoreCase(name)) {
              return metadata.table(found);
            }
          }
          throw PorterException.missing(
              "no-such-table",
              "The database has no table “" + name + "”. It may have been renamed or removed.");
        });
  }

  /** Drops what is known of the tables. */
  public void forget() {
    known.clear();
  }

  /** Number of records in a table. */
  public long count(TableInfo table) {
    return use(
        connection -> {
          try (PreparedStatement query =
                  connection.prepareStatement(
                      "SELECT COUNT(*) FROM " + dialect(connection).name(table));
              ResultSet found = query.executeQuery()) {
            found.next();
            return found.getLong(1);
          }
        });
  }

  /** Hands the values of some fields of every record to the consumer, as a stream. */
  public void scan(TableInfo table, List<FieldInfo> fields, Consumer<Object[]> consumer) {
    use(
        connection -> {
          connection.setAutoCommit(false);
          try {
            String sql = "SELECT " + list(fields) + " FROM " + dialect(connection).name(table);
            try (PreparedStatement query = connection.prepareStatement(sql)) {
              query.setFetchSize(FETCH_SIZE);
              read(query, fields, consumer);
            }
          } finally {
            connection.rollback();
            connection.setAutoCommit(true);
          }
          return null;
        });
  }

  /**
   * A page of records in the order of the primary key.
   *
   * @param search shows only records in which a text field holds this, ignoring capitals; null for
   *     all
   */
  public List<Object[]> page(TableInfo table, String search, long offset, int limit) {
    return use(
        connection -> {
          Dialect d = dialect(connection);
          List<FieldInfo> searched = search == null ? List.of() : searched(table);
          StringBuilder sql =
              new StringBuilder("SELECT " + list(table.fields()) + " FROM " + d.name(table));
          sql.append(where(searched));
          if (!table.primaryKey().isEmpty()) {
            sql.append(" ORDER BY ").append(list(table.fields(table.primaryKey())));
          }
          sql.append(" OFFSET ").append(offset).append(" ROWS FETCH NEXT ").append(limit);
          sql.append(" ROWS ONLY");
          List<Object[]> records = new ArrayList<>();
          try (PreparedStatement query = connection.prepareStatement(sql.toString())) {
            bindSearch(query, searched, search);
            read(query, table.fields(), records::add);
          }
          return records;
        });
  }

  /** Number of records that {@link #page} would show for a search. */
  public long count(TableInfo table, String search) {
    if (search == null) {
      return count(table);
    }
    return use(
        connection -> {
          List<FieldInfo> searched = searched(table);
          String sql = "SELECT COUNT(*) FROM " + dialect(connection).name(table) + where(searched);
          try (PreparedStatement query = connection.prepareStatement(sql)) {
            bindSearch(query, searched, search);
            try (ResultSet found = query.executeQuery()) {
              found.next();
              return found.getLong(1);
            }
          }
        });
  }

  private static List<FieldInfo> searched(TableInfo table) {
    return table.fields().stream()
        .filter(f -> f.type() == FieldType.TEXT || f.type() == FieldType.WHOLE)
        .toList();
  }

  private String where(List<FieldInfo> searched) {
    return searched.isEmpty()
        ? ""
        : searched.stream()
            .map(
                f ->
                    "LOWER(CAST("
                        + dialect.quote(f.name())
                        + " AS VARCHAR(4000))) LIKE ? ESCAPE '!'")
            .collect(Collectors.joining(" OR ", " WHERE ", ""));
  }

  private static void bindSearch(PreparedStatement query, List<FieldInfo> searched, String search)
      throws SQLException {
    for (int i = 0; i < searched.size(); i++) {
      String escaped = search.toLowerCase(java.util.Locale.ROOT).replaceAll("([!%_])", "!$1");
      query.setString(i + 1, "%" + escaped + "%");
    }
  }

  /** The records of a set of primary keys; keys without a record are left out. */
  public Map<List<Object>, Object[]> fetch(TableInfo table, Collection<List<Object>> keys) {
    return use(connection -> fetch(connection, table, keys));
  }

  Map<List<Object>, Object[]> fetch(
      Connection connection, TableInfo table, Collection<List<Object>> keys) throws SQLException {
    Map<List<Object>, Object[]> records = new HashMap<>();
    List<List<Object>> all = new ArrayList<>(keys);
    List<FieldInfo> keyFields = table.fields(table.primaryKey());
    int[] at = keyFields.stream().mapToInt(table.fields()::indexOf).toArray();
    for (int from = 0; from < all.size(); from += KEYS_PER_QUERY) {
      List<List<Object>> some = all.subList(from, Math.min(all.size(), from + KEYS_PER_QUERY));
      String sql =
          "SELECT "
              + list(table.fields())
              + " FROM "
              + dialect(connection).name(table)
              + " WHERE "
              + keyed(keyFields, some.size());
      try (PreparedStatement query = connection.prepareStatement(sql)) {
        int parameter = 1;
        for (List<Object> key : some) {
          for (int i = 0; i < keyFields.size(); i++) {
            Fields.bind(query, parameter++, keyFields.get(i), key.get(i), dialect);
          }
        }
        read(
            query,
            table.fields(),
            values -> {
              List<Object> key = new ArrayList<>(at.length);
              for (int i : at) {
                key.add(Values.key(values[i]));
              }
              records.put(key, values);
            });
      }
    }
    return records;
  }

  private String keyed(List<FieldInfo> keyFields, int count) {
    if (keyFields.size() == 1) {
      return dialect.quote(keyFields.get(0).name()) + " IN (" + "?,".repeat(count - 1) + "?)";
    }
    String one =
        keyFields.stream()
            .map(f -> dialect.quote(f.name()) + " = ?")
            .collect(Collectors.joining(" AND ", "(", ")"));
    return (one + " OR ").repeat(count - 1) + one;
  }

  private static void read(
      PreparedStatement query, List<FieldInfo> fields, Consumer<Object[]> consumer)
      throws SQLException {
    try (ResultSet found = query.executeQuery()) {
      while (found.next()) {
        Object[] values = new Object[fields.size()];
        for (int i = 0; i < values.length; i++) {
          values[i] = Fields.read(found, i + 1, fields.get(i));
        }
        consumer.accept(values);
      }
    }
  }

  /** Opens a transaction for writing; it is rolled back unless committed. */
  public WriteSession begin() {
    try {
      Connection connection = connections.get();
      connection.setAutoCommit(false);
      return new WriteSession(this, connection, dialect(connection));
    } catch (SQLException e) {
      throw DatabaseErrors.translate(e);
    }
  }

  private String list(List<FieldInfo> fields) {
    return fields.stream().map(f -> dialect.quote(f.name())).collect(Collectors.joining(", "));
  }

  private Dialect dialect(Connection connection) throws SQLException {
    Dialect found = dialect;
    if (found == null) {
      found = Dialect.of(connection.getMetaData());
      dialect = found;
    }
    return found;
  }

  private interface Use<T> {
    T with(Connection connection) throws SQLException;
  }

  private <T> T use(Use<T> use) {
    try (Connection connection = connections.get()) {
      dialect(connection);
      return use.with(connection);
    } catch (SQLException e) {
      throw DatabaseErrors.translate(e);
    }
  }
}
