package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Savepoint;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.ToLongFunction;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
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
  /** Records from which on a way around statements is worth looking for. */
  private static final int BULK = 64;

  private final Answers answers;
  private final Connection connection;
  private final Dialect dialect;
  private final Going going;
  private final Claims claims;

  JdbcSession(Answers answers, Connection connection, Dialect dialect, Going going, Claims claims) {
    this.answers = answers;
    this.connection = connection;
    this.dialect = dialect;
    this.going = going;
    this.claims = claims;
  }

  @Override
  public boolean claim(Collection<TableInfo> written, Collection<TableInfo> lookedUp) {
    Set<String> exclusive = written.stream().map(JdbcSession::identity).collect(Collectors.toSet());
    Set<String> shared = lookedUp.stream().map(JdbcSession::identity).collect(Collectors.toSet());
    shared.removeAll(exclusive);
    if (!claims.claim(this, exclusive, shared)) {
      return false;
    }
    try {
      if (dialect.claim(connection, exclusive, shared)) {
        return true;
      }
      // what was claimed of it so far ends with the transaction
      connection.rollback();
      claims.release(this);
      return false;
    } catch (SQLException e) {
      throw dialect.errors().translate(e);
    }
  }

  private static String identity(TableInfo table) {
    return table.schema() + "." + table.relation();
  }

  @Override
  public List<List<Object>> write(TableInfo table, List<Change> changes, boolean inOrder) {
    List<List<Object>> keys = new ArrayList<>(Collections.nCopies(changes.size(), null));
    for (List<Integer> group : groups(changes, inOrder)) {
      List<Change> same = group.stream().map(changes::get).toList();
      List<List<Object>> written = writeAlike(table, same);
      for (int i = 0; i < group.size(); i++) {
        keys.set(group.get(i), written.get(i));
      }
    }
    return keys;
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

  private List<List<Object>> writeAlike(TableInfo table, List<Change> changes) {
    try {
      Savepoint before = connection.setSavepoint();
      try {
        List<List<Object>> keys = execute(table, changes);
        connection.releaseSavepoint(before);
        return keys;
      } catch (SQLException | RefusedException e) {
        connection.rollback(before);
        throw new RefusedException(refusal(e, changes.get(0).line()), e);
      }
    } catch (SQLException e) {
      throw dialect.errors().translate(e);
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
  public List<Refusal> writeSome(TableInfo table, List<Change> changes) {
    return some(changes, Change::line, some -> execute(table, some));
  }

  @Override
  public List<Refusal> removeSome(TableInfo table, List<Removal> removals) {
    return some(removals, Removal::line, some -> delete(table, some));
  }

  private <T> List<Refusal> some(List<T> items, ToLongFunction<T> line, Deed<T> deed) {
    List<Refusal> refusals = new ArrayList<>();
    use(
        () -> {
          halve(items, line, deed, refusals);
          return true;
        });
    return refusals;
  }

  /** What is done with some records at once. */
  private interface Deed<T> {
    void with(List<T> some) throws SQLException;
  }

  /** Does something with records, and finds those that are refused by halving. */
  private <T> void halve(
      List<T> items, ToLongFunction<T> line, Deed<T> deed, List<Refusal> refusals)
      throws SQLException {
    if (items.isEmpty()) {
      return;
    }
    Savepoint before = connection.setSavepoint();
    try {
      deed.with(items);
      connection.releaseSavepoint(before);
    } catch (SQLException | RefusedException e) {
      connection.rollback(before);
      Refusal refusal = refusal(e, line.applyAsLong(items.get(0)));
      if (items.size() == 1) {
        refusals.add(refusal);
        return;
      }
      int half = items.size() / 2;
      halve(items.subList(0, half), line, deed, refusals);
      halve(items.subList(half, items.size()), line, deed, refusals);
    }
  }

  /**
   * What the database said of records.
   *
   * @throws PorterException if it said anything but that it does not take one
   */
  private Refusal refusal(Exception e, long line) {
    if (e instanceof RefusedException refused) {
      return refused.refusal();
    }
    PorterException told = dialect.errors().translate((SQLException) e);
    if (told.code() != ErrorCode.DATABASE_REFUSED) {
      throw told;
    }
    return new Refusal(line, DatabaseErrors.reason((SQLException) e));
  }

  private void delete(TableInfo table, List<Removal> removals) throws SQLException {
    List<FieldInfo> keyFields = table.fields(table.primaryKey());
    String array = keyFields.size() == 1 ? dialect.arrayOf(keyFields.get(0)) : null;
    int gone =
        array == null ? deleteEach(table, keyFields, removals) : delete(table, array, removals);
    if (gone < removals.size()) {
      // which of several it was shows once each is tried alone
      throw new RefusedException(
          new Refusal(
              removals.get(0).line(),
              "the application keeps the record, as by a trigger or rule of its own"),
          null);
    }
  }

  private int delete(TableInfo table, String array, List<Removal> removals) throws SQLException {
    String sql =
        "DELETE FROM "
            + dialect.name(table)
            + " WHERE "
            + dialect.quote(table.primaryKey().get(0))
            + " = ANY (?)";
    Object[] keys = removals.stream().map(r -> Fields.element(r.key().get(0))).toArray();
    return going.use(
        connection,
        sql,
        statement -> {
          statement.setArray(1, connection.createArrayOf(array, keys));
          return statement.executeUpdate();
        });
  }

  private int deleteEach(TableInfo table, List<FieldInfo> keyFields, List<Removal> removals)
      throws SQLException {
    return going.use(
        connection,
        "DELETE FROM " + dialect.name(table) + where(keyFields),
        statement -> {
          for (Removal removal : removals) {
            bind(statement, keyFields, removal.key(), 1);
            statement.addBatch();
          }
          return (int) Arrays.stream(statement.executeBatch()).filter(count -> count != 0).count();
        });
  }

  private List<List<Object>> execute(TableInfo table, List<Change> changes) throws SQLException {
    boolean insert = changes.get(0).key() == null;
    List<FieldInfo> fields = changes.get(0).fields().stream().map(table.fields()::get).toList();
    if (insert && changes.size() >= BULK) {
      Dialect.BulkInsert bulk = dialect.bulkInsert(connection, table, fields, changes);
      if (bulk != null) {
        return bulk.insert(changes);
      }
    }
    List<FieldInfo> keyFields = table.fields(table.primaryKey());
    String[] generated = keyFields.stream().map(FieldInfo::name).toArray(String[]::new);
    String sql = insert ? insertSql(table, fields) : updateSql(table, fields, keyFields);
    return going.use(
        connection,
        c ->
            insert && generated.length > 0
                ? c.prepareStatement(sql, generated)
                : c.prepareStatement(sql),
        statement -> {
          for (Change change : changes) {
            bind(statement, fields, change.values(), 1);
            if (!insert) {
              bind(statement, keyFields, change.key(), fields.size() + 1);
            }
            statement.addBatch();
          }
          int[] counts = statement.executeBatch();
          if (!insert) {
            requireUpdated(changes, counts);
            return changes.stream().map(Change::key).toList();
          }
          return insertedKeys(statement, keyFields, changes);
        });
  }

  private void bind(
      PreparedStatement statement, List<FieldInfo> fields, List<Object> values, int first)
      throws SQLException {
    for (int i = 0; i < fields.size(); i++) {
      Fields.bind(statement, first + i, fields.get(i), values.get(i), dialect);
    }
  }

  private static void requireUpdated(List<Change> changes, int[] counts) {
    for (int i = 0; i < counts.length; i++) {
      if (counts[i] == 0) {
        throw new RefusedException(
            new Refusal(
                changes.get(i).line(),
                "the record was removed while the run went on, or the application kept it as it"
                    + " was"),
            null);
      }
    }
  }

  private List<List<Object>> insertedKeys(
      PreparedStatement statement, List<FieldInfo> keyFields, List<Change> changes)
      throws SQLException {
    if (keyFields.isEmpty()) {
      return new ArrayList<>(Collections.nCopies(changes.size(), null));
    }
    List<List<Object>> keys = new ArrayList<>(changes.size());
    try (ResultSet found = statement.getGeneratedKeys()) {
      while (found.next()) {
        List<Object> key = new ArrayList<>(keyFields.size());
        for (int i = 0; i < keyFields.size(); i++) {
          FieldInfo field = keyFields.get(i);
          key.add(field.storage().canonical(Fields.read(found, i + 1, field)));
        }
        keys.add(key);
      }
    }
    if (keys.size() != changes.size()) {
      // which of several it was shows once each is tried alone
      String which = changes.size() == 1 ? "this record" : "a record of this or the next lines";
      throw new RefusedException(
          new Refusal(
              changes.get(0).line(),
              "the application took "
                  + which
                  + " and kept none, as by a trigger or rule of its own"),
          null);
    }
    return keys;
  }

  private String insertSql(TableInfo table, List<FieldInfo> fields) {
    if (fields.isEmpty()) {
      return "INSERT INTO " + dialect.name(table) + " DEFAULT VALUES";
    }
    String names =
        fields.stream().map(f -> dialect.quote(f.name())).collect(Collectors.joining(", "));
    String marks = "?, ".repeat(fields.size() - 1) + "?";
    // a number that the database gives by itself is given again to a record that comes back
    boolean numbered = fields.stream().anyMatch(f -> f.generated() && !f.isFillable());
    return "INSERT INTO "
        + dialect.name(table)
        + " ("
        + names
        + (numbered ? ") OVERRIDING SYSTEM VALUE VALUES (" : ") VALUES (")
        + marks
        + ")";
  }

  private String updateSql(TableInfo table, List<FieldInfo> fields, List<FieldInfo> keyFields) {
    return "UPDATE "
        + dialect.name(table)
        + fields.stream()
            .map(f -> dialect.quote(f.name()) + " = ?")
            .collect(Collectors.joining(", ", " SET ", ""))
        + where(keyFields);
  }

  private String where(List<FieldInfo> keyFields) {
    return keyFields.stream()
        .map(f -> dialect.quote(f.name()) + " = ?")
        .collect(Collectors.joining(" AND ", " WHERE ", ""));
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
  public Records fetch(TableInfo table, Collection<List<Object>> keys) {
    return use(() -> answers.fetch(connection, table, keys));
  }

  @Override
  public @Nullable String mark() {
    return use(() -> dialect.mark(connection));
  }

  @Override
  public void commit() {
    try {
      dialect.requireThere(connection);
      connection.commit();
    } catch (SQLException e) {
      PorterException told = dialect.errors().translate(e);
      throw told.code() == ErrorCode.DATABASE_REFUSED ? told : unsure(e);
    }
    try {
      dialect.makeLasting(connection);
      dialect.requireThere(connection);
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
      closed.setAutoCommit(true);
    } catch (SQLException e) {
      // a connection that is gone has taken everything back already
    } finally {
      claims.release(this);
    }
  }
}
