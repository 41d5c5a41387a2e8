package org.zestyporter.server.connection;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Properties;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.datasource.DriverManagerDataSource;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.zestyporter.core.application.jdbc.Address;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.Settings;
import org.zestyporter.server.web.Deletion;
import org.zestyporter.server.web.Times;

/** The databases of business applications. */
@Service
public class ConnectionService {

  private final ConnectionMapper connections;
  private final CheckMapper checks;
  private final Secrets secrets;
  private final Settings settings;
  private final Authorities authorities;
  private final ObjectProvider<UsesConnections> users;
  private final ApplicationEventPublisher events;
  private final Clock clock;
  private final Map<String, Open> open = new ConcurrentHashMap<>();

  private record Open(PatientPool pool, Database database) {}

  /** What may be told of a connection. */
  public record ConnectionView(
      String name, String shownName, String url, String user, ConnectionSettings settings) {}

  /**
   * A connection as it is to be.
   *
   * @param password null if it stays as it was
   */
  public record Wanted(
      String shownName,
      String url,
      String user,
      @Nullable String password,
      ConnectionSettings settings) {}

  /** Tells that a connection is new, or leads elsewhere than before. */
  public record Kept(String name) {}

  /**
   * What a database said of itself when it was tried.
   *
   * @param database its product and version
   * @param tables number of tables that can be filled
   */
  public record Tried(String database, int tables) {}

  ConnectionService(
      ConnectionMapper connections,
      CheckMapper checks,
      Secrets secrets,
      Settings settings,
      Authorities authorities,
      ObjectProvider<UsesConnections> users,
      ApplicationEventPublisher events,
      Clock clock) {
    this.connections = connections;
    this.checks = checks;
    this.secrets = secrets;
    this.settings = settings;
    this.authorities = authorities;
    this.users = users;
    this.events = events;
    this.clock = clock;
  }

  public List<ConnectionView> all() {
    return connections.all().stream()
        .map(c -> new ConnectionView(c.name(), c.shownName(), c.url(), c.dbUser(), settings(c)))
        .toList();
  }

  /** Names of those that may be written to, the newest first. */
  public List<String> newestWritable() {
    return connections.newest().stream()
        .filter(c -> !settings(c).readOnly())
        .map(ConnectionRecord::name)
        .toList();
  }

  /**
   * Keeps a connection after trying it.
   *
   * @throws PorterException if the address is not allowed, the name is taken or the database does
   *     not answer
   */
  public ConnectionView add(String name, Wanted wanted) {
    if (connections.find(name) != null) {
      throw ErrorCode.NAME_TAKEN.error("There is a connection “" + name + "” already.");
    }
    Address address = Address.parse(wanted.url(), settings.addressRules());
    String password = wanted.password() == null ? "" : wanted.password();
    tryOut(address, wanted.user(), password, wanted.settings());
    connections.insert(
        new ConnectionRecord(
            null,
            name,
            wanted.shownName(),
            address.shown(),
            wanted.user(),
            secrets.encrypt(password),
            Times.now(clock),
            json(wanted.settings())));
    events.publishEvent(new Kept(name));
    return new ConnectionView(
        name, wanted.shownName(), address.shown(), wanted.user(), wanted.settings());
  }

  private static String json(ConnectionSettings settings) {
    return PlanJson.MAPPER.writeValueAsString(settings);
  }

  private static ConnectionSettings settings(ConnectionRecord connection) {
    return connection.settingsJson() == null
        ? ConnectionSettings.USUAL
        : PlanJson.MAPPER.readValue(connection.settingsJson(), ConnectionSettings.class);
  }

  private Tried tryOut(Address address, String user, String password, ConnectionSettings how) {
    Properties told = new Properties();
    told.putAll(authorities.told(address, how.certificate()));
    told.put("user", user);
    told.put("password", password);
    Database database =
        Database.connect(address, told, how.patience(settings.patience()), how.offer());
    return new Tried(database.product(), database.tableNames().size());
  }

