package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.temporal.ChronoField;
import java.time.temporal.Temporal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.ValueColumn;

/**
 * Answers asks over a connection, in the way that their size suggests: few keys, or many in an
 * indexed field of a much larger table, go to the database in sets; else the table is read once.
 */
final class Answers {
  private static final int LAST_YEAR = 9_999;
  private static final int KEYS_IN_LIST = 500;
  private static final int KEYS_IN_ARRAY = 20_000;

  /** A field that has as many times fewer values than there are keys finds too much else. */
  private static final int FOUND_BESIDE = 2;

  private static final int FETCH_SIZE = 2_000;

  /** As often as this a table must be larger than what is wanted of it, to be asked by key. */
  private static final int MUCH_LARGER = 8;

  private static final Comparison EXACT = Comparison.ignoring(List.of());

  private final Dialect dialect;
  private final Going going;

  Answers(Dialect dialect, Going going) {
    this.dialect = dialect;
    this.going = going;
  }

  /** Answers an ask; the connection must not commit by itself, so that records can be streamed. */
  void look(Connection connection, Ask ask, Consumer<ValueColumn[]> found) throws SQLException {
    if (ask.wanted() == null || !ask.by().stream().allMatch(dialect::canBeKey)) {
      scan(connection, ask.table(), ask.fields(), found);
      return;
    }
    List<List<Object>> keys = ask.wanted().stream().map(k -> key(ask.by(), k)).toList();
    keys = keys.stream().filter(k -> !k.isEmpty()).distinct().toList();
    boolean array = isArray(ask.by());
    int most = array ? KEYS_IN_ARRAY : Math.max(1, KEYS_IN_LIST / ask.by().size());
    Going.Use<Boolean> read = query -> inBatches(query, ask.fields(), found);
    if (keys.size() <= most || isWorthSets(connection, ask, keys.size())) {
      inSets(connection, ask.table(), list(ask.fields()), ask.by(), keys, most, read);
      return;
    }
    FieldInfo telling = array ? null : telling(ask.by(), keys);
    if (telling == null) {
      scan(connection, ask.table(), ask.fields(), found);
      return;
    }
    int place = ask.by().indexOf(telling);
    List<List<Object>> told = keys.stream().map(key -> List.of(key.get(place))).distinct().toList();
    List<FieldInfo> by = List.of(telling);
    inSets(connection, ask.table(), list(ask.fields()), by, told, KEYS_IN_ARRAY, read);
  }

  private boolean isArray(List<FieldInfo> by) {
    return by.size() == 1 && dialect.arrayOf(by.get(0)) != null;
  }

  /**
   * The field that tells most keys apart by itself, so that little else is found by it, and that
   * can be asked for in one array; null if there is none.
   */
  private @Nullable FieldInfo telling(List<FieldInfo> by, List<List<Object>> keys) {
    FieldInfo telling = null;
    long most = 0;
    for (int i = 0; i < by.size(); i++) {
      int part = i;
      long told = keys.stream().map(key -> key.get(part)).distinct().count();
      if (told > most && dialect.arrayOf(by.get(i)) != null) {
        telling = by.get(i);
        most = told;
      }
    }
    return most > KEYS_IN_ARRAY || most * FOUND_BESIDE < keys.size() ? null : telling;
  }

  private boolean isWorthSets(Connection connection, Ask ask, int keys) throws SQLException {
    return new Indexes(dialect, ask.table()).lead(connection, ask.by().subList(0, 1))
        && (long) keys * MUCH_LARGER < count(connection, ask.table());
  }

  /** A key as the database can be given it; empty if no record can hold it. */
  private List<Object> key(List<FieldInfo> by, List<Object> wanted) {
    List<Object> key = new ArrayList<>(by.size());
    for (int i = 0; i < by.size(); i++) {
      Object part = part(by.get(i), wanted.get(i));
      if (part == null || !dialect.canAsk(by.get(i), part)) {
        return List.of();
      }
      key.add(part);
    }
    return key;
  }

