package org.zestyporter.server.connection;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.regex.Pattern;
import javax.sql.DataSource;
import org.jspecify.annotations.Nullable;

/**
 * Connections to a database, lent and taken back. Who gets none hears why in the words of the
 * database: soon if no waiting helps, otherwise after a while.
 */
final class PatientPool implements AutoCloseable {
  /**
   * SQL states that no waiting helps against: nothing answers, the wrong password, no such
   * database. MariaDB says one of these of too many connections.
   */
  private static final Pattern FOR_GOOD = Pattern.compile("(?!08004)(?:08|28|3D)...");

  private static final long STEP_MILLIS = 1_000;
  private static final int STEPS = 8;

  private final DataSource database;
  private final HikariDataSource pool;
  private final @Nullable Path file;
  private final int steps;

  /**
   * @param most how many connections are open at a time
   * @param readOnly true if they may not write
   * @param file of the database; null if it is none in a file
   */
  PatientPool(DataSource database, int most, boolean readOnly, @Nullable Path file) {
    this(database, most, readOnly, file, STEP_MILLIS, STEPS);
  }

  PatientPool(
      DataSource database,
      int most,
      boolean readOnly,
      @Nullable Path file,
      long stepMillis,
      int steps) {
    HikariConfig config = new HikariConfig();
    config.setDataSource(database);
    config.setMaximumPoolSize(most);
    config.setReadOnly(readOnly);
    config.setMinimumIdle(0);
    config.setConnectionTimeout(stepMillis);
    config.setInitializationFailTimeout(-1);
    this.pool = new HikariDataSource(config);
    this.database = database;
    this.file = file;
    this.steps = steps;
  }

  Connection lend() throws SQLException {
    if (file != null && !Files.exists(file)) {
      // those that have the lost file open would go on with it for ever
      pool.getHikariPoolMXBean().softEvictConnections();
    }
    SQLException failed = null;
    for (int step = 0; step < steps; step++) {
      try {
        return pool.getConnection();
      } catch (SQLTransientConnectionException e) {
        if (e.getCause() instanceof SQLException said) {
          failed = said;
          if (FOR_GOOD.matcher(String.valueOf(said.getSQLState())).matches()) {
            knock();
          }
        } else if (pool.getHikariPoolMXBean().getTotalConnections() > 0) {
          failed = new SQLException("All connections to the database are in use", "53300", e);
        } else if (failed == null) {
          failed = new SQLException("The database does not answer", "08001", e);
        }
      }
    }
    throw failed;
  }

  /** Throws if the database still refuses: the pool may have been told so a while ago. */
  private void knock() throws SQLException {
    database.getConnection().close();
  }

  @Override
  public void close() {
    pool.close();
  }
}