  /**
   * Tries a connection that is not kept, or not kept so.
   *
   * @param name the connection whose password counts if none is given; null if there is none yet
   * @throws PorterException if the address is not allowed or the database does not answer
   */
  public Tried tryOut(@Nullable String name, Wanted wanted) {
    Address address = Address.parse(wanted.url(), settings.addressRules());
    String password = password(name, address, wanted.user(), wanted.password());
    return tryOut(address, wanted.user(), password, wanted.settings());
  }

  /** A password goes only where, and for whom, it was kept. */
  private String password(
      @Nullable String name, Address address, String user, @Nullable String given) {
    if (given != null || name == null) {
      return given == null ? "" : given;
    }
    ConnectionRecord kept = require(name);
    Address before = Address.parse(kept.url(), settings.addressRules());
    if (!place(before).equals(place(address)) || !kept.dbUser().equals(user)) {
      throw ErrorCode.PASSWORD_NEEDED.error(
          "The password was kept for another database or user. Enter it again.");
    }
    return secrets.decrypt(kept.secret());
  }

  /** Where an address leads, without the settings of a session. */
  private static String place(Address address) {
    return address.shown().replaceFirst("[?;].*", "");
  }

  /**
   * Changes a connection after trying it; plans go on naming it.
   *
   * @throws PorterException if something goes on in it, the address is not allowed or the database
   *     does not answer
   */
  public ConnectionView change(String name, Wanted wanted) {
    deletion(name).require();
    Address address = Address.parse(wanted.url(), settings.addressRules());
    String secret = password(name, address, wanted.user(), wanted.password());
    tryOut(address, wanted.user(), secret, wanted.settings());
    connections.update(
        name,
        wanted.shownName(),
        address.shown(),
        wanted.user(),
        secrets.encrypt(secret),
        json(wanted.settings()));
    forget(name);
    events.publishEvent(new Kept(name));
    return new ConnectionView(
        name, wanted.shownName(), address.shown(), wanted.user(), wanted.settings());
  }

  private ConnectionRecord require(String name) {
    ConnectionRecord connection = connections.find(name);
    if (connection == null) {
      throw ErrorCode.NO_SUCH_CONNECTION.error("There is no connection “" + name + "”.");
    }
    return connection;
  }

  /** What deleting a connection means. The application's database is not touched by it. */
  public Deletion deletion(String name) {
    require(name);
    int kept = checks.of(name).size();
    List<String> affected = new ArrayList<>();
    users.forEach(u -> affected.addAll(u.writingTo(name)));
    return new Deletion(
        kept == 0 ? List.of() : List.of(Deletion.count(kept, "check", "checks") + " of its tables"),
        affected,
        users.stream().map(u -> u.goingOn(name)).filter(Objects::nonNull).findFirst().orElse(null));
  }

  @Transactional
  public void delete(String name) {
    deletion(name).require();
    checks.deleteAll(name);
    connections.delete(name);
    forget(name);
  }

  private void forget(String name) {
    Open known = open.remove(name);
    if (known != null) {
      known.pool().close();
    }
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
    ConnectionRecord connection = require(name);
    // what is allowed may have changed since it was kept, and so may what a link leads to
    Address address = Address.parse(connection.url(), settings.addressRules());
    ConnectionSettings how = settings(connection);
    Properties told = new Properties();
    told.putAll(authorities.told(address, how.certificate()));
    DriverManagerDataSource database =
        new DriverManagerDataSource(
            address.url(), connection.dbUser(), secrets.decrypt(connection.secret())) {
          @Override
          public void setLoginTimeout(int seconds) {
            // how long a pool waits is no matter of all drivers
          }
        };
    database.setConnectionProperties(told);
    // a database in a file can't be told afterwards
    boolean isReadOnly = how.readOnly() && address.file() == null;
    PatientPool pool = new PatientPool(database, how.pooled(), isReadOnly, address.file());
    return new Open(
        pool, new Database(pool::lend, address, how.patience(settings.patience()), how.offer()));
  }

  @PreDestroy
  void close() {
    open.values().forEach(o -> o.pool().close());
  }
}
