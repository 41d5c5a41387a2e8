package org.zestyporter.server.connection;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.plan.TableCheck;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.web.Deletion;
import org.zestyporter.server.web.SecurityLog;

@RestController
@RequestMapping("/api/connections")
class ConnectionController {
  private final ConnectionService connections;
  private final CheckService checks;
  private final SecurityLog log;

  ConnectionController(ConnectionService connections, CheckService checks, SecurityLog log) {
    this.connections = connections;
    this.checks = checks;
    this.log = log;
  }

  record NewConnection(
      @NotBlank @Pattern(regexp = "[a-z0-9-]{1,40}", message = "small letters, digits and hyphens")
          String name,
      @NotBlank @Size(max = 80) String shownName,
      @NotBlank @Size(max = 1_000) String url,
      @Nullable @Size(max = 200) String user,
      @Nullable @Size(max = 500) String password,
      @Nullable @Valid ConnectionSettings settings) {

    ConnectionService.Wanted wanted() {
      return ConnectionController.wanted(shownName, url, user, password, settings);
    }
  }

  private static ConnectionService.Wanted wanted(
      String shownName,
      String url,
      @Nullable String user,
      @Nullable String password,
      @Nullable ConnectionSettings settings) {
    return new ConnectionService.Wanted(
        shownName,
        url,
        user == null ? "" : user,
        password,
        settings == null ? ConnectionSettings.USUAL : settings);
  }

  /**
   * A connection as it is to be from now on, or as it is to be tried.
   *
   * @param name the connection whose password counts if none is given; only to try one
   */
  record ChangedConnection(
      @Nullable String name,
      @Nullable @Size(max = 80) String shownName,
      @NotBlank @Size(max = 1_000) String url,
      @Nullable @Size(max = 200) String user,
      @Nullable @Size(max = 500) String password,
      @Nullable @Valid ConnectionSettings settings) {

    ConnectionService.Wanted wanted(String known) {
      String shown = shownName == null || shownName.isBlank() ? known : shownName;
      return ConnectionController.wanted(shown, url, user, password, settings);
    }
  }

  /**
   * A table and how many records it has.
   *
   * @param records null if they can't be counted
   */
  record TableCount(String name, @Nullable Long records) {}

  @GetMapping
  List<ConnectionService.ConnectionView> all() {
    return connections.all();
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  ConnectionService.ConnectionView add(
      @Valid @RequestBody NewConnection c, Principal who, HttpServletRequest request) {
    try {
      ConnectionService.ConnectionView added = connections.add(c.name(), c.wanted());
      log.note("connection-added", who.getName(), request.getRemoteAddr(), c.name());
      return added;
    } catch (PorterException e) {
      String about = e.code().word() + " " + c.name();
      log.note("connection-refused", who.getName(), request.getRemoteAddr(), about);
      throw e;
    }
  }

  /** Tries a connection without keeping it. */
  @PostMapping("/try")
  ConnectionService.Tried tryOut(
      @Valid @RequestBody ChangedConnection c, Principal who, HttpServletRequest request) {
    try {
      return connections.tryOut(c.name(), c.wanted(""));
    } catch (PorterException e) {
      log.note("connection-refused", who.getName(), request.getRemoteAddr(), e.code().word());
      throw e;
    }
  }

  /** Changes a connection after trying it. */
  @PutMapping("/{name}")
  ConnectionService.ConnectionView change(
      @PathVariable String name,
      @Valid @RequestBody ChangedConnection c,
      Principal who,
      HttpServletRequest request) {
    try {
      ConnectionService.ConnectionView changed = connections.change(name, c.wanted(name));
      log.note("connection-changed", who.getName(), request.getRemoteAddr(), name);
      return changed;
    } catch (PorterException e) {
      String about = e.code().word() + " " + name;
      log.note("connection-refused", who.getName(), request.getRemoteAddr(), about);
      throw e;
    }
  }

  /** What deleting a connection means. */
  @GetMapping("/{name}/deletion")
  Deletion deletion(@PathVariable String name) {
    return connections.deletion(name);
  }

  @DeleteMapping("/{name}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void delete(@PathVariable String name, Principal who, HttpServletRequest request) {
    connections.delete(name);
    log.note("connection-deleted", who.getName(), request.getRemoteAddr(), name);
  }

  @GetMapping("/{name}/tables")
  List<TableCount> tables(
      @PathVariable String name, @RequestParam(defaultValue = "true") boolean counted) {
    Database database = connections.database(name);
    if (!counted) {
      return database.tableNames().stream().map(t -> new TableCount(t, null)).toList();
    }
    database.forget();
    List<String> names = database.tableNames();
    database.read(names);
    return names.stream().map(t -> counted(database, t)).toList();
  }

  private static TableCount counted(Database database, String table) {
    try {
      return new TableCount(table, database.count(database.table(table)));
    } catch (PorterException e) {
      // one table that may not be read keeps nobody from the others
      return new TableCount(table, null);
    }
  }

  @GetMapping("/{name}/tables/{table}")
  TableInfo table(@PathVariable String name, @PathVariable String table) {
    return connections.database(name).table(table);
  }

  @GetMapping("/{name}/tables/{table}/checks")
  List<TableCheck> checks(@PathVariable String name, @PathVariable String table) {
    return checks.of(name, table);
  }

  @PutMapping("/{name}/tables/{table}/checks")
  List<TableCheck> putCheck(
      @PathVariable String name,
      @PathVariable String table,
      @RequestBody TableCheck check,
      Principal who) {
    checks.put(name, table, check, who.getName());
    return checks.of(name, table);
  }

  @DeleteMapping("/{name}/tables/{table}/checks")
  List<TableCheck> deleteCheck(
      @PathVariable String name, @PathVariable String table, @RequestParam String check) {
    checks.delete(name, table, check);
    return checks.of(name, table);
  }
}
