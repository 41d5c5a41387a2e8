package org.zestyporter.core.application.jdbc;

import java.io.InputStream;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Savepoint;
import java.sql.Statement;
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
 * MariaDB"), which takes less time than statements: the database takes the first records while the
 * last are made ready. The file that it asks for is a stream of ours; no other is ever given away.
 * New records are loaded into their table, those that change into a temporary one, from which one
 * statement updates them.
 *
 * <p>What it can't take as it is given, it changes or leaves out with a warning. So with any
 * warning all is taken back, and left to statements. Where a trigger may decide otherwise it is
 * left to them from the beginning, and also where the database numbers the records: it would take
 * about twice as many numbers as there are records.
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

  private boolean isBarred;
  private boolean isWithoutTemporary;

  MariaLoad(Dialect dialect, Connection connection, Going going) {
    this.dialect = dialect;
    this.connection = connection;
    this.going = going;
  }

  @Override
  public @Nullable List<List<Object>> copy(NewRecords records) throws SQLException {
    boolean can =
        !isBarred
            && records.count() >= FEWEST
            && Copying.leftKeys(records).isEmpty()
            && MariaText.canTell(records.fields(), records.given(), records.rows())
            && isPlain(records.table(), "INSERT");
    return can && load(records) ? Copying.givenKeys(records) : null;
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

  /** False if all was taken back, since not all would stand as it is given. */
  private boolean load(NewRecords records) throws SQLException {
    Savepoint before = connection.setSavepoint();
    boolean isWhole = true;
    for (int[] places : records.alike()) {
      NewRecords some = records.some(places);
      MariaText text = new MariaText(some.given(), some.rows());
      isWhole = isWhole && load(dialect.name(some.table()), some.fields(), text, some.count());
    }
    if (!isWhole) {
      connection.rollback(before);
    }
    connection.releaseSavepoint(before);
    return isWhole;
  }

  /** False if they are not all there as they are given. */
  private boolean load(String into, List<FieldInfo> fields, MariaText text, int records)
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
              return false;
            }
            throw e;
          }
        });
  }

  private String names(List<FieldInfo> fields) {
    return fields.stream().map(f -> dialect.quote(f.name())).collect(Collectors.joining(", "));
  }

  private static boolean load(Statement statement, String sql, InputStream text, int records)
      throws SQLException {
    statement.unwrap(org.mariadb.jdbc.Statement.class).setLocalInfileInputStream(text);
    int count = statement.executeUpdate(sql);
    try (ResultSet warnings = statement.executeQuery("SELECT @@warning_count")) {
      return warnings.next() && warnings.getLong(1) == 0 && count == records;
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
      if (!load(TEMPORARY, fields, text, load.changes().size())) {
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
      // one that was stopped may have left it to the next who has the connection
      statement.execute(DROP);
      statement.execute(sql);
    } catch (SQLException e) {
      isWithoutTemporary = true;
    }
    return !isWithoutTemporary;
  }
}