  private static @Nullable Object part(FieldInfo field, @Nullable Object value) {
    if (value == null) {
      return null;
    }
    switch (field.storage().kind()) {
      case TEXT, PADDED, CASELESS, UUID -> {
        String text = EXACT.prepare(value);
        boolean impossible = field.storage().kind() == Storage.Kind.UUID && !isUuid(text);
        // MariaDB refuses even the question
        impossible |= !field.hasLettersOf(text);
        return impossible || Texts.forbidden(text) != null ? null : text;
      }
      default -> {
        return typed(field, value);
      }
    }
  }

  private static @Nullable Object typed(FieldInfo field, Object value) {
    Object typed = value instanceof String text ? field.type().read(text) : value;
    if (typed instanceof BigDecimal number && field.type() == FieldType.WHOLE) {
      BigDecimal bare = number.stripTrailingZeros();
      boolean tooLarge = field.precision() == null && bare.precision() - bare.scale() > 18;
      return bare.scale() > 0 || tooLarge ? null : bare.setScale(0);
    }
    return typed instanceof Temporal time && isFar(time) ? null : typed;
  }

  /** True for a year that no two databases write alike. */
  private static boolean isFar(Temporal time) {
    return time.isSupported(ChronoField.YEAR)
        && (time.get(ChronoField.YEAR) > LAST_YEAR || time.get(ChronoField.YEAR) < 1);
  }

  private static boolean isUuid(String text) {
    return text.matches("\\p{XDigit}{8}(-\\p{XDigit}{4}){3}-\\p{XDigit}{12}");
  }

  /** Hands over the values of some fields of every record. */
  private void scan(
      Connection connection, TableInfo table, List<FieldInfo> fields, Consumer<ValueColumn[]> found)
      throws SQLException {
    String sql = "SELECT " + list(fields) + " FROM " + dialect.name(table);
    going.use(
        connection,
        sql,
        query -> {
          query.setFetchSize(FETCH_SIZE);
          return inBatches(query, fields, found);
        });
  }

  private void keyed(
      Connection connection,
      TableInfo table,
      String wanted,
      List<FieldInfo> by,
      List<List<Object>> keys,
      boolean array,
      Going.Use<Boolean> read)
      throws SQLException {
    String where = array ? dialect.quote(by.get(0).name()) + " = ANY (?)" : inList(by, keys.size());
    String from = " FROM " + dialect.name(table);
    String sql = "SELECT " + wanted + from + " WHERE " + where;
    going.use(
        connection,
        sql,
        query -> {
          if (array) {
            Object[] values = keys.stream().map(k -> Fields.element(k.get(0))).toArray();
            query.setArray(1, connection.createArrayOf(dialect.arrayOf(by.get(0)), values));
          } else {
            int parameter = 1;
            for (List<Object> key : keys) {
              for (int i = 0; i < by.size(); i++) {
                Fields.bind(query, parameter++, by.get(i), key.get(i), dialect);
              }
            }
          }
          return read.with(query);
        });
  }

  /** Some fields of the records of a set of primary keys; keys without a record are left out. */
  Records fetch(
      Connection connection,
      TableInfo table,
      Collection<FieldInfo> fields,
      Collection<List<Object>> keys)
      throws SQLException {
    ColumnMaker[] columns = makers(table.fields());
    List<FieldInfo> asked = table.fields().stream().filter(fields::contains).toList();
    ColumnMaker[] read =
        asked.stream().map(f -> columns[table.fields().indexOf(f)]).toArray(ColumnMaker[]::new);
    inSets(
        connection,
        table,
        list(asked),
        keys,
        query -> {
          dialect.toRead(query);
          try (ResultSet found = query.executeQuery()) {
            return read(found, asked, read, Integer.MAX_VALUE);
          }
        });
    for (ColumnMaker column : columns) {
      while (column.count() < read[0].count()) {
        column.blank();
      }
    }
    return Records.of(table, columns);
  }

