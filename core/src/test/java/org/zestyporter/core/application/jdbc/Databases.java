package org.zestyporter.core.application.jdbc;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.stream.Stream;
import org.junit.jupiter.api.Assumptions;

/** Real databases for tests: one server for the suite, a schema of its own for each test. */
public final class Databases {
  /** Lets a machine do without a database server that could not be had. */
  private static EmbeddedPostgres postgres;

  private static MariaServer maria;

  private Databases() {}

  /** A database of one kind with a fresh schema. */
  public record Fresh(String name, Database database, Connection connection)
      implements AutoCloseable {

    public void execute(String... statements) throws SQLException {
      try (Statement statement = connection.createStatement()) {
        for (String sql : statements) {
          statement.execute(inItsWords(sql));
        }
      }
    }

    /** What is written for PostgreSQL and H2, where this database has other words for it. */
    private String inItsWords(String sql) {
      return switch (name) {
        case "MariaDB" ->
            sql.replaceAll("(?i)GENERATED (BY DEFAULT|ALWAYS) AS IDENTITY", "AUTO_INCREMENT")
                .replaceAll("(?i)CONSTRAINT \\w+ CHECK", "CHECK");
        case "SQLite" ->
            sql.replaceAll(
                    "(?i)(integer|bigint|int) GENERATED (BY DEFAULT|ALWAYS) AS IDENTITY PRIMARY KEY",
                    "INTEGER PRIMARY KEY AUTOINCREMENT")
                .replaceAll("(?i)\\b(DATE|TIMESTAMP|TIME) '", "'");
        default -> sql;
      };
    }

    /** True if comments are statements of their own. */
    public boolean hasComments() {
      return name.equals("PostgreSQL") || name.equals("H2");
    }

    /** The first column of the first row. */
    public Object one(String sql) throws SQLException {
      try (Statement statement = connection.createStatement();
          var found = statement.executeQuery(sql)) {
        Object value = found.next() ? found.getObject(1) : null;
        boolean counts = value instanceof Integer && sql.contains("COUNT(");
        return counts ? Long.valueOf(((Integer) value).longValue()) : value;
      }
    }

    /** All that a query finds, a text for each row. */
    public List<String> rows(String sql) throws SQLException {
      List<String> rows = new ArrayList<>();
      try (Statement statement = connection.createStatement();
          var found = statement.executeQuery(sql)) {
        while (found.next()) {
          StringBuilder row = new StringBuilder();
          for (int c = 1; c <= found.getMetaData().getColumnCount(); c++) {
            row.append(found.getString(c)).append(';');
          }
          rows.add(row.toString());
        }
      }
      return rows;
    }

    /** A statement whose names stand in {@code <>}, as the database quotes them. */
    public String quoted(String sql) {
      boolean ticks = name.equals("MariaDB");
      return sql.replaceAll("<(?=[^ ])([^<>]*)>", ticks ? "`$1`" : "\"$1\"");
    }

    /** Another one of the same kind. */
    public Fresh another() throws SQLException {
      return switch (name) {
        case "H2" -> h2();
        case "PostgreSQL" -> postgres();
        case "SQLite" -> sqlite();
        default -> maria();
      };
    }

    @Override
    public void close() throws SQLException {
      connection.close();
    }

    @Override
    public String toString() {
      return name;
    }
  }

  /** One of each kind, for parameterised tests. */
  public static Stream<Fresh> all() throws SQLException {
    Stream<Fresh> own = Stream.of(h2(), postgres(), sqlite());
    if (!MariaServer.isWanted()) {
      return own;
    }
    return Stream.concat(own, Stream.of(maria()));
  }

  public static Fresh sqlite() throws SQLException {
    try {
      Path file = Files.createTempFile("test", ".db");
      file.toFile().deleteOnExit();
      String url = "jdbc:sqlite:" + file;
      return new Fresh(
          "SQLite", Database.connect(url, "", ""), DriverManager.getConnection(url, "", ""));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  public static synchronized Fresh maria() throws SQLException {
    Assumptions.assumeTrue(MariaServer.isWanted(), "without MariaDB");
    try {
      if (maria == null) {
        maria = MariaServer.start();
        Runtime.getRuntime().addShutdownHook(new Thread(maria::kill));
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    String name = "t" + UUID.randomUUID().toString().replace("-", "");
    try (Connection connection = DriverManager.getConnection(maria.url("mysql"), "root", "");
        Statement statement = connection.createStatement()) {
      statement.execute("CREATE DATABASE " + name);
    }
    String url = maria.url(name);
    return new Fresh(
        "MariaDB",
        Database.connect(url, "root", ""),
        DriverManager.getConnection(url + "?sessionVariables=sql_mode='ANSI_QUOTES'", "root", ""));
  }

  public static Fresh h2() throws SQLException {
    String url = "jdbc:h2:mem:" + UUID.randomUUID() + ";DATABASE_TO_LOWER=TRUE;DB_CLOSE_DELAY=-1";
    return new Fresh(
        "H2", Database.connect(url, "sa", ""), DriverManager.getConnection(url, "sa", ""));
  }

  public static synchronized Fresh postgres() throws SQLException {
    try {
      if (postgres == null) {
        postgres = EmbeddedPostgres.builder().start();
        Runtime.getRuntime().addShutdownHook(new Thread(Databases::stop));
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    String schema = "t" + UUID.randomUUID().toString().replace("-", "");
    try (Connection connection = postgres.getPostgresDatabase().getConnection();
        Statement statement = connection.createStatement()) {
      statement.execute("CREATE SCHEMA " + schema);
    }
    String url = postgres.getJdbcUrl("postgres", "postgres") + "&currentSchema=" + schema;
    return new Fresh(
        "PostgreSQL",
        Database.connect(url, "postgres", "postgres"),
        DriverManager.getConnection(url, "postgres", "postgres"));
  }

  /** Databases whose tables can be made with the letters of western Europe alone. */
  public static Stream<Fresh> withFewLetters() throws SQLException {
    String name = "t" + UUID.randomUUID().toString().replace("-", "");
    try (Fresh any = postgres()) {
      any.execute("CREATE DATABASE " + name + " ENCODING 'WIN1252' LOCALE 'C' TEMPLATE template0");
    }
    String url = postgres.getJdbcUrl("postgres", name);
    Fresh own =
        new Fresh(
            "PostgreSQL",
            Database.connect(url, "postgres", "postgres"),
            DriverManager.getConnection(url, "postgres", "postgres"));
    return MariaServer.isWanted() ? Stream.of(own, maria()) : Stream.of(own);
  }

  private static void stop() {
    try {
      postgres.close();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
