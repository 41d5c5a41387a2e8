package org.zestyporter.core.application.jdbc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zestyporter.core.application.jdbc.BulkInsertTest.MANY;
import static org.zestyporter.core.application.jdbc.BulkInsertTest.fields;
import static org.zestyporter.core.application.jdbc.BulkInsertTest.names;
import static org.zestyporter.core.application.jdbc.BulkInsertTest.stand;
import static org.zestyporter.core.application.jdbc.BulkInsertTest.write;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.application.NewRecords;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.application.WriteSession.Change;
import org.zestyporter.core.value.ValueColumn;

/** Many records at once are loaded by MariaDB; what stands is what statements would have left. */
class MariaLoadTest {
  private static final String EVERYTHING =
      "(id BIGINT AUTO_INCREMENT PRIMARY KEY, words TEXT, amount DECIMAL(12,3),"
          + " huge DECIMAL(60,2), large BIGINT UNSIGNED, `exact one` DOUBLE, day DATE,"
          + " moment DATETIME(6), stamp TIMESTAMP(3) NULL, yes BOOLEAN, mood ENUM('calm', 'o''dd\\\\'),"
          + " code CHAR(4), doubled BIGINT AS (large * 2) VIRTUAL, noted TEXT DEFAULT 'by default')";

  private static Change everything(TableInfo table, int i) {
    return new Change(
        i + 2L,
        null,
        fields(
            table,
            "words",
            "amount",
            "huge",
            "large",
            "exact one",
            "day",
            "moment",
            "stamp",
            "yes",
            "mood",
            "code"),
        Arrays.asList(
            BulkInsertTest.TEXTS.get(i % BulkInsertTest.TEXTS.size()),
            new BigDecimal(i - 90).movePointLeft(3),
            new BigDecimal("1E+30").add(new BigDecimal(i)),
            new BigDecimal("9223372036854775807").add(new BigDecimal(i - 100)),
            new BigDecimal("1.0E-7").multiply(new BigDecimal(i)),
            i % 7 == 0 ? null : LocalDate.of(1, 1, 1).plusDays(i * 14_600L),
            LocalDateTime.of(1969, 12, 31, 23, 59, 58, 123_456_000).plusHours(i * 1_000L),
            LocalDateTime.of(2026, 11, 26, 3, 10, 59, 123_000_000).plusHours(i),
            i % 3 == 0 ? null : i % 3 == 1,
            i % 2 == 0 ? "calm" : "o'dd\\",
            i % 2 == 0 ? "ab" : null));
  }

