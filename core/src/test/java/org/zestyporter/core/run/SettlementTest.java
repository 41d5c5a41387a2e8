package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.SQLException;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.Settled;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.Databases;

/** What became of a run that was cut off while it was being made lasting. */
class SettlementTest {
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void withoutAMarkTheRecordsTell(Databases.Fresh on) throws Exception {
    try (on) {
      on.execute(
          "CREATE TABLE thing (nr integer PRIMARY KEY, name varchar(20))",
          "INSERT INTO thing VALUES (1, 'old'), (7, 'other')");
      TableInfo thing = on.database().table("thing");
      List<String> fields = List.of("nr", "name");
      List<LedgerEntry> ledger =
          List.of(
              new LedgerEntry(
                  2,
                  0,
                  0,
                  Outcome.CHANGED,
                  1,
                  "1",
                  List.of("1", "new"),
                  List.of("1", "old"),
                  List.of(1),
                  List.of()),
              new LedgerEntry(
                  3, 0, 0, Outcome.NEW, 0, "2", List.of("2", "two"), null, List.of(), List.of()),
              new LedgerEntry(
                  4,
                  0,
                  0,
                  Outcome.UNCHANGED,
                  1,
                  "7",
                  List.of("7", "other"),
                  null,
                  List.of(),
                  List.of()));
      Settlement settlement = new Settlement(on.database());
      assertThat(settlement.byRecords(thing, fields, ledger.stream()))
          .isEqualTo(Settled.TAKEN_BACK);
      on.execute(
          "UPDATE thing SET name = 'new' WHERE nr = 1", "INSERT INTO thing VALUES (2, 'two')");
      assertThat(settlement.byRecords(thing, fields, ledger.stream())).isEqualTo(Settled.COMMITTED);
      on.execute("UPDATE thing SET name = 'edited since' WHERE nr = 1");
      assertThat(settlement.byRecords(thing, fields, ledger.stream()))
          .as("one was edited since, the other still tells")
          .isEqualTo(Settled.COMMITTED);
      on.execute("DELETE FROM thing WHERE nr = 2", "UPDATE thing SET name = 'new' WHERE nr = 1");
      assertThat(settlement.byRecords(thing, fields, ledger.stream()))
          .as("they speak for both")
          .isNull();
      assertThat(settlement.byRecords(thing, fields, Stream.of(ledger.get(2)))).isNull();
    }
  }

  @Test
  void onlyRowsOfTheLastBatchSpeak() throws SQLException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE TABLE thing (nr integer PRIMARY KEY, name varchar(20))",
          "INSERT INTO thing VALUES (1, 'one')");
      LedgerLayout layout =
          new LedgerLayout(
              0,
              "thing",
              "thing",
              List.of("nr", "name"),
              List.of("nr", "name"),
              List.of(0, 1),
              List.of(0));
      List<LedgerEntry> ledger =
          List.of(
              new LedgerEntry(
                  2, 0, 0, Outcome.NEW, 0, "1", List.of("1", "one"), null, List.of(), List.of()),
              new LedgerEntry(
                  3, 1, 0, Outcome.NEW, 0, "2", List.of("2", "two"), null, List.of(), List.of()));
      Settlement settlement = new Settlement(on.database());
      // the first one stands by a batch before
      assertThat(settlement.byLastBatch(List.of(layout), l -> ledger.stream(), 1, true))
          .isEqualTo(Settled.TAKEN_BACK);
      on.execute("INSERT INTO thing VALUES (2, 'two')");
      assertThat(settlement.byLastBatch(List.of(layout), l -> ledger.stream(), 1, true))
          .isEqualTo(Settled.COMMITTED);
      assertThat(settlement.byLastBatch(List.of(layout), l -> ledger.stream(), 2, true))
          .as("it has written nothing, and can be gone through again")
          .isEqualTo(Settled.TAKEN_BACK);
      assertThat(settlement.byLastBatch(List.of(layout), l -> ledger.stream(), 2, false))
          .as("it may have written a row that was waiting before")
          .isNull();
    }
  }
}
