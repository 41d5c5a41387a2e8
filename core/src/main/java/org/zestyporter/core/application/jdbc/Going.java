package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.zestyporter.core.value.ErrorCode;

/** The statements that are going for one purpose, so that all of them can be ended together. */
final class Going {
  private final Set<Statement> statements = ConcurrentHashMap.newKeySet();
  private final Dialect dialect;
  private final int seconds;
  private volatile boolean cancelled;

  Going(Dialect dialect, Patience patience) {
    this.dialect = dialect;
    this.seconds = (int) Math.min(Integer.MAX_VALUE, Math.max(1, patience.statement().toSeconds()));
  }

  /** What is done with a statement. */
  interface Use<T> extends Deed<PreparedStatement, T> {}

  /** What is done with a statement of any kind. */
  interface Deed<S extends Statement, T> {
    T with(S statement) throws SQLException;
  }

  /** Makes a statement. */
  interface Make {
    PreparedStatement from(Connection connection) throws SQLException;
  }

  <T> T use(Connection connection, String sql, Use<T> use) throws SQLException {
    return use(connection, c -> c.prepareStatement(sql), use);
  }

  /** Uses a statement that {@link #cancel} can end at any time. */
  <T> T use(Connection connection, Make make, Use<T> use) throws SQLException {
    return using(make.from(connection), use);
  }

  /** The same with any statement, which is closed then. */
  <S extends Statement, T> T using(S made, Deed<S, T> use) throws SQLException {
    try (S statement = made) {
      dialect.limit(statement, seconds);
      statements.add(statement);
      try {
        if (cancelled) {
          throw ErrorCode.DATABASE_CANCELLED.error("It was stopped.");
        }
        return use.with(statement);
      } finally {
        statements.remove(statement);
      }
    }
  }

  /** Ends what is going, and whatever would begin. */
  void cancel() {
    cancelled = true;
    for (Statement statement : statements) {
      try {
        statement.cancel();
      } catch (SQLException e) {
        // it has ended by itself
      }
    }
  }
}
