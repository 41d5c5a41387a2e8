package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.mockito.AdditionalAnswers.delegatesTo;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.application.jdbc.Databases;

/** What the ledger says of a written record is what stands in the table. */
class AsGivenTest {
  private static final int ROWS = 300;

  private static final String PLAN =
      """
      {"name": "Prices", "destinations": [{"table": "price",
        "fills": [
          {"field": "nr", "origin": {"kind": "column", "column": "Nr"}},
          {"field": "name", "origin": {"kind": "column", "column": "Name"}},
          {"field": "amount", "origin": {"kind": "column", "column": "Amount"}},
          {"field": "state", "origin": {"kind": "column", "column": "State"}},
          {"field": "since", "origin": {"kind": "column", "column": "Since"}}],
        "keys": [{"fields": ["nr"]}]}]}
      """;

  @TempDir Path folder;

  /**
   * @param more by how much the amounts are more than the first time
   */
  private static String file(int more) {
    StringBuilder file = new StringBuilder("Nr;Name;Amount;State;Since\n");
    for (int i = 1; i <= ROWS; i++) {
      file.append(i).append(";Zoë ").append(i).append(';');
      file.append(i % 5 == 0 ? "" : i + more * (i % 2) + ".5").append(';');
      file.append(i % 3 == 0 ? "" : "shut").append(';');
      file.append(i % 4 == 0 ? "" : "2026-01-" + (10 + i % 20)).append('\n');
    }
    return file.toString();
  }

  private static void table(Databases.Fresh on, String... more) throws SQLException {
    String computed = on.name().equals("H2") ? "(amount * 2)" : "(amount * 2) STORED";
    on.execute(
        "CREATE TABLE price (nr INTEGER NOT NULL PRIMARY KEY, name VARCHAR(40),"
            + " amount NUMERIC(10,2), state VARCHAR(10) DEFAULT 'open', since DATE,"
            + " made_at TIMESTAMP DEFAULT CURRENT_TIMESTAMP, note VARCHAR(20),"
            + " twice NUMERIC(12,2) GENERATED ALWAYS AS "
            + computed
            + ")");
    on.execute(more);
  }

  /** Compares each record as the ledger has it with the one in the table. */
  private static void isAsToldBy(MemoryLedger ledger, Databases.Fresh on) {
    isAsToldBy(ledger, on, "price");
  }

  private static void isAsToldBy(MemoryLedger ledger, Databases.Fresh on, String name) {
    TableInfo table = on.database().table(name);
    int written = 0;
    for (LedgerLayout layout : ledger.layouts()) {
      if (layout.destination() != 0) {
        continue;
      }
      for (int c = 0; c < ledger.chunks(layout); c++) {
        LedgerChunk chunk = ledger.chunk(layout, c);
        Records found =
            on.database()
                .fetch(table, chunk.written().stream().mapToObj(e -> chunk.keys()[e]).toList());
        for (int e = chunk.written().nextSetBit(0); e >= 0; e = chunk.written().nextSetBit(e + 1)) {
          Object[] stands = found.values(chunk.keys()[e]);
          for (int f = 0; f < stands.length; f++) {
            assertThat(table.fields().get(f).storage().same(chunk.left()[f].value(e), stands[f]))
                .as("%s of %s: %s", table.fields().get(f).name(), chunk.keys()[e], stands[f])
                .isTrue();
          }
          written++;
        }
      }
    }
    assertThat(written).isEqualTo(Math.toIntExact(writes(ledger.report())));
  }

  private static long writes(RunReport report) {
    return report.destinations().stream().mapToLong(d -> d.added() + d.changed()).sum();
  }

  private void addsAndChanges(Databases.Fresh on) throws IOException {
    MemoryLedger added = new MemoryLedger(false);
    assertThat(writes(Runs.run(on, folder, PLAN, file(0), added))).isEqualTo(ROWS);
    isAsToldBy(added, on);
    MemoryLedger changed = new MemoryLedger(false);
    RunReport second = Runs.run(on, folder, PLAN, file(7), changed);
    assertThat(writes(second)).isEqualTo(ROWS * 2 / 5);
    isAsToldBy(changed, on);
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void whatTheDatabaseFillsByItselfIsTold(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      table(on);
      addsAndChanges(on);
    }
  }

