package org.zestyporter.core.application.jdbc;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.Lookups;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;

/** What is asked for is handed over, by key where that is less than the table. */
class AnswersTest {
  private static final int RECORDS = 3_000;

  private static TableInfo table(Databases.Fresh on) throws SQLException {
    on.execute(
        "CREATE TABLE part (id INTEGER PRIMARY KEY, code CHAR(8) NOT NULL UNIQUE,"
            + " weight NUMERIC(24,3), made DATE, serial UUID, label VARCHAR(40))");
    StringBuilder insert = new StringBuilder("INSERT INTO part VALUES ");
    for (int i = 1; i <= RECORDS; i++) {
      insert
          .append(i == 1 ? "" : ",")
          .append("(" + i + ",'P" + i + "'," + i + ".5,DATE '2026-01-0" + (i % 9 + 1) + "',")
          .append(String.format("'%08x-0000-4000-8000-000000000000'", i))
          .append(",'part " + i % 100 + "')");
    }
    on.execute(insert.toString());
    return on.database().table("part");
  }

  private static List<Object[]> look(
      Lookups lookups, TableInfo table, String by, List<List<Object>> keys) {
    List<Object[]> found = new ArrayList<>();
    lookups.look(
        Ask.keyed(table, table.fields(List.of("id", by)), table.fields(List.of(by)), keys),
        Records.each(found::add));
    return found;
  }

