package org.zestyporter.core.application.jdbc;

import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession.Change;

/**
 * Updates records together: what is given goes by COPY into a table that lasts as long as the
 * transaction, and from there by one {@code UPDATE … FROM} into the records.
 */
final class PostgresUpdate {
  private static final String MAY =
      "SELECT has_database_privilege(current_database(), 'TEMP')"
          + " AND NOT (SELECT c.relhasrules FROM pg_class c WHERE c.oid = ?::regclass)";

  private final Dialect dialect;
  private final Connection connection;
  private final Going going;
  private final TableInfo table;
  private final List<FieldInfo> fields;
  private final List<FieldInfo> keyFields;
  private final String given;

  private PostgresUpdate(
      Dialect dialect,
      Connection connection,
      Going going,
      TableInfo table,
      List<FieldInfo> fields) {
    this.dialect = dialect;
    this.connection = connection;
    this.going = going;
    this.table = table;
    this.fields = fields;
    this.keyFields = table.fields(table.primaryKey());
    String what =
        dialect.name(table)
            + fields.stream().map(FieldInfo::name).collect(Collectors.joining("\0", " ", ""));
    this.given = String.format("porter_given_%08x%08x", what.hashCode(), (what + what).hashCode());
  }

  /**
   * A way to update some fields of records.
   *
   * @return null if they have to go by statements
   */
  static @Nullable PostgresUpdate of(
      Dialect dialect, Connection connection, Going going, TableInfo table, List<FieldInfo> fields)
      throws SQLException {
    boolean may = "t".equals(Dialect.texts(connection, MAY, dialect.name(table)).get(0));
    return may ? new PostgresUpdate(dialect, connection, going, table, fields) : null;
  }

  /**
   * Updates records, all of them in the same fields.
   *
   * @return how many were there
   */
  int update(List<Change> changes) throws SQLException {
    try (Statement statement = connection.createStatement()) {
      statement.execute(
          "CREATE TEMPORARY TABLE IF NOT EXISTS "
              + given
              + " ON COMMIT DROP AS SELECT "
              + each(keyFields.size(), i -> quoted(keyFields.get(i)) + " AS k" + i)
              + ", "
              + each(fields.size(), i -> quoted(fields.get(i)) + " AS f" + i)
              + " FROM "
              + dialect.name(table)
              + " LIMIT 0");
      statement.execute("TRUNCATE " + given);
    }
    StringBuilder rows = new StringBuilder(changes.size() * (fields.size() + 1) * 12);
    for (Change change : changes) {
      List<Object> values = new ArrayList<>(change.key());
      values.addAll(change.values());
      PostgresCopy.row(values, rows);
    }
    PostgresCopy.send(
        connection,
        "COPY " + given + " FROM STDIN",
        rows.toString().getBytes(StandardCharsets.UTF_8));
    String sql =
        "UPDATE "
            + dialect.name(table)
            + " AS t SET "
            + each(fields.size(), i -> quoted(fields.get(i)) + " = g.f" + i)
            + " FROM "
            + given
            + " AS g WHERE "
            + IntStream.range(0, keyFields.size())
                .mapToObj(i -> "t." + quoted(keyFields.get(i)) + " = g.k" + i)
                .collect(Collectors.joining(" AND "));
    return going.use(connection, sql, java.sql.PreparedStatement::executeUpdate);
  }

  private String quoted(FieldInfo field) {
    return dialect.quote(field.name());
  }

  private static String each(int count, IntFunction<String> one) {
    return IntStream.range(0, count).mapToObj(one).collect(Collectors.joining(", "));
  }
}
