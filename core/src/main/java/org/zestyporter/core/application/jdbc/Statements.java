package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.NewRecords;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession.Change;
import org.zestyporter.core.application.WriteSession.Refusal;
import org.zestyporter.core.application.WriteSession.RefusedException;
import org.zestyporter.core.application.WriteSession.Removal;

/** The statements by which records are inserted, updated and deleted, many at a time. */
final class Statements {
  /** Records that are named in one statement. */
  private static final int KEYS_IN_LIST = 500;

  private final Connection connection;
  private final Dialect dialect;
  private final Going going;
  private final Copying copying;

  Statements(Connection connection, Dialect dialect, Going going) {
    this.connection = connection;
    this.dialect = dialect;
    this.going = going;
    this.copying = dialect.copying(connection, going);
  }

  /**
   * Inserts or updates records.
   *
   * @param changes all with the same fields, and all inserts or all updates
   * @return their primary keys, in their order
   * @throws RefusedException if one of them was not written, though the database said nothing
   */
  List<List<Object>> write(TableInfo table, List<Change> changes) throws SQLException {
    boolean insert = changes.get(0).key() == null;
    List<FieldInfo> fields = changes.get(0).fields().stream().map(table.fields()::get).toList();
    Load load = new Load(connection, going, table, fields, changes, false);
    List<List<Object>> made = insert ? inserted(load) : null;
    if (made != null) {
      return all(made, changes);
    }
    int updated = insert ? -1 : copying.update(load);
    if (updated >= 0) {
      // which of several was not there shows once each is tried alone
      requireUpdated(changes, new int[] {updated == changes.size() ? 1 : 0});
      return changes.stream().map(Change::key).toList();
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

  /** The keys of records that went by the fastest way; null if they have to go by a batch. */
  private @Nullable List<List<Object>> inserted(Load load) throws SQLException {
    List<List<Object>> copied =
        copying == Copying.NONE ? null : copying.copy(NewRecords.of(load.table(), load.changes()));
    return copied == null ? dialect.insert(load) : copied;
  }

  /** Forgets what is known of tables, which others may change from now on. */
  void forget() {
    copying.forget();
  }

  /**
   * Inserts records, by columns if the database takes them so.
   *
   * @return their primary keys, in their order
   * @throws RefusedException if one of them was not written, though the database said nothing
   */
  List<List<Object>> insert(NewRecords records) throws SQLException {
    List<List<Object>> keys = copying.copy(records);
    return keys == null ? write(records.table(), records.changes()) : keys;
  }

  /**
   * Inserts records that leave different fields to the database, so that they are numbered in their
   * order.
   *
   * @return their primary keys, in their order; null if there is no such way for these
   * @throws RefusedException if one of them was not written, though the database said nothing
   */
  @Nullable List<List<Object>> insertInOrder(NewRecords records) throws SQLException {
    List<List<Object>> keys = copying.copy(records);
    if (keys != null || !dialect.takesDefaults()) {
      return keys;
    }
    List<Change> changes = records.changes();
    keys =
        dialect.insert(
            new Load(connection, going, records.table(), records.fields(), changes, true));
    return keys == null ? null : all(keys, changes);
  }

  private void bind(
      PreparedStatement statement, List<FieldInfo> fields, List<Object> values, int first)
      throws SQLException {
    bind(dialect, statement, fields, values, first);
  }

  /**
   * Binds the values of some fields.
   *
   * @param first number of the first parameter
   */
  static void bind(
      Dialect dialect,
      PreparedStatement statement,
      List<FieldInfo> fields,
      List<Object> values,
      int first)
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
        keys.add(key(dialect, found, keyFields));
      }
    }
    return all(keys, changes);
  }

  /** A primary key, in the form in which keys are compared. */
  static List<Object> key(Dialect dialect, ResultSet found, List<FieldInfo> keyFields)
      throws SQLException {
    List<Object> key = new ArrayList<>(keyFields.size());
    for (int i = 0; i < keyFields.size(); i++) {
      FieldInfo field = keyFields.get(i);
      key.add(field.storage().canonical(dialect.value(found, i + 1, field)));
    }
    return key;
  }

  /** The keys of records that must all have been kept. */
  private static List<List<Object>> all(List<List<Object>> keys, List<Change> changes) {
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
    return insertSql(dialect, table, fields, 1);
  }

  /** The statement that inserts so many records. */
  static String insertSql(Dialect dialect, TableInfo table, List<FieldInfo> fields, int records) {
    String marks = "(" + "?, ".repeat(Math.max(0, fields.size() - 1)) + "?)";
    return insertSql(dialect, table, fields, Collections.nCopies(records, marks));
  }

  /**
   * The statement that inserts records.
   *
   * @param marks what stands for the values of each
   */
  static String insertSql(
      Dialect dialect, TableInfo table, List<FieldInfo> fields, List<String> marks) {
    String into = "INSERT INTO " + dialect.name(table);
    if (fields.isEmpty()) {
      return into + dialect.onlyDefaults();
    }
    String names =
        fields.stream().map(f -> dialect.quote(f.name())).collect(Collectors.joining(", "));
    // a number that the database gives by itself is given again to a record that comes back
    boolean numbered = fields.stream().anyMatch(f -> f.generated() && !f.isFillable());
    return into
        + " ("
        + names
        + (numbered ? ") OVERRIDING SYSTEM VALUE VALUES " : ") VALUES ")
        + String.join(", ", marks);
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

  /**
   * Deletes records.
   *
   * @throws RefusedException if one of them is kept, though the database said nothing
   */
  void delete(TableInfo table, List<Removal> removals) throws SQLException {
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

  /** By the keys themselves, so many at a time; keys of several fields one by one. */
  private int deleteEach(TableInfo table, List<FieldInfo> keyFields, List<Removal> removals)
      throws SQLException {
    int most = keyFields.size() == 1 ? KEYS_IN_LIST : 1;
    int gone = 0;
    for (int from = 0; from < removals.size(); from += most) {
      List<Removal> some = removals.subList(from, Math.min(removals.size(), from + most));
      String where =
          some.size() == 1
              ? where(keyFields)
              : " WHERE "
                  + dialect.quote(keyFields.get(0).name())
                  + " IN ("
                  + "?, ".repeat(some.size() - 1)
                  + "?)";
      gone +=
          going.use(
              connection,
              "DELETE FROM " + dialect.name(table) + where,
              statement -> {
                for (int i = 0; i < some.size(); i++) {
                  bind(statement, keyFields, some.get(i).key(), i + 1);
                }
                return statement.executeUpdate();
              });
    }
    return gone;
  }
}
