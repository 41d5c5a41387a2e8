package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Abilities;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.Settled;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.ToldLink;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Lately;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.ValueColumn;

/**
 * An application whose tables are reached through JDBC.
 *
 * <pre>{@code
 * Database marina = Database.connect("jdbc:h2:./marina", "sa", "");
 * TableInfo vessel = marina.table("vessel");
 * }</pre>
 */
public final class Database implements Application {
  /** Sets of links that are told for the same database at a time. */
  private static final int OTHERS = 50;

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
  private final Offer offer;

  /** The schema that its address asks for; null if it asks for none. */
  private final @Nullable String schema;

  private final Answers answers;

  private final LinkedTables tables;

  /** The same for the same purpose, with other links, each once. */
  private final Lately<List<ToldLink>, Database> others;

  private Database(
      Connections connections,
      Patience patience,
      Dialect dialect,
      Map<String, TableInfo> known,
      Claims claims,
      Offer offer,
      @Nullable String schema) {
    this.offer = offer;
    this.schema = schema;
    this.connections = connections;
    this.patience = patience;
    this.dialect = dialect;
    this.known = known;
    this.going = new Going(dialect, patience);
    this.claims = claims;
    this.answers = new Answers(dialect, going);
    this.tables = new LinkedTables(List.of(), this::declared);
    this.others = new Lately<>(OTHERS);
  }

  /** The same for the same purpose, with other links. */
  private Database(Database of, List<ToldLink> links) {
    this.offer = of.offer;
    this.schema = of.schema;
    this.connections = of.connections;
    this.patience = of.patience;
    this.dialect = of.dialect;
    this.known = of.known;
    this.going = of.going;
    this.claims = of.claims;
    this.answers = of.answers;
    this.tables = new LinkedTables(links, this::declared);
    this.others = of.others;
  }

  /**
   * A database whose connections come from elsewhere, such as a pool.
   *
   * @param address what was parsed of its address
   * @param offer what of it may be had
   */
  public Database(Connections connections, Address address, Patience patience, Offer offer) {
    this(
        connections,
        patience,
        Dialect.of(address.product()),
        new ConcurrentHashMap<>(),
        Claims.of(address),
        offer,
        address.schema());
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
    Properties told = new Properties();
    told.put("user", user);
    told.put("password", password);
    return connect(address, told, patience, Offer.ALL);
  }

  /**
   * The same.
   *
   * @param told what its driver is told, user and password among it
   * @param offer what of it may be had
   */
  public static Database connect(Address address, Properties told, Patience patience, Offer offer) {
    Dialect dialect = Dialect.of(address.product());
    return new Database(() -> dialect.connect(address.url(), told), address, patience, offer);
  }

  @Override
  public Database stoppable() {
    Database own = new Database(connections, patience, dialect, known, claims, offer, schema);
    return own.with(links());
  }

  /** The links that are told of it, beside those that it declares. */
  public List<ToldLink> links() {
    return tables.links();
  }

  @Override
  public Database with(List<ToldLink> told) {
    return told.equals(links()) ? this : others.get(told, t -> new Database(this, t));
  }

  @Override
  public void cancel() {
    going.cancel();
  }

  /** The name and version of what answers, as it calls itself. */
  public String product() {
    return use(
        connection -> {
          DatabaseMetaData meta = connection.getMetaData();
          String version = meta.getDatabaseProductVersion().replaceFirst("[ (+-].*", "");
          return meta.getDatabaseProductName() + " " + version;
        });
  }

  private Metadata metadata(Connection connection) throws SQLException {
    Metadata metadata = new Metadata(connection, dialect, offer);
    if (schema != null && !metadata.hasHome()) {
      throw ErrorCode.DATABASE_MISSING.error(
          "The database has no schema “" + schema + "”, or its user may not look into it.");
    }
    return metadata;
  }

  @Override
  public List<String> tableNames() {
    return use(connection -> List.copyOf(metadata(connection).tables().keySet()));
  }

  @Override
  public List<String> ownTableNames() {
    return use(connection -> metadata(connection).ownTables());
  }

  @Override
  public TableInfo table(String name) {
    return tables.table(name);
  }

  private TableInfo declared(String name) {
    return known.computeIfAbsent(name, this::readTable);
  }

  @Override
  public void read(Collection<String> names) {
    if (known.keySet().containsAll(names)) {
      return;
    }
    use(
        connection -> {
          Metadata metadata = metadata(connection);
          for (String name : names) {
            try {
              if (!known.containsKey(name)) {
                known.put(name, readTable(connection, metadata, name));
              }
            } catch (PorterException e) {
              // who asks for it is told
            }
          }
          return null;
        });
  }

  private TableInfo readTable(String name) {
    return use(c -> readTable(c, metadata(c), name));
  }

  private TableInfo readTable(Connection connection, Metadata metadata, String name)
      throws SQLException {
    Map<String, Metadata.Named> tables = metadata.tables();
    String found = nearest(name, tables.keySet());
    if (found != null) {
      Metadata.Named named = tables.get(found);
      dialect.requireFillable(connection, named.schema(), named.relation());
      return metadata.table(found, named);
    }
    Map<String, Metadata.Named> views = metadata.views();
    String view = nearest(name, views.keySet());
    throw view == null ? noTable(name, offer) : aView(view, metadata.shownBy(views.get(view)));
  }

