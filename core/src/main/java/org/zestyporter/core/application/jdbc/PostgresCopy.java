package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyIn;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession.Change;

/**
 * Inserts records by {@code COPY … FROM STDIN} in its text format (PostgreSQL's documentation, part
 * VI), which takes a fraction of the time of statements.
 *
 * <p>COPY does not tell the keys of what it wrote. They are known nevertheless where they are
 * given, or where a sequence numbers them, whose numbers are then taken beforehand. Where something
 * in the database may decide otherwise (a trigger that acts before a row, a rule, a policy of
 * rows), it is left to statements.
 */
final class PostgresCopy {
  private static final Pattern SEQUENCE = Pattern.compile("nextval\\('(.+)'::regclass\\)");

  private final Dialect dialect;
  private final Connection connection;
  private final TableInfo table;

  /** The field that a sequence numbers; null if none is. */
  private @Nullable FieldInfo numbered;

  private @Nullable String sequence;

  private PostgresCopy(Dialect dialect, Connection connection, TableInfo table) {
    this.dialect = dialect;
    this.connection = connection;
    this.table = table;
  }

  /**
   * A way to insert records of some fields.
   *
   * @return null if they have to go by statements
   */
  static @Nullable PostgresCopy of(
      Dialect dialect, Connection connection, TableInfo table, List<FieldInfo> fields)
      throws SQLException {
    PostgresCopy copy = new PostgresCopy(dialect, connection, table);
    return !fields.isEmpty() && copy.isPlain() && copy.knowsKeys(fields) ? copy : null;
  }

