package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyIn;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.NewRecords;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/**
 * Inserts records by {@code COPY … FROM STDIN} (PostgreSQL's documentation, part VI), which takes a
 * fraction of the time of statements.
 *
 * <p>COPY does not tell the keys of what it wrote. They are known nevertheless where they are
 * given, or where a sequence numbers them, whose numbers are then taken beforehand. Where something
 * in the database may decide otherwise (a trigger that acts before a row, a rule, a policy of
 * rows), it is left to statements.
 */
final class PostgresCopy implements Copying {
  private static final Pattern SEQUENCE = Pattern.compile("nextval\\('(.+)'::regclass\\)");

  /** Bytes that are sent at once. */
  private static final int PIECE = 1 << 16;

  private final Dialect dialect;
  private final Connection connection;

  /** By a table's name, whether what is copied in is what will stand. */
  private final Map<String, Boolean> plain = new HashMap<>();

  /** The sequences that number fields, by the names of table and field. */
  private final Map<List<String>, Optional<Sequence>> sequences = new HashMap<>();

  /**
   * What numbers the records of a table.
   *
   * @param name as the database writes it
   */
  private record Sequence(FieldInfo field, String name) {}

  PostgresCopy(Dialect dialect, Connection connection) {
    this.dialect = dialect;
    this.connection = connection;
  }

  @Override
  public @Nullable List<List<Object>> copy(NewRecords records) throws SQLException {
    List<FieldInfo> fields = records.fields();
    TableInfo table = records.table();
    if (records.count() < FEWEST || fields.isEmpty() || !isPlain(table)) {
      return null;
    }
    List<FieldInfo> left = Copying.leftKeys(records);
    Sequence numbers = left.size() == 1 ? sequence(table, left.get(0), fields) : null;
    boolean can = left.isEmpty() || numbers != null;
    return can && PostgresText.canTell(records.given(), records.rows())
        ? insert(records, numbers)
        : null;
  }

  @Override
  public int update(Load load) throws SQLException {
    return new PostgresUpdate(dialect, load).update();
  }

  @Override
  public void forget() {
    plain.clear();
    sequences.clear();
  }

  private boolean isPlain(TableInfo table) throws SQLException {
    String name = dialect.name(table);
    Boolean known = plain.get(name);
    if (known == null) {
      String sql =
          """
          SELECT (c.relkind = 'r' AND NOT c.relrowsecurity AND NOT c.relhasrules
            AND NOT EXISTS (SELECT 1 FROM pg_trigger t
              WHERE t.tgrelid = c.oid AND NOT t.tgisinternal AND t.tgtype & 7 = 7))::text
          FROM pg_class c WHERE c.oid = ?::regclass""";
      known = Queries.texts(connection, sql, name).contains("true");
      plain.put(name, known);
    }
    return known;
  }

  /** What numbers a key field; null if nothing does, or it is given. */
  private @Nullable Sequence sequence(TableInfo table, FieldInfo key, List<FieldInfo> given)
      throws SQLException {
    if (given.contains(key)) {
      return null;
    }
    List<String> of = List.of(dialect.name(table), key.name());
    Optional<Sequence> known = sequences.get(of);
    if (known == null) {
      known = Optional.ofNullable(sequenceOf(table, key)).map(name -> new Sequence(key, name));
      sequences.put(of, known);
    }
    return known.orElse(null);
  }

  /** The sequence that numbers a field, as the database writes its name; null if none may. */
  private @Nullable String sequenceOf(TableInfo table, FieldInfo field) throws SQLException {
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

  private List<List<Object>> insert(NewRecords records, @Nullable Sequence numbers)
      throws SQLException {
    NewRecords all = numbers == null ? records : numbered(records, numbers);
    for (int[] places : all.alike()) {
      NewRecords some = all.some(places);
      String into = dialect.name(some.table());
      send(dialect, connection, into, some.fields(), some.given(), some.rows());
    }
    return Copying.givenKeys(all);
  }

  /** With numbers that are taken for them beforehand, in their order. */
  private NewRecords numbered(NewRecords records, Sequence by) throws SQLException {
    int[] rows = records.rows();
    // numbered as the rows of the other columns are
    Object[] numbers = new Object[Arrays.stream(rows).max().orElse(0) + 1];
    Iterator<BigDecimal> next = numbers(by.name(), rows.length).iterator();
    for (int row : rows) {
      numbers[row] = next.next();
    }
    ValueColumn[] columns = records.columns().clone();
    columns[records.table().fields().indexOf(by.field())] = ValueColumn.of(numbers, null);
    return new NewRecords(records.table(), columns, rows, records.lines());
  }

  private List<BigDecimal> numbers(String sequence, int count) throws SQLException {
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

  /**
   * Copies records into a table.
   *
   * @param into its name, as SQL has it
   */
  static void send(
      Dialect dialect,
      Connection connection,
      String into,
      List<FieldInfo> fields,
      ValueColumn[] columns,
      int[] rows)
      throws SQLException {
    PostgresRows format = PostgresBinary.of(fields, columns, rows);
    if (format == null) {
      format = new PostgresText(columns);
    }
    String names =
        fields.stream().map(f -> dialect.quote(f.name())).collect(Collectors.joining(", "));
    CopyIn copy =
        connection
            .unwrap(PGConnection.class)
            .getCopyAPI()
            .copyIn("COPY " + into + " (" + names + ") FROM STDIN" + format.options());
    try {
      Utf8 out = new Utf8(PIECE * 2);
      format.begin(out);
      for (int row : rows) {
        format.row(row, out);
        if (out.size() >= PIECE) {
          // the database takes them while the next are made ready
          copy.writeToCopy(out.array(), 0, out.size());
          out.clear();
        }
      }
      format.end(out);
      copy.writeToCopy(out.array(), 0, out.size());
      copy.endCopy();
    } finally {
      if (copy.isActive()) {
        copy.cancelCopy();
      }
    }
  }
}