  private static List<List<Object>> keys(Object... values) {
    return java.util.Arrays.stream(values).map(List::of).toList();
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void fewKeysAreNotLookedForInTheWholeTable(Databases.Fresh on) throws SQLException {
    try (on) {
      TableInfo part = table(on);
      Database database = on.database();
      assertThat(look(database, part, "code", keys("P7", "P70", "gone"))).hasSize(2);
      assertThat(look(database, part, "id", keys(new BigDecimal("7"), new BigDecimal("12.0"))))
          .hasSize(2);
      assertThat(look(database, part, "weight", keys(new BigDecimal("7.50")))).hasSize(1);
      assertThat(look(database, part, "made", keys(LocalDate.of(2026, 1, 2), "2026-01-03")))
          .hasSizeBetween(2 * RECORDS / 9, 2 * RECORDS / 9 + 2);
      assertThat(look(database, part, "label", keys("part 5"))).hasSize(RECORDS / 100);
      // SQLite compares them as texts, so that all are looked at
      assertThat(
              look(database, part, "serial", keys("0000000a-0000-4000-8000-000000000000", "none")))
          .hasSize(on.name().equals("SQLite") ? RECORDS : 1)
          .anySatisfy(r -> assertThat(r[0]).isEqualTo(BigDecimal.TEN));
      try (WriteSession session = database.begin()) {
        assertThat(look(session, part, "code", keys("P7"))).hasSize(1);
      }
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void keysThatNoRecordCanHoldDoNoHarm(Databases.Fresh on) throws SQLException {
    try (on;
        WriteSession session = on.database().begin()) {
      TableInfo part = table(on);
      assertThat(
              look(
                  session,
                  part,
                  "id",
                  keys(
                      "seven",
                      new BigDecimal("7.5"),
                      new BigDecimal("1E40"),
                      new BigDecimal("2147483648"),
                      new BigDecimal("12345678000190"))))
          .isEmpty();
      assertThat(look(session, part, "weight", keys(new BigDecimal("1E30")))).isEmpty();
      assertThat(look(session, part, "made", keys(LocalDate.of(99_999, 1, 1)))).isEmpty();
      assertThat(look(session, part, "label", keys("a\u0000b", "\uD800", "part 5"))).hasSize(30);
      assertThat(look(session, part, "serial", keys("not one")))
          .hasSize(on.name().equals("SQLite") ? RECORDS : 0);
      assertThat(look(session, part, "made", keys("31.02.2026", "yesterday"))).isEmpty();
      assertThat(look(session, part, "code", List.of())).isEmpty();
      // the session is still good
      assertThat(look(session, part, "code", keys("P1"))).hasSize(1);
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void moreKeysThanRecordsReadTheTableOnce(Databases.Fresh on) throws SQLException {
    try (on) {
      TableInfo part = table(on);
      List<List<Object>> many = new ArrayList<>();
      IntStream.range(0, 25_000).forEach(i -> many.add(List.of("Q" + i)));
      assertThat(look(on.database(), part, "label", many))
          .as("an answer may hold more than was asked for")
          .hasSize(RECORDS);
      List<List<Object>> pairs =
          List.of(List.of("P7", BigDecimal.valueOf(7)), List.of("P8", BigDecimal.valueOf(7)));
      List<Object[]> found = new ArrayList<>();
      on.database()
          .look(
              Ask.keyed(part, part.fields(), part.fields(List.of("code", "id")), pairs),
              Records.each(found::add));
      assertThat(found).hasSize(1);
    }
  }

  /** Keys of several fields, of which one alone tells nearly all of them apart. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void manyKeysOfSeveralFieldsAreAskedForByTheFieldThatTellsMost(Databases.Fresh on)
      throws SQLException {
    try (on) {
      TableInfo part = table(on);
      List<List<Object>> many = new ArrayList<>();
      for (int i = 1; i <= 600; i++) {
        many.add(List.of("part " + i % 100, new BigDecimal(i + ".5")));
      }
      many.add(List.of("no such part", new BigDecimal("700.5")));
      List<BigDecimal> found = new ArrayList<>();
      on.database()
          .look(
              Ask.keyed(
                  part, part.fields(List.of("id")), part.fields(List.of("label", "weight")), many),
              Records.each(record -> found.add((BigDecimal) record[0])));
      assertThat(found)
          .containsAll(IntStream.rangeClosed(1, 600).mapToObj(BigDecimal::valueOf).toList())
          .doesNotHaveDuplicates()
          // the others have no arrays
          .hasSize(on.name().equals("PostgreSQL") ? 601 : RECORDS);
    }
  }

  /** Records are counted and added up wherever the database has put them. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void totalsAreThoseOfJustTheseRecords(Databases.Fresh on) throws SQLException {
    try (on) {
      TableInfo part = table(on);
      // where those stood there is room for others now
      on.execute("DELETE FROM part WHERE MOD(id, 3) = 0 AND id < 2000");
      Random random = new Random(20_261_130);
      try (WriteSession session = on.database().begin("totals")) {
        List<WriteSession.Change> changes = new ArrayList<>();
        for (int i = 10_000; i < 10_500; i++) {
          changes.add(
              new WriteSession.Change(
                  i,
                  null,
                  List.of(0, 1, 2),
                  List.of(BigDecimal.valueOf(i), "Q" + i, BigDecimal.valueOf(i * 3L, 3))));
        }
        session.write(part, changes, false);
        session.write(
            part,
            List.of(
                new WriteSession.Change(
                    1, List.of(BigDecimal.ONE), List.of(2), List.of(BigDecimal.TEN))),
            false);
        for (int turn = 0; turn < 40; turn++) {
          List<List<Object>> keys = new ArrayList<>();
          int from = 10_000 + random.nextInt(400);
          for (int i = from; i < from + 1 + random.nextInt(90); i++) {
            keys.add(List.of(BigDecimal.valueOf(i)));
          }
          if (turn % 4 == 1) {
            Collections.shuffle(keys, random);
          } else if (turn % 4 == 2) {
            keys.remove(keys.size() / 2);
          } else if (turn % 4 == 3) {
            keys.add(keys.size() / 2, List.of(BigDecimal.ONE));
          }
          isTotal(session, part, keys);
        }
        // one that is not there is not counted
        List<List<Object>> more = keys(new BigDecimal("10001"), new BigDecimal("77777"));
        assertThat(session.totals(part, List.of(), more).records()).isEqualTo(1);
      }
    }
  }

  private static void isTotal(WriteSession session, TableInfo part, List<List<Object>> keys) {
    Records found = session.fetch(part, keys);
    BigDecimal ids = BigDecimal.ZERO;
    BigDecimal weights = BigDecimal.ZERO;
    for (int at = 0; at < found.count(); at++) {
      ids = ids.add((BigDecimal) found.values(at)[0]);
      weights = weights.add((BigDecimal) found.values(at)[2]);
    }
    WriteSession.Totals totals = session.totals(part, part.fields(List.of("id", "weight")), keys);
    assertThat(totals.records()).isEqualTo(keys.size());
    assertThat(totals.sums().get(0)).isEqualByComparingTo(ids);
    assertThat(totals.sums().get(1)).isEqualByComparingTo(weights);
  }

  /** Records that were copied in are told by where they stand; others are not. */
  @Test
  void recordsThatStandTogetherAreToldSo() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      TableInfo part = table(on);
      PostgresDialect dialect = new PostgresDialect();
      List<List<Object>> all = new ArrayList<>();
      for (int i = 1; i <= RECORDS; i++) {
        all.add(List.of(BigDecimal.valueOf(i)));
      }
      assertThat(dialect.together(on.connection(), part, all))
          .startsWith("ctid BETWEEN '(0,1)'::tid AND ")
          .contains("AND xmin = ");
      // many others may be between these two
      assertThat(dialect.together(on.connection(), part, List.of(all.get(0), all.get(2_900))))
          .isNull();
      on.execute("UPDATE part SET weight = 0 WHERE id = 7");
      assertThat(dialect.together(on.connection(), part, all.subList(0, 7))).isNull();
      assertThat(dialect.together(on.connection(), part, keys(new BigDecimal("77777")))).isNull();
    }
  }
}
