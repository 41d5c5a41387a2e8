package org.zestyporter.core.application.jdbc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.NewRecords;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.application.WriteSession.Change;
import org.zestyporter.core.application.WriteSession.RefusedException;
import org.zestyporter.core.value.ValueColumn;

/** Many records at once go another way than a few; what stands afterwards is the same. */
class BulkInsertTest {
  static final int MANY = 200;

  static final List<String> TEXTS =
      Arrays.asList(
          "plain",
          "tab\there",
          "two\nlines",
          "back\\slash",
          "\\N",
          "\\.",
          "quote ' \" ; --",
          "",
          " ",
          "naïve Œuvre",
          "日本",
          "🚤",
          "cr\rhere",
          null);

  static List<Integer> fields(TableInfo table, String... names) {
    List<Integer> indexes = new ArrayList<>();
    for (FieldInfo field : table.fields(List.of(names))) {
      indexes.add(table.fields().indexOf(field));
    }
    return indexes;
  }

  static List<List<Object>> write(Databases.Fresh on, TableInfo table, List<Change> changes) {
    try (WriteSession session = on.database().begin()) {
      List<List<Object>> keys = session.write(table, changes, false);
      session.commit();
      return keys;
    }
  }

  /** Writes them one by one. */
  static List<List<Object>> writeEach(Databases.Fresh on, TableInfo table, List<Change> changes) {
    List<List<Object>> keys = new ArrayList<>();
    changes.forEach(change -> keys.addAll(write(on, table, List.of(change))));
    return keys;
  }

  /** The records of the keys, field by field. */
  static List<List<Object>> stand(Databases.Fresh on, TableInfo table, List<List<Object>> keys) {
    var found = on.database().fetch(table, keys);
    assertThat(found.count()).isEqualTo(keys.size());
    return keys.stream().map(k -> Arrays.asList(found.values(k))).toList();
  }

  private static final String EVERYTHING =
      "(id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY, words TEXT, amount NUMERIC(12,3),"
          + " huge NUMERIC, small SMALLINT, ratio REAL, exact DOUBLE PRECISION, day DATE,"
          + " moment TIMESTAMP, clock TIME, yes BOOLEAN, raw BYTEA, mark UUID, doc JSON,"
          + " mood mood DEFAULT 'calm', code CHAR(4), doubled INTEGER GENERATED ALWAYS AS (small * 2)"
          + " STORED, noted TEXT DEFAULT 'by default')";

  private static Change everything(TableInfo table, int i) {
    return new Change(
        i + 2L,
        null,
        fields(
            table, "words", "amount", "huge", "small", "ratio", "exact", "day", "moment", "clock",
            "yes", "raw", "mark", "doc", "mood", "code"),
        Arrays.asList(
            TEXTS.get(i % TEXTS.size()),
            new BigDecimal(i).movePointLeft(3),
            new BigDecimal("1E+30").add(new BigDecimal(i)),
            new BigDecimal(i - 100),
            new BigDecimal("0.1").multiply(new BigDecimal(i)),
            new BigDecimal("1.0E-7").multiply(new BigDecimal(i)),
            i % 7 == 0 ? null : LocalDate.of(1, 1, 1).plusDays(i * 3_650L),
            LocalDateTime.of(2026, 11, 26, 3, 10, 59, 123_456_000).plusHours(i),
            LocalTime.of(i % 24, 5),
            i % 3 == 0 ? null : i % 3 == 1,
            "\\x00ff5c0a" + String.format("%02x", i),
            "9f0c2f1e-0000-4000-8000-0000000000" + String.format("%02x", i),
            "{\"a\\tb\": [" + i + ", \"\\\\\"]}",
            i % 2 == 0 ? "calm" : "o'dd\\one",
            i % 2 == 0 ? "ab" : null));
  }