  /** The very name, or the only one that differs in capitals. */
  private static String nearest(String name, Collection<String> names) {
    if (names.contains(name)) {
      return name;
    }
    List<String> alike = names.stream().filter(name::equalsIgnoreCase).toList();
    return alike.size() == 1 ? alike.get(0) : null;
  }

  private static PorterException noTable(String name, Offer offer) {
    return ErrorCode.NO_SUCH_TABLE.error(
        "The database has no table “"
            + name
            + (offer.tables().isEmpty() ? "”." : "” that this connection offers."));
  }

  private static PorterException aView(String name, List<String> shown) {
    return ErrorCode.A_VIEW.error(
        "“"
            + name
            + "” is a view: it shows records that are kept elsewhere, and can't be filled"
            + " itself. "
            + (shown.isEmpty()
                ? "Choose the table that keeps them."
                : "Its records are kept in " + String.join(", ", shown) + ": choose from these."));
  }

  @Override
  public void forget() {
    known.clear();
    tables.forget();
    others.clear();
  }

  @Override
  public Abilities abilities() {
    return offer.readOnly() ? dialect.abilities().forReading() : dialect.abilities();
  }

  @Override
  public void look(Ask ask, Consumer<ValueColumn[]> found) {
    use(
        connection -> {
          connection.setAutoCommit(false);
          try {
            answers.look(connection, ask, found);
          } finally {
            connection.rollback();
            connection.setAutoCommit(true);
          }
          return null;
        });
  }

  @Override
  public @Nullable String missingIndex(TableInfo table, List<FieldInfo> by) {
    Indexes indexes = new Indexes(dialect, table);
    return use(connection -> indexes.lead(connection, by) ? null : indexes.statement(by));
  }

  @Override
  public List<Object[]> page(TableInfo table, @Nullable String search, long offset, int limit) {
    return use(
        connection -> {
          List<FieldInfo> searched = search == null ? List.of() : searched(table, search);
          StringBuilder sql =
              new StringBuilder(
                  "SELECT " + answers.list(table.fields()) + " FROM " + dialect.name(table));
          sql.append(search == null ? "" : where(searched));
          if (!table.primaryKey().isEmpty()) {
            sql.append(" ORDER BY ").append(answers.list(table.fields(table.primaryKey())));
          }
          sql.append(" LIMIT ").append(limit).append(" OFFSET ").append(offset);
          List<Object[]> records = new ArrayList<>();
          going.use(
              connection,
              sql.toString(),
              query -> {
                bindSearch(query, searched, search);
                return answers.read(query, table.fields(), records::add);
              });
          return records;
        });
  }

  @Override
  public long count(TableInfo table, @Nullable String search) {
    if (search == null) {
      return use(connection -> answers.count(connection, table));
    }
    return use(
        connection -> {
          List<FieldInfo> searched = searched(table, search);
          String sql = "SELECT COUNT(*) FROM " + dialect.name(table) + where(searched);
          return going.use(
              connection,
              sql,
              query -> {
                bindSearch(query, searched, search);
                return Answers.first(query);
              });
        });
  }

  private static List<FieldInfo> searched(TableInfo table, String search) {
    return table.fields().stream()
        .filter(f -> f.type() == FieldType.TEXT || f.type() == FieldType.WHOLE)
        .filter(f -> f.hasLettersOf(search))
        .toList();
  }

  private String where(List<FieldInfo> searched) {
    return searched.isEmpty()
        ? " WHERE 1 = 0"
        : searched.stream()
            .map(f -> "LOWER(" + dialect.asText(dialect.quote(f.name())) + ") LIKE ? ESCAPE '!'")
            .collect(Collectors.joining(" OR ", " WHERE ", ""));
  }

  private static void bindSearch(PreparedStatement query, List<FieldInfo> searched, String search)
      throws SQLException {
    for (int i = 0; i < searched.size(); i++) {
      String escaped = search.toLowerCase(java.util.Locale.ROOT).replaceAll("([!%_])", "!$1");
      query.setString(i + 1, "%" + escaped + "%");
    }
  }

  @Override
  public Records fetch(TableInfo table, Collection<List<Object>> keys) {
    return use(connection -> answers.fetch(connection, table, table.fields(), keys));
  }

  @Override
  public WriteSession begin(String name) {
    Connection connection = null;
    try {
      connection = open();
      connection.setAutoCommit(false);
      return new JdbcSession(answers, connection, dialect, going, claims, name);
    } catch (SQLException e) {
      close(connection);
      throw dialect.errors().translate(e);
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

  @Override
  public @Nullable Settled settled(String mark) {
    return use(connection -> dialect.settled(connection, mark));
  }

  private Connection open() throws SQLException {
    Connection connection = connections.get();
    try (Statement wait = connection.createStatement()) {
      dialect.requireThere(connection);
      for (String setting : dialect.settings(patience.lock().toMillis())) {
        wait.execute(setting);
      }
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
      throw dialect.errors().translate(e);
    }
  }
}