  /** Half of the records are there before, so that new and changed ones go together. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void newAndChangedOnesStandSideBySide(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      table(on);
      String records =
          IntStream.range(0, ROWS / 2)
              .mapToObj(i -> "(" + (2 * i + 1) + ", 1, 'kept')")
              .collect(Collectors.joining(", "));
      on.execute("INSERT INTO price (nr, amount, note) VALUES " + records);
      addsAndChanges(on);
      assertThat(((Number) on.one("SELECT COUNT(*) FROM price WHERE note = 'kept'")).intValue())
          .isEqualTo(ROWS / 2);
    }
  }

  /** The keys of records that the run itself makes are texts, of which no sum tells. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void linksToRecordsThatWereMadeAreTold(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      on.execute(
          "CREATE TABLE wood (code VARCHAR(9) NOT NULL PRIMARY KEY, note VARCHAR(9))",
          "CREATE TABLE plank (nr INTEGER NOT NULL PRIMARY KEY,"
              + " wood_code VARCHAR(9) REFERENCES wood (code))");
      StringBuilder file = new StringBuilder("Nr;Wood\n");
      for (int i = 0; i < ROWS; i++) {
        file.append(i).append(";w").append(i % 40).append('\n');
      }
      String plan =
          """
          {"name": "Planks", "destinations": [{"table": "plank", "fills": [
            {"field": "nr", "origin": {"kind": "column", "column": "Nr"}},
            {"field": "wood_code", "origin": {"kind": "link", "column": "Wood",
              "link": {"by": "code", "whenMissing": "create"}}}],
            "keys": [{"fields": ["nr"]}]}]}
          """;
      MemoryLedger ledger = new MemoryLedger(false);
      assertThat(writes(Runs.run(on, folder, plan, file.toString(), ledger))).isEqualTo(ROWS);
      isAsToldBy(ledger, on, "plank");
    }
  }

  /** Spaces at the end, capitals and parts of a second stand as the field keeps them. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void whatAFieldKeepsInAFormOfItsOwnIsTold(Databases.Fresh on) throws SQLException, IOException {
    String caseless =
        switch (on.name()) {
          case "H2" -> "VARCHAR_IGNORECASE(9)";
          case "MariaDB" -> "VARCHAR(9) COLLATE utf8mb4_general_ci";
          default -> "VARCHAR(9)";
        };
    String moment = on.name().equals("MariaDB") ? "DATETIME" : "TIMESTAMP";
    try (on) {
      on.execute(
          "CREATE TABLE gate (nr INTEGER NOT NULL PRIMARY KEY, mark CHAR(5), word "
              + caseless
              + ", opened "
              + moment
              + "(0), shut "
              + moment
              + "(3), daily TIME(0))");
      StringBuilder file = new StringBuilder("nr;mark;word;opened;shut;daily\n");
      for (int i = 1; i <= ROWS; i++) {
        String second = String.format("%02d.%03d", i % 60, i * 7 % 1000);
        file.append(i).append(";\"m").append(i % 90).append("  \";Wort").append(i % 7);
        file.append(";2026-03-29 02:").append(second.substring(0, 2)).append(':').append(second);
        file.append(";1999-12-31 23:59:").append(second).append("9;23:59:").append(second);
        file.append('\n');
      }
      String fills =
          Stream.of("nr", "mark", "word", "opened", "shut", "daily")
              .map(
                  f ->
                      "{'field': '" + f + "', 'origin': {'kind': 'column', 'column': '" + f + "'}}")
              .collect(Collectors.joining(", "));
      String plan =
          "{'name': 'Gates', 'destinations': [{'table': 'gate', 'fills': ["
              + fills
              + "], 'keys': [{'fields': ['nr']}]}]}";
      MemoryLedger ledger = new MemoryLedger(false);
      RunReport report = Runs.run(on, folder, plan.replace('\'', '"'), file.toString(), ledger);
      assertThat(report.problems()).isEmpty();
      assertThat(writes(report)).isEqualTo(ROWS);
      isAsToldBy(ledger, on, "gate");
    }
  }

  @Test
  void aTriggerHasItsSay() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.postgres()) {
      table(
          on,
          "CREATE FUNCTION noted() RETURNS trigger LANGUAGE plpgsql AS"
              + " 'BEGIN UPDATE price SET note = ''seen'' WHERE nr = NEW.nr AND note IS NULL;"
              + " RETURN NULL; END'",
          "CREATE TRIGGER noted AFTER INSERT ON price FOR EACH ROW EXECUTE FUNCTION noted()");
      addsAndChanges(on);
      assertThat(on.one("SELECT COUNT(*) FROM price WHERE note = 'seen'")).isEqualTo((long) ROWS);
    }
  }

  @Test
  void aFieldThatEachUpdateSetsIsTold() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.maria()) {
      table(
          on,
          "ALTER TABLE price ADD touched TIMESTAMP(6) NULL DEFAULT NULL"
              + " ON UPDATE CURRENT_TIMESTAMP(6)");
      addsAndChanges(on);
    }
  }

  /**
   * Runs with a session that may be watched.
   *
   * @param wrong true if the application says that one number is another one
   */
  private WriteSession watched(Databases.Fresh on, boolean wrong) throws IOException {
    WriteSession session =
        mock(WriteSession.class, delegatesTo(on.database().begin("the watched one")));
    if (wrong) {
      doAnswer(
              call -> {
                TableInfo table = call.getArgument(0);
                return new WriteSession.Totals(
                    ((List<?>) call.getArgument(2)).size(),
                    ((List<?>) call.getArgument(1))
                        .stream().map(f -> java.math.BigDecimal.ONE).toList());
              })
          .when(session)
          .totals(any(), any(), any());
    }
    MemoryLedger ledger = new MemoryLedger(false);
    RunReport report = Runs.run(on, session, folder, PLAN, file(0), ledger);
    assertThat(report.balanced()).isTrue();
    assertThat(writes(report)).isEqualTo(ROWS);
    isAsToldBy(ledger, on);
    return session;
  }

  /** Sums that agree spare reading back; sums that don't make that every record is read back. */
  @Test
  void recordsAreReadBackWhereTheSumsAreOthers() throws SQLException, IOException {
    for (boolean wrong : new boolean[] {false, true}) {
      try (Databases.Fresh on = Databases.postgres()) {
        table(on);
        WriteSession session = watched(on, wrong);
        assertThatCode(
                () -> (wrong ? verify(session) : verify(session, never())).fetch(any(), any()))
            .doesNotThrowAnyException();
      }
    }
  }
}
