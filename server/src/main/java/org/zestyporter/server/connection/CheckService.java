package org.zestyporter.server.connection;

import java.time.Clock;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.zestyporter.core.fill.Rules;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.plan.TableCheck;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.web.Times;

/** Keeps the checks of the tables of a connection. */
@Service
public class CheckService {
  private final CheckMapper checks;
  private final ConnectionService connections;
  private final Clock clock;

  CheckService(CheckMapper checks, ConnectionService connections, Clock clock) {
    this.checks = checks;
    this.connections = connections;
    this.clock = clock;
  }

  /** The checks of a connection by table. */
  public Map<String, List<TableCheck>> of(String connection) {
    return checks.of(connection).stream()
        .collect(
            Collectors.groupingBy(
                CheckMapper.CheckRecord::tableName,
                Collectors.mapping(
                    c -> new TableCheck(c.name(), c.formula(), c.message()), Collectors.toList())));
  }

  /** The checks of a table. */
  public List<TableCheck> of(String connection, String table) {
    return of(connection).getOrDefault(table, List.of());
  }

  /**
   * Keeps a check, in the place of the one of its name if there is one.
   *
   * @throws PorterException if the formula can't be used for the table or is no yes or no
   */
  public void put(String connection, String table, TableCheck check, String who) {
    if (check.name() == null || check.name().isBlank() || check.name().length() > 80) {
      throw ErrorCode.NAME.error("A check needs a name of up to 80 characters.");
    }
    Formula formula =
        Formula.compile(
            check.formula() == null ? "" : check.formula(),
            Rules.names(connections.database(connection).table(table)));
    if (!formula.kind().mayBeLogical()) {
      throw ErrorCode.CHECK.error(
          "A check must say true or false, such as [insured_until] >= [arrived_on]; this"
              + " formula gives something else.");
    }
    LocalDateTime now = Times.now(clock);
    checks.put(
        connection,
        new CheckMapper.CheckRecord(
            table, check.name().strip(), check.formula(), check.message(), who, now));
  }

  public void delete(String connection, String table, String name) {
    checks.delete(connection, table, name);
  }
}