  @Test
  void whatStandsIsWhatStatementsWouldHaveLeft() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute(
          "CREATE TYPE mood AS ENUM ('calm', E'o''dd\\\\one')",
          "CREATE TABLE \"Of Many\" " + EVERYTHING,
          "CREATE TABLE \"by ones\" " + EVERYTHING);
      TableInfo many = on.database().table("Of Many");
      TableInfo ones = on.database().table("by ones");
      List<Change> changes = IntStream.range(0, MANY).mapToObj(i -> everything(many, i)).toList();
      List<List<Object>> keys = write(on, many, changes);
      List<List<Object>> single = writeEach(on, ones, changes);
      assertThat(keys).isEqualTo(single).doesNotHaveDuplicates();
      assertThat(stand(on, many, keys)).isEqualTo(stand(on, ones, single));
      // the next one goes on with the numbers
      assertThat(write(on, many, List.of(everything(many, 1))).get(0).get(0))
          .isEqualTo(new BigDecimal(MANY + 1));
    }
  }

  /** Whoever decides the key, each record is found by the one that is told. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "id SERIAL PRIMARY KEY, name TEXT",
        "id BIGINT GENERATED BY DEFAULT AS IDENTITY PRIMARY KEY, name TEXT",
        "id BIGINT DEFAULT nextval('\"Odd''s\"') PRIMARY KEY, name TEXT",
        "id UUID DEFAULT gen_random_uuid() PRIMARY KEY, name TEXT",
        "id INTEGER DEFAULT 5 + nextval('\"Odd''s\"') PRIMARY KEY, name TEXT",
        "name TEXT PRIMARY KEY",
        "name TEXT, id SERIAL, PRIMARY KEY (name, id)",
      })
  void eachRecordIsFoundByItsKey(String columns) throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute("CREATE SEQUENCE \"Odd's\" START 70", "CREATE TABLE t (" + columns + ")");
      TableInfo table = on.database().table("t");
      assertThat(named(on, table)).isEqualTo(names());
    }
  }

  @Test
  void whatATriggerDecidesIsToldAsItStands() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute(
          "CREATE TABLE t (id SERIAL PRIMARY KEY, name TEXT)",
          "CREATE FUNCTION later() RETURNS trigger LANGUAGE plpgsql AS"
              + " 'BEGIN NEW.id := NEW.id + 1000; RETURN NEW; END'",
          "CREATE TRIGGER t BEFORE INSERT ON t FOR EACH ROW EXECUTE FUNCTION later()");
      TableInfo table = on.database().table("t");
      assertThat(named(on, table)).isEqualTo(names());
    }
  }

  static List<String> names() {
    return IntStream.range(0, MANY).mapToObj(i -> "n" + i).toList();
  }

  /** Writes many names; gives those of the records that the keys find. */
  static List<String> named(Databases.Fresh on, TableInfo table) {
    List<Integer> name = fields(table, "name");
    List<List<Object>> keys =
        write(
            on,
            table,
            names().stream().map(n -> new Change(2, null, name, List.<Object>of(n))).toList());
    assertThat(keys).doesNotHaveDuplicates();
    return stand(on, table, keys).stream().map(r -> (String) r.get(name.get(0))).toList();
  }

  /** Each that is refused is named, and nothing of the others stands. */
  @Test
  void aRefusedRecordIsNamed() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute("CREATE TABLE t (id SERIAL PRIMARY KEY, name TEXT UNIQUE)");
      TableInfo table = on.database().table("t");
      List<Integer> name = fields(table, "name");
      List<Change> changes =
          IntStream.range(0, MANY)
              .mapToObj(
                  i -> new Change(i, null, name, List.<Object>of(i % 120 == 9 ? "n7" : "n" + i)))
              .toList();
      assertThatThrownBy(() -> write(on, table, changes)).isInstanceOf(RefusedException.class);
      assertThat(on.database().count(table)).isZero();
      try (WriteSession session = on.database().begin()) {
        assertThat(DatabaseTest.refused(session, table, changes)).containsExactly(9L, 129L);
      }
      assertThat(on.database().count(table)).isZero();
    }
  }

  /** A user who may insert, but not take numbers of the sequence, is served by statements. */
  @Test
  void rightsThatOnlyStatementsNeedAreEnough() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute("CREATE TABLE t (id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY, name TEXT)");
      TableInfo table = on.database().table("t");
      Object schema = on.one("SELECT current_schema()");
      String clerk = "clerk_" + schema;
      on.execute(
          "CREATE ROLE " + clerk,
          "GRANT ALL ON t TO " + clerk,
          "GRANT USAGE ON SCHEMA " + schema + " TO " + clerk,
          "SET ROLE " + clerk);
      assertThat(copy(on, table)).isNull();
      on.execute("RESET ROLE");
      assertThat(copy(on, table)).hasSize(MANY);
    }
  }

  /** What is known of a table holds for one transaction: others can change it after that. */
  @Test
  void aTriggerThatComesInBetweenTwoBatchesHasItsSay() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute("CREATE TABLE t (id INTEGER PRIMARY KEY, name TEXT)");
      TableInfo table = on.database().table("t");
      try (WriteSession session = on.database().begin("two batches")) {
        assertThat(session.write(table, named(table, 0), false)).contains(List.of(BigDecimal.ONE));
        session.commit();
        on.execute(
            "CREATE FUNCTION later() RETURNS trigger LANGUAGE plpgsql AS"
                + " 'BEGIN NEW.id := NEW.id + 1000; RETURN NEW; END'",
            "CREATE TRIGGER later BEFORE INSERT ON t FOR EACH ROW EXECUTE FUNCTION later()");
        List<List<Object>> keys = session.write(table, named(table, MANY), false);
        session.commit();
        assertThat(stand(on, table, keys)).hasSize(MANY);
        assertThat(keys).contains(List.of(new BigDecimal(MANY + 1_001)));
      }
    }
  }

  private static List<Change> named(TableInfo table, int from) {
    return IntStream.range(from, from + MANY)
        .mapToObj(
            i ->
                new Change(
                    i, null, fields(table, "id", "name"), List.of(new BigDecimal(i + 1), "n" + i)))
        .toList();
  }

  private static List<List<Object>> copy(Databases.Fresh on, TableInfo table) throws SQLException {
    ValueColumn[] columns = {null, ValueColumn.of(names().toArray(), null)};
    int[] all = IntStream.range(0, MANY).toArray();
    return new PostgresCopy(new PostgresDialect(), on.connection())
        .copy(new NewRecords(table, columns, all, new long[MANY]));
  }

  /** A number too large for its field is for the database to refuse, not to be cut. */
  @Test
  void aNumberTooLargeIsRefused() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute("CREATE TABLE t (id INTEGER PRIMARY KEY, small SMALLINT)");
      TableInfo table = on.database().table("t");
      List<Change> changes =
          IntStream.range(0, MANY)
              .mapToObj(
                  i ->
                      new Change(
                          i,
                          null,
                          List.of(0, 1),
                          List.<Object>of(new BigDecimal(i), new BigDecimal(i == 90 ? 40_000 : i))))
              .toList();
      assertThatThrownBy(() -> write(on, table, changes)).isInstanceOf(RefusedException.class);
    }
  }

  /** Records that leave a field with a default blank get the default; a blank in others stays. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void aBlankIsLeftToTheDefault(Databases.Fresh on) throws SQLException {
    try (on) {
      on.execute(
          "CREATE TABLE t (id INTEGER NOT NULL PRIMARY KEY, name VARCHAR(20) DEFAULT 'none',"
              + " note VARCHAR(20))");
      TableInfo table = on.database().table("t");
      Object[] ids = IntStream.range(0, MANY).mapToObj(BigDecimal::new).toArray();
      Object[] odd = IntStream.range(0, MANY).mapToObj(i -> i % 2 == 0 ? null : "n" + i).toArray();
      ValueColumn[] columns = {
        ValueColumn.of(ids, null), ValueColumn.of(odd, null), ValueColumn.of(odd, null)
      };
      int[] rows = IntStream.range(5, MANY).toArray();
      List<List<Object>> keys;
      try (WriteSession session = on.database().begin()) {
        keys = session.insert(new NewRecords(table, columns, rows, new long[rows.length]));
        session.commit();
      }
      assertThat(keys)
          .extracting(k -> ((BigDecimal) k.get(0)).intValue())
          .containsExactly(IntStream.range(5, MANY).boxed().toArray(Integer[]::new));
      assertThat(stand(on, table, keys).get(1)).isEqualTo(Arrays.asList(ids[6], "none", null));
      assertThat(stand(on, table, keys).get(2)).isEqualTo(List.of(ids[7], "n7", "n7"));
    }
  }

  /** Whatever they leave to the database, it numbers records in the order of the file. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void recordsAreNumberedInTheirOrder(Databases.Fresh on) throws SQLException {
    try (on) {
      on.execute(
          "CREATE TABLE t (id INTEGER GENERATED BY DEFAULT AS IDENTITY PRIMARY KEY,"
              + " name VARCHAR(20) DEFAULT 'none' NOT NULL, note VARCHAR(20) DEFAULT 'new')");
      TableInfo table = on.database().table("t");
      Object[] third =
          IntStream.range(0, MANY).mapToObj(i -> i % 3 == 0 ? null : "n" + i).toArray();
      Object[] fifth =
          IntStream.range(0, MANY).mapToObj(i -> i % 5 == 0 ? null : "o" + i).toArray();
      ValueColumn[] columns = {null, ValueColumn.of(third, null), ValueColumn.of(fifth, null)};
      int[] rows = IntStream.range(0, MANY).toArray();
      List<List<Object>> keys;
      try (WriteSession session = on.database().begin()) {
        keys = session.insert(new NewRecords(table, columns, rows, new long[MANY]));
        session.commit();
      }
      List<Integer> numbers = keys.stream().map(k -> ((BigDecimal) k.get(0)).intValue()).toList();
      assertThat(numbers).hasSize(MANY).isSorted().doesNotHaveDuplicates();
      List<List<Object>> stand = stand(on, table, keys);
      for (int i = 0; i < MANY; i++) {
        assertThat(stand.get(i).subList(1, 3))
            .containsExactly(i % 3 == 0 ? "none" : "n" + i, i % 5 == 0 ? "new" : "o" + i);
      }
    }
  }

  /** Many updates at once leave what one by one would, and tell of a record that is gone. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void manyUpdatesGoTogether(Databases.Fresh on) throws SQLException {
    try (on) {
      TableInfo table = filled(on);
      List<Change> changes = updates();
      List<List<Object>> keys = write(on, table, changes);
      assertThat(keys).isEqualTo(changes.stream().map(Change::key).toList());
      List<List<Object>> stand = stand(on, table, keys);
      for (int i = 0; i < MANY; i++) {
        assertThat(stand.get(i).get(2)).isEqualTo(changes.get(i).values().get(0));
        assertThat((BigDecimal) stand.get(i).get(3)).isEqualByComparingTo("-" + (i + 1));
        assertThat(stand.get(i).get(4)).isEqualTo("c" + i);
      }
      assertThat(on.rows(on.quoted("SELECT b FROM t WHERE <Some name> = 'before'")))
          .hasSize(300 - MANY);
      on.execute(on.quoted("DELETE FROM t WHERE <Key a> = 77"));
      assertThatThrownBy(() -> write(on, table, changes))
          .isInstanceOf(RefusedException.class)
          .hasMessageContaining("was removed while the run went on");
    }
  }

  @Test
  void whatIsSetForManyUpdatesDoesNotStay() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      write(on, filled(on), updates());
      assertThat(on.one("SELECT current_setting('enable_hashjoin')")).isEqualTo("on");
    }
  }

  /** A table with records that {@link #updates} change. */
  static TableInfo filled(Databases.Fresh on) throws SQLException {
    on.execute(
        on.quoted(
            "CREATE TABLE t (<Key a> INTEGER, b VARCHAR(20), <Some name> TEXT, n NUMERIC(9,3) NOT NULL,"
                + " code VARCHAR(9) UNIQUE, PRIMARY KEY (<Key a>, b))"),
        IntStream.rangeClosed(1, 300)
            .mapToObj(i -> "(" + i + ", 'k" + i + "', 'before', " + i + ", 'c" + i + "')")
            .collect(Collectors.joining(", ", "INSERT INTO t VALUES ", "")));
    return on.database().table("t");
  }

  /** Changes of records: their texts, numbers, and to each the code of the one before. */
  static List<Change> updates() {
    return IntStream.rangeClosed(1, MANY)
        .mapToObj(
            i ->
                new Change(
                    i,
                    List.of(new BigDecimal(i), "k" + i),
                    List.of(2, 3, 4),
                    Arrays.asList(TEXTS.get(i % TEXTS.size()), new BigDecimal(-i), "c" + (i - 1))))
        .toList();
  }
}
