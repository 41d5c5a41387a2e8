package org.zestyporter.server.kill;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import org.zestyporter.core.application.jdbc.MariaServer;

/** A database server that is killed as a power cut would, and begins again with what it kept. */
abstract class KillableDatabase implements AutoCloseable {

  /** Begins to serve, also after it was killed. */
  abstract void begin() throws IOException, InterruptedException;

  abstract void kill() throws IOException;

  abstract String url();

  /** Makes the table that runs write into; some of its rows take a while. */
  abstract void makeTable(int millis) throws SQLException;

  @Override
  public abstract void close() throws IOException;

  Connection connect() throws SQLException {
    return DriverManager.getConnection(url(), KilledServer.user(url()), "");
  }

  /** PostgreSQL with its data in a folder. */
  static final class Postgres extends KillableDatabase {
    private final Path data;
    private final int port;
    private EmbeddedPostgres postgres;

    Postgres(Path data) throws IOException {
      this.data = data;
      try (ServerSocket free = new ServerSocket(0)) {
        port = free.getLocalPort();
      }
    }

    @Override
    void begin() throws IOException, InterruptedException {
      for (int i = 0; ; i++) {
        try {
          postgres =
              EmbeddedPostgres.builder()
                  .setDataDirectory(data)
                  .setCleanDataDirectory(false)
                  .setPort(port)
                  // a database that keeps what it says
                  .setServerConfig("fsync", "on")
                  .setServerConfig("synchronous_commit", "on")
                  .start();
          return;
        } catch (IOException | IllegalStateException e) {
          if (i == 20) {
            throw e;
          }
          // what was killed takes a moment to be gone
          Thread.sleep(200);
        }
      }
    }

    @Override
    void kill() throws IOException {
      long postmaster =
          Long.parseLong(Files.readAllLines(data.resolve("postmaster.pid")).get(0).strip());
      ProcessHandle.of(postmaster).ifPresent(ProcessHandle::destroyForcibly);
      try {
        postgres.close();
      } catch (IOException e) {
        // it is gone already
      }
    }

    @Override
    String url() {
      return postgres.getJdbcUrl("postgres", "postgres");
    }

    @Override
    void makeTable(int millis) throws SQLException {
      SlowTable.make(postgres, millis, "ROW.nr % 4096 = 1");
    }

    @Override
    public void close() throws IOException {
      postgres.close();
    }
  }

  /** MariaDB. */
  static final class Maria extends KillableDatabase {
    private MariaServer maria;

    @Override
    void begin() throws IOException {
      if (maria == null) {
        maria = MariaServer.start();
      } else {
        maria.begin();
      }
    }

    @Override
    void kill() {
      maria.kill();
    }

    @Override
    String url() {
      return maria.url("things");
    }

    @Override
    void makeTable(int millis) throws SQLException {
      try (Connection connection = DriverManager.getConnection(maria.url("mysql"), "root", "");
          Statement statement = connection.createStatement()) {
        statement.execute("CREATE DATABASE things");
        statement.execute(
            "CREATE TABLE things.thing (id integer AUTO_INCREMENT PRIMARY KEY,"
                + " batch integer NOT NULL, nr integer NOT NULL, name text)");
        statement.execute("USE things");
        statement.execute(
            "CREATE TRIGGER slow AFTER INSERT ON thing FOR EACH ROW"
                + " IF NEW.nr % 4096 = 1 THEN DO SLEEP("
                + millis / 1000.0
                + "); END IF");
      }
    }

    @Override
    public void close() throws IOException {
      maria.close();
    }
  }
}
