package org.zestyporter.server.store;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Locale;
import javax.sql.DataSource;
import org.springframework.jdbc.datasource.DelegatingDataSource;

/**
 * Our own store, made durable: when a change is answered, it is on the disk and outlives a power
 * cut. H2 by itself writes what was committed up to half a second later in a thread of its own, and
 * leaves it to the operating system when it reaches the disk. With that thread on, a change that it
 * has taken up but not yet written is passed over by {@code CHECKPOINT SYNC}; so it is off, and
 * every change is written by whoever makes it.
 */
final class DurableDataSource extends DelegatingDataSource {
  private static final String SUFFIX = ".mv.db";

  DurableDataSource(DataSource pool) {
    super(pool);
  }

  /** The address of the store in a file, whose name ends in {@code .mv.db}. */
  static String url(Path file) {
    String path = file.toAbsolutePath().toString();
    return "jdbc:h2:file:" + path.substring(0, path.length() - SUFFIX.length()) + ";WRITE_DELAY=0";
  }

  @Override
  public Connection getConnection() throws SQLException {
    return (Connection)
        Proxy.newProxyInstance(
            getClass().getClassLoader(),
            new Class<?>[] {Connection.class},
            new Durable(super.getConnection())::call);
  }

  /** A connection that brings its changes to the disk before it says that they are made. */
  private static final class Durable {
    private final Connection connection;
    private boolean changed;

    Durable(Connection connection) {
      this.connection = connection;
    }

    Object call(Object proxy, java.lang.reflect.Method method, Object[] arguments)
        throws Throwable {
      switch (method.getName()) {
        case "prepareStatement", "prepareCall" -> changed |= changes((String) arguments[0]);
        case "createStatement" -> changed = true;
        case "close" -> {
          if (!connection.isClosed() && connection.getAutoCommit()) {
            toDisk();
          }
        }
        default -> {
          // nothing that changes records
        }
      }
      try {
        Object result = method.invoke(connection, arguments);
        if (method.getName().equals("commit")) {
          toDisk();
        }
        return result;
      } catch (InvocationTargetException e) {
        throw e.getCause();
      }
    }

    private static boolean changes(String sql) {
      String words = sql.strip().toUpperCase(Locale.ROOT);
      return !words.startsWith("SELECT") || words.contains("FINAL TABLE");
    }

    private void toDisk() throws SQLException {
      if (changed) {
        changed = false;
        try (Statement sync = connection.createStatement()) {
          sync.execute("CHECKPOINT SYNC");
        }
      }
    }
  }
}
