package org.zestyporter.core.application.jdbc;

import java.io.InputStream;
import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Savepoint;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.NewRecords;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.ValueColumn;

/**
 * Writes records by {@code LOAD DATA LOCAL INFILE} (MariaDB's documentation, "Loading Data into
 * MariaDB"), which takes about half the time of statements: the database takes the first records
 * while the last are made ready. The file that it asks for is a stream of ours; no other is ever
 * given away. New records are loaded into their table, those that change into a temporary one, from
 * which one statement updates them.
 *
 * <p>What it can't take as it is given, it changes or leaves out with a warning. So with any
 * warning all is taken back, and left to statements. Where a trigger may decide otherwise, or keys
 * are not numbered one after the other, it is left to them from the beginning.
 */
final class MariaLoad implements Copying {
  /** What the database says if it does not load from its clients, by the page "Error Codes". */
  private static final Set<Integer> BARRED = Set.of(1148, 3948, 4166);

  private static final String TEMPORARY = "`porter changes`";
  private static final String DROP = "DROP TEMPORARY TABLE IF EXISTS " + TEMPORARY;

  private final Dialect dialect;
  private final Connection connection;
  private final Going going;

  /** By what is done and a table's name, whether nothing of the table's own acts then. */
  private final Map<List<String>, Boolean> plain = new HashMap<>();

  /** Whether keys are numbered one after the other within a statement; null if nobody asked. */
  private @Nullable Boolean isNumbering;

  private boolean isBarred;
  private boolean isWithoutTemporary;

  /**
   * What was loaded.
   *
   * @param records how many are there
   * @param first number of the first, if the database numbers them
   */
  private record Loaded(int records, long first) {}

  MariaLoad(Dialect dialect, Connection connection, Going going) {
    this.dialect = dialect;
    this.connection = connection;
    this.going = going;
  }

  @Override
  public @Nullable List<List<Object>> copy(NewRecords records) throws SQLException {
    TableInfo table = records.table();
    if (isBarred
        || records.count() < FEWEST
        || !MariaText.canTell(records.fields(), records.given(), records.rows())
        || !isPlain(table, "INSERT")) {
      return null;
    }
    List<FieldInfo> left = Copying.leftKeys(records);
    Collection<int[]> groups = records.alike();
    if (left.isEmpty()) {
      return load(records, groups) == null ? null : Copying.givenKeys(records);
    }
    boolean numbered =
        left.size() == 1 && table.primaryKey().size() == 1 && isNumbered(left.get(0));
    // numbers follow the order of the file
    Loaded loaded = numbered && groups.size() == 1 ? load(records, groups) : null;
    return loaded == null ? null : numbers(loaded);
  }

  private static List<List<Object>> numbers(Loaded loaded) {
    List<List<Object>> keys = new ArrayList<>(loaded.records);
    for (int i = 0; i < loaded.records; i++) {
      keys.add(List.of(BigDecimal.valueOf(loaded.first + i)));
    }
    return keys;
  }

  @Override
  public void forget() {
    plain.clear();
  }

  private boolean isPlain(TableInfo table, String deed) throws SQLException {
    List<String> of = List.of(deed, dialect.name(table));
    Boolean known = plain.get(of);
    if (known == null) {
      String sql =
          """
          SELECT 1 FROM information_schema.tables
          WHERE table_schema = COALESCE(?, DATABASE()) AND table_name = ?
            AND table_type = 'BASE TABLE' AND engine = 'InnoDB'
            AND NOT EXISTS (SELECT 1 FROM information_schema.triggers
              WHERE event_object_schema = table_schema AND event_object_table = table_name
                AND event_manipulation = ?)""";
      String in = table.schema();
      known = !Queries.texts(connection, sql, in, table.relation(), deed).isEmpty();
      plain.put(of, known);
    }
    return known;
  }

  private boolean isNumbered(FieldInfo key) throws SQLException {
    if (isNumbering == null) {
      String sql =
          """
          SELECT @@innodb_autoinc_lock_mode < 2 AND @@auto_increment_increment = 1""";
      isNumbering = Queries.texts(connection, sql).contains("1");
    }
    return isNumbering && key.generated();
  }

