package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Savepoint;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.NewRecords;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.ValueColumn;

/**
 * A transaction that writes records in bulk. Not for use by several threads.
 *
 * <p>Records that give values to the same fields go to the database together.
 */
final class JdbcSession implements WriteSession {
  private final Answers answers;
  private final Connection connection;
  private final Dialect dialect;
  private final Statements statements;
  private final Claims claims;
  private final String name;
  private @Nullable String behind;

  /** What each transaction begins with once tables are claimed. */
  private List<String> checksAtOnce = List.of();

  /** Set once tables are claimed. */
  private LinkCheck links = LinkCheck.NONE;

  /** By table, whether nothing of the database's own acts on its records. */
  private final Map<String, Boolean> untouched = new HashMap<>();

  JdbcSession(
      Answers answers,
      Connection connection,
      Dialect dialect,
      Going going,
      Claims claims,
      String name) {
    this.name = name;
    this.answers = answers;
    this.connection = connection;
    this.dialect = dialect;
    this.statements = new Statements(connection, dialect, going);
    this.claims = claims;
  }

  @Override
  public boolean claim(Collection<TableInfo> written, Collection<TableInfo> lookedUp) {
    Set<String> exclusive = written.stream().map(JdbcSession::identity).collect(Collectors.toSet());
    Set<String> shared = lookedUp.stream().map(JdbcSession::identity).collect(Collectors.toSet());
    shared.removeAll(exclusive);
    Object before = claims.claim(this, exclusive, shared);
    if (before != null) {
      behind = before.toString();
      return false;
    }
    behind = null;
    try {
      if (dialect.claim(connection, exclusive, shared)) {
        checksAtOnce = dialect.checkingAtOnce(connection);
        links = dialect.linkCheck(connection);
        checkAtOnce();
        return true;
      }
      // what was claimed of it so far ends with the transaction, or now
      connection.rollback();
      dialect.release(connection);
      claims.release(this, exclusive, shared);
      behind = "a run of another program";
      return false;
    } catch (SQLException e) {
      throw dialect.errors().translate(e);
    }
  }

  private void checkAtOnce() throws SQLException {
    for (String setting : checksAtOnce) {
      try (Statement statement = connection.createStatement()) {
        statement.execute(setting);
      }
    }
  }

  @Override
  public @Nullable String behind() {
    return behind;
  }

  /** What those are told who wait for it. */
  @Override
  public String toString() {
    return name;
  }

  private static String identity(TableInfo table) {
    return table.schema() + "." + table.relation();
  }

  @Override
  public List<List<Object>> write(TableInfo table, List<Change> changes, boolean inOrder) {
    List<List<Object>> keys = new ArrayList<>(Collections.nCopies(changes.size(), null));
    for (List<Integer> group : groups(changes, inOrder)) {
      List<Change> same = group.stream().map(changes::get).toList();
      List<List<Object>> written =
          written(
              table,
              same.get(0).fields().stream().map(table.fields()::get).toList(),
              same.get(0).line(),
              () -> statements.write(table, same));
      for (int i = 0; i < group.size(); i++) {
        keys.set(group.get(i), written.get(i));
      }
    }
    return keys;
  }

  @Override
  public List<List<Object>> insert(NewRecords records) {
    Collection<int[]> groups = records.alike();
    if (groups.size() > 1 && records.areNumbered()) {
      List<List<Object>> made = written(records, () -> statements.insertInOrder(records));
      if (made != null) {
        return made;
      }
      groups = dialect.isNear() ? records.neighbours() : groups;
    }
    List<List<Object>> keys = new ArrayList<>(Collections.nCopies(records.count(), null));
    for (int[] places : groups) {
      NewRecords alike = records.some(places);
      List<List<Object>> made = written(alike, () -> statements.insert(alike));
      for (int i = 0; i < places.length; i++) {
        keys.set(places[i], made.get(i));
      }
    }
    return keys;
  }

  @Override
  public boolean keeps(TableInfo table, Collection<FieldInfo> given) {
    return given.stream().allMatch(dialect::keeps)
        && untouched.computeIfAbsent(
            table.name(), name -> use(() -> dialect.isUntouched(connection, table)));
  }

  @Override
  public Totals totals(TableInfo table, List<FieldInfo> numbers, Collection<List<Object>> keys) {
    return use(() -> answers.sums(table, numbers).of(connection, keys));
  }

  /** Changes that can go together, by their places; in order, only neighbours can. */
  private static Collection<List<Integer>> groups(List<Change> changes, boolean inOrder) {
    Map<List<Object>, List<Integer>> groups = new LinkedHashMap<>();
    List<Object> before = null;
    int turn = 0;
    for (int i = 0; i < changes.size(); i++) {
      Change change = changes.get(i);
      List<Object> shape = new ArrayList<>(change.fields());
      shape.add(change.key() == null);
      turn += inOrder && before != null && !before.equals(shape) ? 1 : 0;
      before = List.copyOf(shape);
      shape.add("turn " + turn);
      groups.computeIfAbsent(shape, s -> new ArrayList<>()).add(i);
    }
    return groups.values();
  }

