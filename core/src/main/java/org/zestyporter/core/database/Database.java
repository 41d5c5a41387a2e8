package org.zestyporter.core.database;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.PorterException;

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
  private final Patience patience;
  private final Map<String, TableInfo> known;
  private final Dialect dialect;
  private final Going going;
  private final Claims claims;

  private Database(
      Connections connections,
      Patience patience,
      Dialect dialect,
      Map<String, TableInfo> known,
      Claims claims) {
    this.connections = connections;
    this.patience = patience;
    this.dialect = dialect;
    this.known = known;
    this.going = new Going(patience);
    this.claims = claims;
  }

  /**
   * A database whose connections come from elsewhere, such as a pool.
   *
   * @param address what was parsed of its address
   */
  public Database(Connections connections, Address address, Patience patience) {
    this(
        connections,
        patience,
        Dialect.of(address.product()),
        new ConcurrentHashMap<>(),
        Claims.of(address));
  }

  /**
   * A database reached through its JDBC address, one connection for each use.
   *
   * @throws PorterException if the address may not be used
   */
  public static Database connect(String url, String user, String password) {
    return connect(Address.parse(url, Address.Rules.ANYWHERE), user, password, Patience.USUAL);
  }

  /** The same, with an address that was parsed. */
  public static Database connect(Address address, String user, String password, Patience patience) {
    return new Database(
        () -> DriverManager.getConnection(address.url(), user, password), address, patience);
  }

  /** The same database for one purpose, whose statements {@link #cancel} ends. */
  public Database stoppable() {
    return new Database(connections, patience, dialect, known, claims);
  }

  /** Ends all statements that are going, and lets none begin. */
  public void cancel() {
    going.cancel();
  }

  /**
   * Names of all tables: those of the connection's own schema, then those of others with their
   * schema before them, each in alphabetical order.
   */
  public List<String> tableNames() {
    return use(connection -> List.copyOf(new Metadata(connection, dialect).tables().keySet()));
  }

  /** Names of the tables in the connection's own schema, in alphabetical order. */
  public List<String> ownTableNames() {
    return use(connection -> new Metadata(connection, dialect).ownTables());
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
          Metadata metadata = new Metadata(connection, dialect);
          Map<String, Metadata.Named> tables = metadata.tables();
          String found = nearest(name, tables.keySet());
          if (found != null) {
            return metadata.table(found, tables.get(found));
          }
          Map<String, Metadata.Named> views = metadata.views();
          String view = nearest(name, views.keySet());
          throw view == null ? noTable(name) : aView(view, metadata.shownBy(views.get(view)));
        });
  }

  /** The very name, or the only one that differs in capitals. */
  private static String nearest(String name, Collection<String> names) {
    if (names.contains(name)) {
      return name;
    }
    List<String> alike = names.stream().filter(name::equalsIgnoreCase).toList();
    return alike.size() == 1 ? alike.get(0) : null;
  }

  private static PorterException noTable(String name) {
    return PorterException.missing(
        "no-such-table",
        "The database has no table “" + name + "”. It may have been renamed or removed.");
  }

  private static PorterException aView(String name, List<String> shown) {
    return PorterException.input(
        "a-view",
        "“"
            + name
            + "” is a view: it shows records that are kept elsewhere, and can't be filled itself. "
            + (shown.isEmpty()
                ? "Choose the table that keeps them."
                : "Its records are kept in " + String.join(", ", shown) + ": choose from these."));
  }

  /** Drops what is known of the tables. */
  public void forget() {
    known.clear();
  }

  /** Number of records in a table. */
  public long count(TableInfo table) {
    return use(
        connection -> {
          String sql = "SELECT COUNT(*) FROM " + dialect.name(table);
          return going.use(connection, sql, Database::first);
        });
  }

  /** Hands the values of some fields of every record to the consumer, as a stream. */
  public void scan(TableInfo table, List<FieldInfo> fields, Consumer<Object[]> consumer) {
    use(
        connection -> {
          connection.setAutoCommit(false);
          try {
            String sql = "SELECT " + list(fields) + " FROM " + dialect.name(table);
            going.use(
                connection,
                sql,
                query -> {
                  query.setFetchSize(FETCH_SIZE);
                  return read(query, fields, consumer);
                });
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
          List<FieldInfo> searched = search == null ? List.of() : searched(table);
          StringBuilder sql =
              new StringBuilder("SELECT " + list(table.fields()) + " FROM " + dialect.name(table));
          sql.append(where(searched));
          if (!table.primaryKey().isEmpty()) {
            sql.append(" ORDER BY ").append(list(table.fields(table.primaryKey())));
          }
          sql.append(" OFFSET ").append(offset).append(" ROWS FETCH NEXT ").append(limit);
          sql.append(" ROWS ONLY");
          List<Object[]> records = new ArrayList<>();
          going.use(
              connection,
              sql.toString(),
              query -> {
                bindSearch(query, searched, search);
                return read(query, table.fields(), records::add);
              });
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
          String sql = "SELECT COUNT(*) FROM " + dialect.name(table) + where(searched);
          return going.use(
              connection,
              sql,
              query -> {
                bindSearch(query, searched, search);
                return first(query);
              });
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
    Function<Object[], List<Object>> keyOf = table.keys();
    for (int from = 0; from < all.size(); from += KEYS_PER_QUERY) {
      List<List<Object>> some = all.subList(from, Math.min(all.size(), from + KEYS_PER_QUERY));
      String sql =
          "SELECT "
              + list(table.fields())
              + " FROM "
              + dialect.name(table)
              + " WHERE "
              + keyed(keyFields, some.size());
      going.use(
          connection,
          sql,
          query -> {
            int parameter = 1;
            for (List<Object> key : some) {
              for (int i = 0; i < keyFields.size(); i++) {
                Fields.bind(query, parameter++, keyFields.get(i), key.get(i), dialect);
              }
            }
            return read(query, table.fields(), values -> records.put(keyOf.apply(values), values));
          });
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

  private static Long first(PreparedStatement query) throws SQLException {
    try (ResultSet found = query.executeQuery()) {
      found.next();
      return found.getLong(1);
    }
  }

  private static boolean read(
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
    return true;
  }

  /** Opens a transaction for writing; it is rolled back unless committed. */
  public WriteSession begin() {
    Connection connection = null;
    try {
      connection = open();
      connection.setAutoCommit(false);
      return new WriteSession(this, connection, dialect, going, claims);
    } catch (SQLException e) {
      close(connection);
      throw DatabaseErrors.translate(e);
    }
  }

  private static void close(Connection connection) {
    try {
      if (connection != null) {
        connection.close();
      }
    } catch (SQLException e) {
      // the error that led here is the one to tell
    }
  }

  /** What became of a transaction by its {@link WriteSession#mark}; null if nobody can tell. */
  public @Nullable Settled settled(String mark) {
    return use(connection -> dialect.settled(connection, mark));
  }

  private String list(List<FieldInfo> fields) {
    return fields.stream().map(f -> dialect.quote(f.name())).collect(Collectors.joining(", "));
  }

  private Connection open() throws SQLException {
    Connection connection = connections.get();
    try (Statement wait = connection.createStatement()) {
      dialect.requireThere(connection);
      wait.execute(dialect.lockWait(patience.lock().toMillis()));
      return connection;
    } catch (SQLException | RuntimeException e) {
      close(connection);
      throw e;
    }
  }

  private interface Use<T> {
    T with(Connection connection) throws SQLException;
  }

  private <T> T use(Use<T> use) {
    try (Connection connection = open()) {
      return use.with(connection);
    } catch (SQLException e) {
      throw DatabaseErrors.translate(e);
    }
  }
}
