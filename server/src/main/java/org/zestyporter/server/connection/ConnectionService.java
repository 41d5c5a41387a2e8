package org.zestyporter.server.connection;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import jakarta.annotation.PreDestroy;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Service;
import org.zestyporter.core.database.Database;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.web.Times;

/** The databases of business applications. */
@Service
public class ConnectionService {
  private final ConnectionMapper connections;
  private final Secrets secrets;
  private final Clock clock;
  private final Map<String, Open> open = new ConcurrentHashMap<>();

  private record Open(HikariDataSource pool, Database database) {}

  /** What may be told of a connection. */
  public record ConnectionView(String name, String shownName, String url, String user) {}

  ConnectionService(ConnectionMapper connections, Secrets secrets, Clock clock) {
    this.connections = connections;
    this.secrets = secrets;
    this.clock = clock;
  }

  public List<ConnectionView> all() {
    return connections.all().stream()
        .map(c -> new ConnectionView(c.name(), c.shownName(), c.url(), c.dbUser()))
        .toList();
  }

  /**
   * Keeps a connection after trying it.
   *
   * @throws PorterException if the name is taken or the database does not answer
   */
  public ConnectionView add(
      String name, String shownName, String url, String user, String password) {
    if (connections.find(name) != null) {
      throw new PorterException(
          PorterException.Kind.CONFLICT,
          "name-taken",
          "There is a connection “" + name + "” already.");
    }
    if (!url.startsWith("jdbc:h2:") && !url.startsWith("jdbc:postgresql:")) {
      throw PorterException.input(
          "unknown-database",
          "The address must begin with jdbc:postgresql: or jdbc:h2:; other databases are not"
              + " supported yet.");
    }
    Database.connect(url, user, password).tableNames();
    connections.insert(
        new ConnectionRecord(
            null, name, shownName, url, user, secrets.encrypt(password), Times.now(clock)));
    return new ConnectionView(name, shownName, url, user);
  }

  /**
   * The database behind a connection.
   *
   * @throws PorterException if there is no such connection
   */
  public Database database(String name) {
    return open.computeIfAbsent(name, this::open).database();
  }

  private Open open(String name) {
    ConnectionRecord connection = connections.find(name);
    if (connection == null) {
      throw PorterException.missing("no-such-connection", "There is no connection “" + name + "”.");
    }
    HikariConfig config = new HikariConfig();
    config.setJdbcUrl(connection.url());
    config.setUsername(connection.dbUser());
    config.setPassword(secrets.decrypt(connection.secret()));
    config.setMaximumPoolSize(4);
    config.setMinimumIdle(0);
    config.setConnectionTimeout(8_000);
    config.setInitializationFailTimeout(-1);
    HikariDataSource pool = new HikariDataSource(config);
    return new Open(pool, new Database(() -> lend(pool)));
  }

  /** A pool that gets no connection says so in the words of the database. */
  private static java.sql.Connection lend(HikariDataSource pool) throws SQLException {
    try {
      return pool.getConnection();
    } catch (SQLTransientConnectionException e) {
      String state = e.getCause() instanceof SQLException cause ? cause.getSQLState() : "08001";
      boolean signIn = state != null && state.startsWith("28");
      throw new SQLException(e.getMessage(), signIn ? state : "08001", e);
    }
  }

  @PreDestroy
  void close() {
    open.values().forEach(o -> o.pool().close());
  }
}