  @Override
  public void remove(TableInfo table, List<Removal> removals) {
    if (!removals.isEmpty()) {
      taken(
          table,
          removals.get(0).line(),
          Breach::ofRemoval,
          () -> {
            statements.delete(table, removals);
            refuse(
                links.ofRemoved(table, removals.stream().map(Removal::key).toList()),
                removals.get(0).line(),
                table);
            return true;
          });
    }
  }

  private @Nullable List<List<Object>> written(
      NewRecords records, Use<@Nullable List<List<Object>>> writes) {
    return written(records.table(), records.table().fields(), records.lines()[0], writes);
  }

  /** The keys of what is written, if the database takes it and its links are as they have to be. */
  private @Nullable List<List<Object>> written(
      TableInfo table,
      List<FieldInfo> fields,
      long line,
      Use<@Nullable List<List<Object>>> writes) {
    return taken(
        table,
        line,
        breach -> breach,
        () -> {
          List<List<Object>> keys = writes.get();
          refuse(keys == null ? null : links.ofWritten(table, fields, keys), line, table);
          return keys;
        });
  }

  private static void refuse(@Nullable Breach breach, long line, TableInfo table) {
    if (breach != null) {
      throw new RefusedException(breach.told(line, table), null);
    }
  }

  /**
   * What is written, if the database takes it.
   *
   * @param line line of the first record
   * @param meant what a breach is, seen by what was being done
   */
  private <T> T taken(TableInfo table, long line, UnaryOperator<Breach> meant, Use<T> writes) {
    try {
      return writes.get();
    } catch (SQLException e) {
      PorterException told = dialect.errors().translate(e);
      throw told.code() == ErrorCode.DATABASE_REFUSED
          ? new RefusedException(
              meant.apply(dialect.breach(DatabaseErrors.root(e))).told(line, table), e)
          : told;
    }
  }

  @Override
  public Place place() {
    Savepoint here = use(connection::setSavepoint);
    return new Place() {
      @Override
      public void goBack() {
        use(
            () -> {
              connection.rollback(here);
              statements.forget();
              return true;
            });
      }

      @Override
      public void forget() {
        use(
            () -> {
              connection.releaseSavepoint(here);
              return true;
            });
      }
    };
  }

  /** What may fail because of the database. */
  private interface Use<T> {
    T get() throws SQLException;
  }

  private <T> T use(Use<T> use) {
    try {
      return use.get();
    } catch (SQLException e) {
      throw dialect.errors().translate(e);
    }
  }

  @Override
  public void look(Ask ask, Consumer<ValueColumn[]> found) {
    use(
        () -> {
          answers.look(connection, ask, found);
          return true;
        });
  }

  @Override
  public long count(TableInfo table) {
    return use(() -> answers.count(connection, table));
  }

  @Override
  public Records fetch(TableInfo table, Collection<List<Object>> keys) {
    return fetch(table, table.fields(), keys);
  }

  @Override
  public Records fetch(
      TableInfo table, Collection<FieldInfo> fields, Collection<List<Object>> keys) {
    return use(() -> answers.fetch(connection, table, fields, keys));
  }

  @Override
  public @Nullable String mark() {
    return use(() -> dialect.mark(connection));
  }

  @Override
  public void check() {
    try {
      dialect.checkAll(connection);
    } catch (SQLException e) {
      throw isRefused(e) ? refusedAtTheEnd(e) : dialect.errors().translate(e);
    }
  }

  private boolean isRefused(SQLException e) {
    return dialect.errors().translate(e).code() == ErrorCode.DATABASE_REFUSED;
  }

  private PorterException refusedAtTheEnd(SQLException e) {
    Breach breach = dialect.breach(DatabaseErrors.root(e));
    boolean isLink = breach.kind() == Breach.Kind.LINK && breach.fields().isEmpty();
    String why =
        isLink ? "a link would point at a record that is not there" : breach.told(0, null).told();
    return ErrorCode.DATABASE_REFUSED.error(
        "The database refused all of it together, once everything was written: "
            + why
            + ". It does not say which lines that is about.",
        e);
  }

  @Override
  public void commit() {
    statements.forget();
    try {
      dialect.requireThere(connection);
      connection.commit();
    } catch (SQLException e) {
      throw isRefused(e) ? refusedAtTheEnd(e) : unsure(e);
    }
    try {
      dialect.makeLasting(connection);
      dialect.requireThere(connection);
      checkAtOnce();
    } catch (SQLException e) {
      throw unsure(e);
    }
  }

  private static PorterException unsure(SQLException cause) {
    return ErrorCode.UNSURE.error(
        "The connection to the database broke at the very moment of committing."
            + " Whether the run stands will be known once the database answers again.",
        cause);
  }

  @Override
  public void close() {
    try (Connection closed = connection) {
      closed.rollback();
      dialect.release(closed);
      closed.setAutoCommit(true);
    } catch (SQLException e) {
      // a connection that is gone has taken everything back already
    } finally {
      claims.release(this);
    }
  }
}