  /** What some fields add up to. */
  Sums sums(TableInfo table, List<FieldInfo> numbers) {
    return new Sums(this, dialect, going, table, numbers);
  }

  /** Asks for records by their primary keys, so many at a time as the database takes. */
  void inSets(
      Connection connection,
      TableInfo table,
      String wanted,
      Collection<List<Object>> keys,
      Going.Use<Boolean> read)
      throws SQLException {
    List<FieldInfo> by = table.fields(table.primaryKey());
    int most = isArray(by) ? KEYS_IN_ARRAY : KEYS_IN_LIST;
    inSets(connection, table, wanted, by, new ArrayList<>(keys), most, read);
  }

  /** Asks by so many keys at a time. */
  private void inSets(
      Connection connection,
      TableInfo table,
      String wanted,
      List<FieldInfo> by,
      List<List<Object>> keys,
      int most,
      Going.Use<Boolean> read)
      throws SQLException {
    for (int from = 0; from < keys.size(); from += most) {
      List<List<Object>> some = keys.subList(from, Math.min(keys.size(), from + most));
      keyed(connection, table, wanted, by, some, isArray(by), read);
    }
  }

  private static ColumnMaker[] makers(List<FieldInfo> fields) {
    ColumnMaker[] makers = new ColumnMaker[fields.size()];
    Arrays.setAll(makers, f -> new ColumnMaker());
    return makers;
  }

  private boolean inBatches(
      PreparedStatement query, List<FieldInfo> fields, Consumer<ValueColumn[]> batch)
      throws SQLException {
    dialect.toRead(query);
    try (ResultSet found = query.executeQuery()) {
      boolean more = true;
      while (more) {
        ColumnMaker[] columns = makers(fields);
        more = read(found, fields, columns, FETCH_SIZE);
        if (columns[0].count() > 0) {
          batch.accept(Arrays.stream(columns).map(ColumnMaker::column).toArray(ValueColumn[]::new));
        }
      }
    }
    return true;
  }

  /** Reads up to so many records; false if there are no more. */
  private boolean read(ResultSet found, List<FieldInfo> fields, ColumnMaker[] columns, int most)
      throws SQLException {
    for (int count = 0; count < most; count++) {
      if (!found.next()) {
        return false;
      }
      for (int f = 0; f < columns.length; f++) {
        dialect.read(found, f + 1, fields.get(f), columns[f]);
      }
    }
    return true;
  }

  private String inList(List<FieldInfo> fields, int count) {
    if (fields.size() == 1) {
      return dialect.quote(fields.get(0).name()) + " IN (" + "?,".repeat(count - 1) + "?)";
    }
    String one =
        fields.stream()
            .map(f -> dialect.quote(f.name()) + " = ?")
            .collect(Collectors.joining(" AND ", "(", ")"));
    return (one + " OR ").repeat(count - 1) + one;
  }

  long count(Connection connection, TableInfo table) throws SQLException {
    return going.use(connection, "SELECT COUNT(*) FROM " + dialect.name(table), Answers::first);
  }

  static Long first(PreparedStatement query) throws SQLException {
    try (ResultSet found = query.executeQuery()) {
      found.next();
      return found.getLong(1);
    }
  }

  /** Hands over the records that a query finds, one by one. */
  boolean read(PreparedStatement query, List<FieldInfo> fields, Consumer<Object[]> consumer)
      throws SQLException {
    try (ResultSet found = query.executeQuery()) {
      while (found.next()) {
        Object[] values = new Object[fields.size()];
        for (int i = 0; i < values.length; i++) {
          values[i] = dialect.value(found, i + 1, fields.get(i));
        }
        consumer.accept(values);
      }
    }
    return true;
  }

  String list(List<FieldInfo> fields) {
    return fields.stream().map(f -> dialect.quote(f.name())).collect(Collectors.joining(", "));
  }
}