  /** Null if all was taken back, since not all would stand as it is given. */
  private @Nullable Loaded load(NewRecords records, Collection<int[]> groups) throws SQLException {
    Savepoint before = connection.setSavepoint();
    Loaded loaded = null;
    for (int[] places : groups) {
      NewRecords some = records.some(places);
      MariaText text = new MariaText(some.given(), some.rows());
      loaded = load(dialect.name(some.table()), some.fields(), text, some.count());
      if (loaded == null) {
        connection.rollback(before);
        break;
      }
    }
    connection.releaseSavepoint(before);
    return loaded;
  }

  /** Null if they are not all there as they are given. */
  private @Nullable Loaded load(String into, List<FieldInfo> fields, MariaText text, int records)
      throws SQLException {
    String sql =
        "LOAD DATA LOCAL INFILE 'records' INTO TABLE "
            + into
            + " CHARACTER SET utf8mb4 FIELDS TERMINATED BY X'09' ESCAPED BY X'5C'"
            + " LINES TERMINATED BY X'0A' ("
            + names(fields)
            + ")";
    return going.using(
        connection.createStatement(),
        statement -> {
          try {
            return load(statement, sql, text, records);
          } catch (SQLException e) {
            if (BARRED.contains(DatabaseErrors.root(e).getErrorCode())) {
              isBarred = true;
              return null;
            }
            throw e;
          }
        });
  }

  private String names(List<FieldInfo> fields) {
    return fields.stream().map(f -> dialect.quote(f.name())).collect(Collectors.joining(", "));
  }

  private static @Nullable Loaded load(
      Statement statement, String sql, InputStream text, int records) throws SQLException {
    statement.unwrap(org.mariadb.jdbc.Statement.class).setLocalInfileInputStream(text);
    int count = statement.executeUpdate(sql);
    try (ResultSet told = statement.executeQuery("SELECT @@warning_count, LAST_INSERT_ID()")) {
      told.next();
      boolean isWhole = count == records && told.getLong(1) == 0;
      return isWhole ? new Loaded(count, told.getLong(2)) : null;
    }
  }

  @Override
  public int update(Load load) throws SQLException {
    List<FieldInfo> fields = load.keysAndFields();
    int records = load.changes().size();
    if (isBarred
        || isWithoutTemporary
        || records < FEWEST
        || load.givesKeys()
        || !isPlain(load.table(), "UPDATE")) {
      return -1;
    }
    ValueColumn[] columns = load.columns();
    int[] rows = IntStream.range(0, records).toArray();
    return MariaText.canTell(fields, columns, rows) && makeTemporary(load.table(), fields)
        ? update(load, fields, new MariaText(columns, rows))
        : -1;
  }

  private int update(Load load, List<FieldInfo> fields, MariaText text) throws SQLException {
    try {
      if (load(TEMPORARY, fields, text, load.changes().size()) == null) {
        return -1;
      }
      // in the order in which they were loaded
      String sql =
          "UPDATE "
              + TEMPORARY
              + " AS s STRAIGHT_JOIN "
              + dialect.name(load.table())
              + " AS t ON "
              + Load.equal(dialect, load.keyFields(), "t.", " AND ")
              + " SET "
              + Load.equal(dialect, load.fields(), "t.", ", ");
      return going.using(connection.createStatement(), statement -> statement.executeUpdate(sql));
    } finally {
      going.using(connection.createStatement(), statement -> statement.execute(DROP));
    }
  }

  /** False if there may be no temporary table, as for want of a right. */
  private boolean makeTemporary(TableInfo like, List<FieldInfo> fields) throws SQLException {
    String sql =
        "CREATE TEMPORARY TABLE "
            + TEMPORARY
            + " ENGINE = InnoDB AS SELECT "
            + names(fields)
            + " FROM "
            + dialect.name(like)
            + " WHERE FALSE";
    try (Statement statement = connection.createStatement()) {
      statement.execute(sql);
    } catch (SQLException e) {
      isWithoutTemporary = true;
    }
    return !isWithoutTemporary;
  }
}
