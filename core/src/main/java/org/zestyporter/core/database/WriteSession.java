package org.zestyporter.core.database;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Savepoint;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Values;

/**
 * A transaction that writes records in bulk. Not for use by several threads.
 *
 * <p>Records that give values to the same fields go to the database together.
 */
public final class WriteSession implements AutoCloseable {

  /**
   * A record to write.
   *
   * @param line line of the row it comes from, for messages
   * @param key primary key of the record to update; null to insert
   * @param fields indexes of the fields to write among the table's fields
   * @param values one value a field to write
   */
  public record Change(long line, List<Object> key, List<Integer> fields, List<Object> values) {}

  /** The database refused a row. */
  public static final class RefusedException extends RuntimeException {
    private static final long serialVersionUID = 1L;
    private final long line;

    RefusedException(long line, String reason, Throwable cause) {
      super(reason, cause);
      this.line = line;
    }

    public long line() {
      return line;
    }
  }

  private final Database database;
  private final Connection connection;
  private final Dialect dialect;

  WriteSession(Database database, Connection connection, Dialect dialect) {
    this.database = database;
    this.connection = connection;
    this.dialect = dialect;
  }

  /**
   * Inserts and updates records.
   *
   * @return the primary key of each record, in the order of {@code changes}
   * @throws RefusedException if the database refuses a record; it names the first one
   * @throws PorterException if the database is lost
   */
  public List<List<Object>> write(TableInfo table, List<Change> changes) {
    Map<List<Object>, List<Integer>> groups = new LinkedHashMap<>();
    for (int i = 0; i < changes.size(); i++) {
      Change change = changes.get(i);
      List<Object> shape = new ArrayList<>(change.fields());
      shape.add(change.key() == null);
      groups.computeIfAbsent(shape, s -> new ArrayList<>()).add(i);
    }
    List<List<Object>> keys = new ArrayList<>(java.util.Collections.nCopies(changes.size(), null));
    for (List<Integer> group : groups.values()) {
      List<Change> same = group.stream().map(changes::get).toList();
      List<List<Object>> written = writeAlike(table, same);
      for (int i = 0; i < group.size(); i++) {
        keys.set(group.get(i), written.get(i));
      }
    }
    return keys;
  }

  private List<List<Object>> writeAlike(TableInfo table, List<Change> changes) {
    try {
      Savepoint before = connection.setSavepoint();
      try {
        List<List<Object>> keys = execute(table, changes);
        connection.releaseSavepoint(before);
        return keys;
      } catch (SQLException e) {
        connection.rollback(before);
        throw changes.size() == 1 ? refused(changes.get(0), e) : firstRefused(table, changes, e);
      }
    } catch (SQLException e) {
      throw DatabaseErrors.translate(e);
    }
  }

  private RuntimeException firstRefused(TableInfo table, List<Change> changes, SQLException error) {
    for (Change change : changes) {
      try {
        execute(table, List.of(change));
      } catch (SQLException e) {
        return refused(change, e);
      }
    }
    return refused(changes.get(0), error);
  }

  private static RuntimeException refused(Change change, SQLException e) {
    PorterException translated = DatabaseErrors.translate(e);
    return translated.code().equals("database-refused")
        ? new RefusedException(change.line(), DatabaseErrors.reason(e), e)
        : translated;
  }

  private List<List<Object>> execute(TableInfo table, List<Change> changes) throws SQLException {
    boolean insert = changes.get(0).key() == null;
    List<FieldInfo> fields = changes.get(0).fields().stream().map(table.fields()::get).toList();
    List<FieldInfo> keyFields = table.fields(table.primaryKey());
    String[] generated = keyFields.stream().map(FieldInfo::name).toArray(String[]::new);
    String sql = insert ? insertSql(table, fields) : updateSql(table, fields, keyFields);
    try (PreparedStatement statement =
        insert && generated.length > 0
            ? connection.prepareStatement(sql, generated)
            : connection.prepareStatement(sql)) {
      for (Change change : changes) {
        int parameter = 1;
        for (int i = 0; i < fields.size(); i++) {
          Fields.bind(statement, parameter++, fields.get(i), change.values().get(i), dialect);
        }
        if (!insert) {
          for (int i = 0; i < keyFields.size(); i++) {
            Fields.bind(statement, parameter++, keyFields.get(i), change.key().get(i), dialect);
          }
        }
        statement.addBatch();
      }
      int[] counts = statement.executeBatch();
      if (!insert) {
        requireUpdated(changes, counts);
        return changes.stream().map(Change::key).toList();
      }
      return insertedKeys(statement, keyFields, changes.size());
    }
  }

  private static void requireUpdated(List<Change> changes, int[] counts) {
    for (int i = 0; i < counts.length; i++) {
      if (counts[i] == 0) {
        throw new RefusedException(
            changes.get(i).line(), "the record was removed while the run went on", null);
      }
    }
  }

  private static List<List<Object>> insertedKeys(
      PreparedStatement statement, List<FieldInfo> keyFields, int count) throws SQLException {
    List<List<Object>> keys = new ArrayList<>(count);
    if (keyFields.isEmpty()) {
      return new ArrayList<>(java.util.Collections.nCopies(count, null));
    }
    try (ResultSet found = statement.getGeneratedKeys()) {
      while (found.next()) {
        List<Object> key = new ArrayList<>(keyFields.size());
        for (int i = 0; i < keyFields.size(); i++) {
          key.add(Values.key(Fields.read(found, i + 1, keyFields.get(i))));
        }
        keys.add(key);
      }
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
    return "INSERT INTO " + dialect.name(table) + " (" + names + ") VALUES (" + marks + ")";
  }

  private String updateSql(TableInfo table, List<FieldInfo> fields, List<FieldInfo> keyFields) {
    return "UPDATE "
        + dialect.name(table)
        + fields.stream()
            .map(f -> dialect.quote(f.name()) + " = ?")
            .collect(Collectors.joining(", ", " SET ", ""))
        + keyFields.stream()
            .map(f -> dialect.quote(f.name()) + " = ?")
            .collect(Collectors.joining(" AND ", " WHERE ", ""));
  }

  /** Reads records back as they now stand inside the transaction. */
  public Map<List<Object>, Object[]> readBack(TableInfo table, Collection<List<Object>> keys) {
    try {
      return database.fetch(connection, table, keys);
    } catch (SQLException e) {
      throw DatabaseErrors.translate(e);
    }
  }

  /** Makes everything that was written lasting. */
  public void commit() {
    try {
      connection.commit();
    } catch (SQLException e) {
      throw DatabaseErrors.translate(e);
    }
  }

  /** Takes back what was not committed. */
  @Override
  public void close() {
    try (Connection closed = connection) {
      closed.rollback();
      closed.setAutoCommit(true);
    } catch (SQLException e) {
      throw DatabaseErrors.translate(e);
    }
  }
}
