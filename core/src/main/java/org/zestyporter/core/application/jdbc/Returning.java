package org.zestyporter.core.application.jdbc;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.WriteSession.Change;

/**
 * Inserts records by statements that tell the primary keys of what they made ({@code INSERT …
 * RETURNING}), or by such that need not.
 */
final class Returning {
  private final Dialect dialect;
  private final Load load;
  private final List<FieldInfo> fields;
  private final List<FieldInfo> keyFields;

  Returning(Dialect dialect, Load load) {
    this.dialect = dialect;
    this.load = load;
    this.fields = load.fields();
    this.keyFields = load.keyFields();
  }

  /** Inserts some of them by one statement. */
  List<List<Object>> together(List<Change> changes) throws SQLException {
    return load.going()
        .use(
            load.connection(),
            sql(changes.stream().map(this::marks).toList()),
            statement -> {
              int parameter = 1;
              for (Change change : changes) {
                for (int f = 0; f < fields.size(); f++) {
                  if (!load.leaves(change, f)) {
                    Object value = change.values().get(f);
                    Fields.bind(statement, parameter++, fields.get(f), value, dialect);
                  }
                }
              }
              return keys(statement, changes.size());
            });
  }

  /** Inserts them one after another. */
  List<List<Object>> each() throws SQLException {
    return load.going()
        .use(
            load.connection(),
            sql(List.of(marks(load.changes().get(0)))),
            statement -> {
              List<List<Object>> keys = new ArrayList<>(load.changes().size());
              for (Change change : load.changes()) {
                Statements.bind(dialect, statement, fields, change.values(), 1);
                keys.addAll(keys(statement, 1));
              }
              return keys;
            });
  }

  /**
   * Inserts them by a batch, which tells no more than how many are kept: for records that stand as
   * they are given.
   */
  List<List<Object>> silently() throws SQLException {
    int[] keyAt = keyFields.stream().mapToInt(fields::indexOf).toArray();
    return load.going()
        .use(
            load.connection(),
            Statements.insertSql(dialect, load.table(), fields, 1),
            statement -> {
              List<List<Object>> keys = new ArrayList<>(load.changes().size());
              for (Change change : load.changes()) {
                Statements.bind(dialect, statement, fields, change.values(), 1);
                statement.addBatch();
                List<Object> key = new ArrayList<>(keyAt.length);
                for (int i = 0; i < keyAt.length; i++) {
                  key.add(keyFields.get(i).storage().canonical(change.values().get(keyAt[i])));
                }
                keys.add(keyAt.length == 0 ? null : key);
              }
              int[] counts = statement.executeBatch();
              for (int i = counts.length - 1; i >= 0; i--) {
                if (counts[i] == 0) {
                  keys.remove(i);
                }
              }
              return keys;
            });
  }

  /** True if all parts of the primary key are among the fields. */
  boolean knowsKeys() {
    return fields.containsAll(keyFields);
  }

  private String marks(Change change) {
    return IntStream.range(0, fields.size())
        .mapToObj(f -> load.leaves(change, f) ? "DEFAULT" : "?")
        .collect(Collectors.joining(", ", "(", ")"));
  }

  private String sql(List<String> marks) {
    String insert = Statements.insertSql(dialect, load.table(), fields, marks);
    return keyFields.isEmpty()
        ? insert
        : insert
            + keyFields.stream()
                .map(f -> dialect.quote(f.name()))
                .collect(Collectors.joining(", ", " RETURNING ", ""));
  }

  private List<List<Object>> keys(PreparedStatement statement, int records) throws SQLException {
    if (keyFields.isEmpty()) {
      return new ArrayList<>(Collections.nCopies(statement.executeUpdate(), null));
    }
    List<List<Object>> keys = new ArrayList<>(records);
    try (ResultSet found = statement.executeQuery()) {
      while (found.next()) {
        keys.add(Statements.key(dialect, found, keyFields));
      }
    }
    return keys;
  }
}
