package org.zestyporter.server.connection;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Pattern;
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
import org.zestyporter.core.database.Database;
import org.zestyporter.core.database.TableInfo;
import org.zestyporter.core.plan.TableCheck;

@RestController
@RequestMapping("/api/connections")
class ConnectionController {
  private final ConnectionService connections;

  private final CheckService checks;

  ConnectionController(ConnectionService connections, CheckService checks) {
    this.connections = connections;
    this.checks = checks;
  }

  record NewConnection(
      @NotBlank @Pattern(regexp = "[a-z0-9-]{1,40}", message = "small letters, digits and hyphens")
          String name,
      @NotBlank String shownName,
      @NotBlank String url,
      @Nullable String user,
      @Nullable String password) {}

  record TableCount(String name, long records) {}

  @GetMapping
  List<ConnectionService.ConnectionView> all() {
    return connections.all();
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  ConnectionService.ConnectionView add(@Valid @RequestBody NewConnection c) {
    return connections.add(
        c.name(),
        c.shownName(),
        c.url(),
        c.user() == null ? "" : c.user(),
        c.password() == null ? "" : c.password());
  }

  @GetMapping("/{name}/tables")
  List<TableCount> tables(@PathVariable String name) {
    Database database = connections.database(name);
    database.forget();
    return database.tableNames().stream()
        .map(t -> new TableCount(t, database.count(database.table(t))))
        .toList();
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