  /** True if what is copied in is what will stand. */
  private boolean isPlain() throws SQLException {
    String sql =
        """
        SELECT c.relkind = 'r' AND NOT c.relrowsecurity AND NOT c.relhasrules
          AND NOT EXISTS (SELECT 1 FROM pg_trigger t
            WHERE t.tgrelid = c.oid AND NOT t.tgisinternal AND t.tgtype & 7 = 7)
        FROM pg_class c WHERE c.oid = ?::regclass""";
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      query.setString(1, dialect.name(table));
      try (ResultSet found = query.executeQuery()) {
        return found.next() && found.getBoolean(1);
      }
    }
  }

  private boolean knowsKeys(List<FieldInfo> fields) throws SQLException {
    for (FieldInfo key : table.fields(table.primaryKey())) {
      if (fields.contains(key)) {
        switch (key.storage().kind()) {
          case NUMBER, TEXT, UUID, DATE -> {
            // kept as it is given
          }
          default -> {
            return false;
          }
        }
      } else if (numbered == null && (sequence = sequenceOf(key)) != null) {
        numbered = key;
      } else {
        return false;
      }
    }
    return true;
  }

  /** The sequence that numbers a field, as the database writes its name; null if none may. */
  private @Nullable String sequenceOf(FieldInfo field) throws SQLException {
    String sql =
        """
        SELECT a.attidentity <> '', pg_get_expr(d.adbin, d.adrelid),
          pg_get_serial_sequence(?, a.attname)
        FROM pg_attribute a
        LEFT JOIN pg_attrdef d ON d.adrelid = a.attrelid AND d.adnum = a.attnum
        WHERE a.attrelid = ?::regclass AND a.attname = ?""";
    String found = null;
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      query.setString(1, dialect.name(table));
      query.setString(2, dialect.name(table));
      query.setString(3, field.name());
      try (ResultSet row = query.executeQuery()) {
        if (row.next() && row.getBoolean(1)) {
          found = row.getString(3);
        } else if (row.getString(2) != null) {
          Matcher numbering = SEQUENCE.matcher(row.getString(2));
          found = numbering.matches() ? numbering.group(1).replace("''", "'") : null;
        }
      }
    }
    return found != null && mayUse(found) ? found : null;
  }

  private boolean mayUse(String name) throws SQLException {
    String sql = "SELECT has_sequence_privilege(?::regclass::oid, 'USAGE')";
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      query.setString(1, name);
      try (ResultSet found = query.executeQuery()) {
        return found.next() && found.getBoolean(1);
      }
    }
  }

  /**
   * Inserts records, all with the same fields.
   *
   * @return their primary keys, in their order
   */
  List<List<Object>> insert(List<FieldInfo> fields, List<Change> changes) throws SQLException {
    List<BigDecimal> numbers = numbered == null ? null : numbers(changes.size());
    List<FieldInfo> columns = new ArrayList<>(fields);
    if (numbered != null) {
      columns.add(numbered);
    }
    StringBuilder rows = new StringBuilder(changes.size() * columns.size() * 12);
    for (int i = 0; i < changes.size(); i++) {
      List<Object> values = changes.get(i).values();
      for (int f = 0; f < fields.size(); f++) {
        rows.append(f == 0 ? "" : "\t");
        write(values.get(f), rows);
      }
      if (numbers != null) {
        rows.append('\t').append(numbers.get(i));
      }
      rows.append('\n');
    }
    send(columns, rows.toString().getBytes(StandardCharsets.UTF_8));
    return keys(fields, changes, numbers);
  }

  private List<BigDecimal> numbers(int count) throws SQLException {
    List<BigDecimal> numbers = new ArrayList<>(count);
    String sql = "SELECT nextval(?::regclass) FROM generate_series(1, ?)";
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      query.setString(1, sequence);
      query.setInt(2, count);
      try (ResultSet found = query.executeQuery()) {
        while (found.next()) {
          numbers.add(BigDecimal.valueOf(found.getLong(1)));
        }
      }
    }
    return numbers;
  }

  private void send(List<FieldInfo> columns, byte[] rows) throws SQLException {
    String names =
        columns.stream().map(f -> dialect.quote(f.name())).collect(Collectors.joining(", "));
    CopyIn copy =
        connection
            .unwrap(PGConnection.class)
            .getCopyAPI()
            .copyIn("COPY " + dialect.name(table) + " (" + names + ") FROM STDIN");
    try {
      copy.writeToCopy(rows, 0, rows.length);
      copy.endCopy();
    } finally {
      if (copy.isActive()) {
        copy.cancelCopy();
      }
    }
  }

  private List<List<Object>> keys(
      List<FieldInfo> fields, List<Change> changes, @Nullable List<BigDecimal> numbers) {
    List<FieldInfo> keyFields = table.fields(table.primaryKey());
    List<List<Object>> keys = new ArrayList<>(changes.size());
    for (int i = 0; i < changes.size(); i++) {
      List<Object> key = new ArrayList<>(keyFields.size());
      for (FieldInfo field : keyFields) {
        int at = fields.indexOf(field);
        Object value = at < 0 ? numbers.get(i) : changes.get(i).values().get(at);
        key.add(field.storage().canonical(value));
      }
      keys.add(keyFields.isEmpty() ? null : key);
    }
    return keys;
  }

  /** True if a value has a text that the database reads as that very value. */
  static boolean isWritable(@Nullable Object value) {
    if (value instanceof LocalDate day) {
      return day.getYear() >= 1 && day.getYear() <= 9_999;
    }
    if (value instanceof LocalDateTime moment) {
      return moment.getYear() >= 1 && moment.getYear() <= 9_999;
    }
    return !(value instanceof OffsetDateTime moment)
        || moment.getYear() >= 1 && moment.getYear() <= 9_999;
  }

  private static void write(@Nullable Object value, StringBuilder row) {
    if (value == null) {
      row.append("\\N");
      return;
    }
    String text = value instanceof BigDecimal number ? number.toPlainString() : value.toString();
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      switch (c) {
        case '\\' -> row.append("\\\\");
        case '\t' -> row.append("\\t");
        case '\n' -> row.append("\\n");
        case '\r' -> row.append("\\r");
        default -> row.append(c);
      }
    }
  }
}
