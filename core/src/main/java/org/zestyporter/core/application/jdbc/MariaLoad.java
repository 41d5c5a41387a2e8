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
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.NewRecords;
import org.zestyporter.core.application.TableInfo;

/**
 * Inserts records by {@code LOAD DATA LOCAL INFILE} (MariaDB's documentation, "Loading Data into
 * MariaDB"), which takes about half the time of statements: the database takes the first records
 * while the last are made ready. The file that it asks for is a stream of ours; no other is ever
 * given away.
 *
 * <p>What it can't take as it is given, it changes or leaves out with a warning. So with any
 * warning all is taken back, and left to statements. Where a trigger may decide otherwise, or keys
 * are not numbered one after the other, it is left to them from the beginning.
 */
final class MariaLoad implements Copying {
  /** Fewer records go as well by statements. */
  private static final int FEWEST = 64;

  /** What the database says if it does not load from its clients, by the page "Error Codes". */
  private static final Set<Integer> BARRED = Set.of(1148, 3948, 4166);

  private final Dialect dialect;
  private final Connection connection;
  private final Going going;

  /** By a table's name, whether nothing acts on what is loaded into it. */
  private final Map<String, Boolean> plain = new HashMap<>();

  /** Whether keys are numbered one after the other within a statement; null if nobody asked. */
  private @Nullable Boolean isNumbering;

  private boolean isBarred;

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
        || !isPlain(table)) {
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

  private boolean isPlain(TableInfo table) throws SQLException {
    String name = dialect.name(table);
    Boolean known = plain.get(name);
    if (known == null) {
      String sql =
          """
          SELECT 1 FROM information_schema.tables
          WHERE table_schema = COALESCE(?, DATABASE()) AND table_name = ?
            AND table_type = 'BASE TABLE' AND engine = 'InnoDB'
            AND NOT EXISTS (SELECT 1 FROM information_schema.triggers
              WHERE event_object_schema = table_schema AND event_object_table = table_name
                AND event_manipulation = 'INSERT')""";
      known = !Queries.texts(connection, sql, table.schema(), table.relation()).isEmpty();
      plain.put(name, known);
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
      loaded = load(records.some(places));
      if (loaded == null) {
        connection.rollback(before);
        break;
      }
    }
    connection.releaseSavepoint(before);
    return loaded;
  }

  private @Nullable Loaded load(NewRecords records) throws SQLException {
    String sql =
        records.fields().stream()
            .map(f -> dialect.quote(f.name()))
            .collect(
                Collectors.joining(
                    ", ",
                    "LOAD DATA LOCAL INFILE 'records' INTO TABLE "
                        + dialect.name(records.table())
                        + " CHARACTER SET utf8mb4 FIELDS TERMINATED BY X'09' ESCAPED BY X'5C'"
                        + " LINES TERMINATED BY X'0A' (",
                    ")"));
    MariaText text = new MariaText(records.given(), records.rows());
    return going.using(
        connection.createStatement(),
        statement -> {
          try {
            return load(statement, sql, text, records.count());
          } catch (SQLException e) {
            if (BARRED.contains(DatabaseErrors.root(e).getErrorCode())) {
              isBarred = true;
              return null;
            }
            throw e;
          }
        });
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
}
