package org.zestyporter.core.application.jdbc;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.UUID;
import java.util.stream.Stream;

/** Real databases for tests: one server for the suite, a schema of its own for each test. */
public final class Databases {
  private static EmbeddedPostgres postgres;

  private Databases() {}

  /** A database of one kind with a fresh schema. */
  public record Fresh(String name, Database database, Connection connection)
      implements AutoCloseable {

    public void execute(String... statements) throws SQLException {
      try (Statement statement = connection.createStatement()) {
        for (String sql : statements) {
          statement.execute(sql);
        }
      }
    }

    /** The first column of the first row. */
    public Object one(String sql) throws SQLException {
      try (Statement statement = connection.createStatement();
          var found = statement.executeQuery(sql)) {
        return found.next() ? found.getObject(1) : null;
      }
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
    return Stream.of(h2(), postgres());
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

  private static void stop() {
    try {
      postgres.close();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