  @Test
  void whatStandsIsWhatStatementsWouldHaveLeft() throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute(
          on.quoted("CREATE TABLE <Of Many> ") + EVERYTHING,
          on.quoted("CREATE TABLE <by ones> ") + EVERYTHING);
      TableInfo many = on.database().table("Of Many");
      TableInfo ones = on.database().table("by ones");
      List<Change> changes = IntStream.range(0, MANY).mapToObj(i -> everything(many, i)).toList();
      assertThat(load(on, NewRecords.of(many, numbered(many, changes)))).isTrue();
      List<List<Object>> keys = write(on, many, numbered(many, changes));
      List<List<Object>> single = BulkInsertTest.writeEach(on, ones, changes);
      assertThat(stand(on, many, keys).stream().map(r -> r.subList(1, r.size())))
          .isEqualTo(stand(on, ones, single).stream().map(r -> r.subList(1, r.size())).toList());
    }
  }

  /** The same with keys of their own. */
  private static List<Change> numbered(TableInfo table, List<Change> changes) {
    int id = fields(table, "id").get(0);
    return changes.stream()
        .map(
            c -> {
              List<Integer> fields = new ArrayList<>(c.fields());
              List<Object> values = new ArrayList<>(c.values());
              fields.add(id);
              values.add(new BigDecimal(c.line()));
              return new Change(c.line(), null, fields, values);
            })
        .toList();
  }

  /** True if they were loaded, and not by statements; nothing of it stays. */
  private static boolean load(Databases.Fresh on, NewRecords records) throws SQLException {
    MariaDialect dialect = new MariaDialect();
    String before = loads(on);
    on.connection().setAutoCommit(false);
    List<List<Object>> keys =
        new MariaLoad(dialect, on.connection(), new Going(dialect, Patience.USUAL)).copy(records);
    on.connection().rollback();
    on.connection().setAutoCommit(true);
    assertThat(loads(on).equals(before)).isEqualTo(keys == null);
    return keys != null;
  }

  private static String loads(Databases.Fresh on) throws SQLException {
    return on.rows("SHOW SESSION STATUS LIKE 'Handler_write'").get(0);
  }

  private static NewRecords named(TableInfo table, boolean withKeys) {
    ValueColumn[] columns = new ValueColumn[table.fields().size()];
    columns[fields(table, "name").get(0)] = ValueColumn.of(names().toArray(), null);
    if (withKeys) {
      Object[] numbers = IntStream.range(7, MANY + 7).mapToObj(BigDecimal::new).toArray();
      columns[fields(table, "id").get(0)] = ValueColumn.of(numbers, null);
    }
    return new NewRecords(table, columns, IntStream.range(0, MANY).toArray(), new long[MANY]);
  }

  /** Whoever decides the key, each record is found by the one that is told. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "id INT AUTO_INCREMENT PRIMARY KEY, name TEXT | false",
        "id SMALLINT UNSIGNED AUTO_INCREMENT, name VARCHAR(9), PRIMARY KEY (id, name) | false",
        "id UUID DEFAULT UUID() PRIMARY KEY, name TEXT | false",
        "id INT DEFAULT NEXTVAL(numbers) PRIMARY KEY, name TEXT | false",
        "name VARCHAR(9) PRIMARY KEY | true",
        "name TEXT | true",
      })
  void eachRecordIsFoundByItsKey(String columns, boolean isLoaded) throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute("CREATE SEQUENCE numbers START WITH 70", "CREATE TABLE t (" + columns + ")");
      TableInfo table = on.database().table("t");
      assertThat(load(on, named(table, false))).isEqualTo(isLoaded);
      if (!table.primaryKey().isEmpty()) {
        assertThat(BulkInsertTest.named(on, table)).isEqualTo(names());
      }
    }
  }

  /** A line that holds nothing but one text, which may be empty or a blank, is read as that. */
  @Test
  void aTextStandsAlone() throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute("CREATE TABLE t (name TEXT)");
      TableInfo table = on.database().table("t");
      List<String> texts = BulkInsertTest.TEXTS;
      Object[] names =
          IntStream.range(0, MANY).mapToObj(i -> texts.get(i % texts.size())).toArray();
      int[] rows = IntStream.range(0, MANY).toArray();
      ValueColumn[] columns = {ValueColumn.of(names, null)};
      NewRecords records = new NewRecords(table, columns, rows, new long[MANY]);
      assertThat(load(on, records)).isTrue();
      try (WriteSession session = on.database().begin()) {
        session.insert(records);
        session.commit();
      }
      assertThat(on.rows("SELECT COALESCE(HEX(name), 'blank') FROM t"))
          .isEqualTo(Arrays.stream(names).map(MariaLoadTest::hex).toList());
    }
  }

  private static String hex(Object text) {
    byte[] bytes = text == null ? null : text.toString().getBytes(StandardCharsets.UTF_8);
    return (bytes == null ? "blank" : HexFormat.of().withUpperCase().formatHex(bytes)) + ";";
  }

  /** Loading would take about twice as many numbers, which a narrow field may not have. */
  @Test
  void noNumberIsLeftOut() throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute("CREATE TABLE t (id TINYINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, name TEXT)");
      TableInfo table = on.database().table("t");
      assertThat(load(on, named(table, true))).isTrue();
      on.execute("DELETE FROM t", "ALTER TABLE t AUTO_INCREMENT = 1");
      assertThat(BulkInsertTest.named(on, table)).isEqualTo(names());
      assertThat(on.one("SELECT MAX(id) FROM t")).isEqualTo(MANY);
    }
  }

  /** What would be changed, cut or left out with a warning is refused, and named. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "name VARCHAR(20) UNIQUE",
        "name VARCHAR(3)",
        "name ENUM('a', 'n1')",
        "name VARCHAR(20) CHECK (name <> 'n150')",
        "name VARCHAR(20) CHARACTER SET ascii",
        "name VARCHAR(20), FOREIGN KEY (name) REFERENCES others (name)",
        "name VARCHAR(20) NOT NULL",
      })
  void whatWouldGetLostIsRefused(String name) throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute(
          "CREATE TABLE others (name VARCHAR(20) PRIMARY KEY)",
          "INSERT INTO others VALUES ('n1')",
          "CREATE TABLE t (id INT PRIMARY KEY, " + name + ")");
      TableInfo table = on.database().table("t");
      List<Integer> field = fields(table, "id", "name");
      String odd = name.contains("UNIQUE") ? "n1" : name.contains("ascii") ? "ñ" : "n150";
      Object refused = name.contains("NOT NULL") ? null : odd;
      List<Change> changes =
          IntStream.range(0, MANY)
              .mapToObj(
                  i ->
                      new Change(
                          i,
                          null,
                          field,
                          Arrays.asList(
                              new BigDecimal(i),
                              i == 150 ? refused : name.contains("UNIQUE") ? "n" + i : "n1")))
              .toList();
      try (WriteSession session = on.database().begin()) {
        assertThat(DatabaseTest.refused(session, table, changes)).containsExactly(150L);
        session.commit();
      }
      assertThat(on.database().count(table)).isEqualTo(MANY - 1);
    }
  }

  /** What is known of a table holds for one transaction: others can change it after that. */
  @Test
  void aTriggerThatComesInBetweenTwoBatchesHasItsSay() throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute("CREATE TABLE t (id INT PRIMARY KEY, name TEXT)");
      TableInfo table = on.database().table("t");
      try (WriteSession session = on.database().begin("two batches")) {
        session.insert(named(table, true));
        session.commit();
        on.execute(
            "DELETE FROM t",
            "CREATE TRIGGER later BEFORE INSERT ON t FOR EACH ROW SET NEW.name = UPPER(NEW.name)");
        List<List<Object>> keys = session.insert(named(table, true));
        session.commit();
        assertThat(stand(on, table, keys).get(3).get(1)).isEqualTo("N3");
      }
      assertThat(load(on, named(table, true))).isFalse();
    }
  }

  private static String updated(Databases.Fresh on) throws SQLException {
    return on.rows("SHOW GLOBAL STATUS LIKE 'Com_update'").get(0);
  }

  @Test
  void manyUpdatesGoByOneStatement() throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      TableInfo table = BulkInsertTest.filled(on);
      String before = updated(on);
      write(on, table, BulkInsertTest.updates());
      // over two tables, which the server counts apart
      assertThat(updated(on)).isEqualTo(before);
      assertThat(on.one("SELECT COUNT(*) FROM t WHERE n < 0")).isEqualTo((long) MANY);
    }
  }

  @Test
  void updatesAreTakenBackWithTheirTransaction() throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      TableInfo table = BulkInsertTest.filled(on);
      List<String> before = on.rows("SELECT * FROM t");
      try (WriteSession session = on.database().begin()) {
        WriteSession.Place place = session.place();
        session.write(table, BulkInsertTest.updates(), false);
        place.goBack();
        session.write(table, BulkInsertTest.updates().subList(0, 100), false);
        assertThat(on.rows("SELECT * FROM t")).isEqualTo(before);
      }
      assertThat(on.rows("SELECT * FROM t")).isEqualTo(before);
    }
  }

  @Test
  void whatAnotherLeftBehindIsInNobodysWay() throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      TableInfo table = BulkInsertTest.filled(on);
      on.execute("CREATE TEMPORARY TABLE `porter changes` (other INT)");
      MariaDialect dialect = new MariaDialect();
      Going going = new Going(dialect, Patience.USUAL);
      List<Change> changes = BulkInsertTest.updates();
      List<Integer> given = changes.get(0).fields();
      Load load =
          new Load(
              on.connection(),
              going,
              table,
              given.stream().map(table.fields()::get).toList(),
              changes,
              false);
      assertThat(new MariaLoad(dialect, on.connection(), going).update(load)).isEqualTo(MANY);
    }
  }

  /** Whatever keeps them from going together, what stands is the same, and the reason is told. */
  @ParameterizedTest
  @ValueSource(strings = {"trigger", "rights", "blank", "long"})
  void updatesGoByStatementsWhereTheyHaveTo(String why) throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      TableInfo table = BulkInsertTest.filled(on);
      Database database = on.database();
      List<Change> changes = new ArrayList<>(BulkInsertTest.updates());
      Change odd = changes.get(150);
      List<Object> values = new ArrayList<>(odd.values());
      switch (why) {
        case "trigger" ->
            on.execute(
                "CREATE TRIGGER later BEFORE UPDATE ON t FOR EACH ROW SET NEW.n = NEW.n * 2");
        case "rights" -> {
          String clerk = "clerk" + on.one("SELECT DATABASE()").toString().substring(1, 12);
          on.execute("CREATE USER " + clerk, "GRANT SELECT, UPDATE ON t TO " + clerk);
          String url = on.connection().getMetaData().getURL().replaceFirst("\\?.*", "");
          database = Database.connect(url, clerk, "");
        }
        case "blank" -> values.set(1, null);
        default -> values.set(2, "too long for it");
      }
      changes.set(150, new Change(odd.line(), odd.key(), odd.fields(), values));
      List<Long> refused;
      try (WriteSession session = database.begin()) {
        refused = DatabaseTest.refused(session, table, changes);
        session.commit();
      }
      boolean isRefused = why.equals("blank") || why.equals("long");
      // the code of a record that was refused is not free for the next
      assertThat(refused).hasSize(isRefused ? 50 : 0);
      String factor = why.equals("trigger") ? "-2" : "-1";
      assertThat(on.one("SELECT COUNT(*) FROM t WHERE n = `Key a` * " + factor))
          .isEqualTo((long) MANY - refused.size());
    }
  }

  @Test
  void aServerThatTakesNoFilesIsServedByStatements() throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute("CREATE TABLE t (id INT AUTO_INCREMENT PRIMARY KEY, name TEXT)");
      TableInfo table = on.database().table("t");
      on.execute("SET GLOBAL local_infile = 0");
      try {
        assertThat(load(on, named(table, true))).isFalse();
        assertThat(BulkInsertTest.named(on, table)).isEqualTo(names());
      } finally {
        on.execute("SET GLOBAL local_infile = 1");
      }
    }
  }
}
