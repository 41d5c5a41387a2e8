package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Comparison.Ignore;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.ProblemCode;

/** Tables as other people make them: what was rehearsed runs, and runs a second time unchanged. */
class StrangersTest {
  private static final RunContext CONTEXT =
      new RunContext("odile", LocalDateTime.of(2026, 11, 25, 9, 0), "theirs.csv");

  @TempDir Path folder;

  /** Keeps all entries. */
  private static final class Kept implements Ledger {
    private final List<LedgerEntry> entries = new ArrayList<>();

    @Override
    public void begin(LedgerLayout layout) {
      entries.clear();
    }

    @Override
    public void append(LedgerChunk chunk) {
      entries.addAll(chunk.entries());
    }
  }

  private Path file(String... lines) throws IOException {
    return Files.writeString(folder.resolve("theirs.csv"), String.join("\n", lines) + "\n");
  }

  private SourceTable open(String... lines) throws IOException {
    return SourceReader.open(file(lines), folder.resolve("cache"), Reading.FIND);
  }

  private static Plan plan(Destination destination) {
    return new Plan("Theirs", null, Reading.FIND, List.of(destination), null);
  }

  /** Draws up a plan, rehearses and runs it, and gives the run's report. */
  private RunReport go(Databases.Fresh on, String table, Ledger ledger, String... lines)
      throws IOException {
    try (SourceTable source = open(lines)) {
      Destination drafted =
          new PlanDraft(on.database(), source).draft(on.database().table(table)).destination();
      return go(on, plan(drafted), source, ledger);
    }
  }

  private static RunReport go(Databases.Fresh on, Plan plan, SourceTable source, Ledger ledger) {
    Pipeline pipeline =
        new Pipeline(new OpenedPlan(on.database(), source, plan, CONTEXT, Shared.NONE));
    RunReport rehearsal = pipeline.rehearse(Ledger.NONE, Progress.NONE);
    RunReport run = pipeline.run("1", ledger, Progress.NONE);
    assertThat(run.destinations()).as("as rehearsed").isEqualTo(rehearsal.destinations());
    return run;
  }

  private static List<Long> counts(RunReport report) {
    RunReport.DestinationReport d = report.destinations().get(0);
    return List.of(d.added(), d.changed(), d.unchanged(), d.skipped(), d.rejected());
  }

  @ParameterizedTest
  @CsvSource({
    "uuid,12,malformed",
    "json,{a},malformed",
    "bytea,hello,malformed",
    "real,1e60,out-of-range",
    "real,16777217,too-precise",
    "price,-1,out-of-range",
    "price,1001,out-of-range",
    "mood,gloomy,unknown-choice",
    "smallint,40000,out-of-range"
  })
  void whatAFieldCannotKeepIsKnownInTheRehearsal(String type, String value, String problem)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute(
          "CREATE TYPE mood AS ENUM ('happy')",
          "CREATE DOMAIN price AS numeric(10,2) CHECK (VALUE >= 0) CHECK (VALUE <= 1000)",
          "CREATE TABLE thing (nr integer PRIMARY KEY, held " + type + ")");
      Fill held =
          type.matches("real|price|smallint")
              ? Fill.of("held", Origin.column("held"), Step.of(StepKind.READ_NUMBER))
              : Fill.of("held", Origin.column("held"));
      Destination destination =
          new Destination(
              "thing",
              List.of(Fill.of("nr", Origin.column("nr"), Step.of(StepKind.READ_NUMBER)), held),
              List.of(),
              null);
      try (SourceTable source = open("nr;held", "1;" + value)) {
        RunReport report = go(on, plan(destination), source, Ledger.NONE);
        assertThat(counts(report)).containsExactly(0L, 0L, 0L, 0L, 1L);
        assertThat(report.problems().get(0).code().word()).isEqualTo(problem);
      }
    }
  }

  @Test
  void fieldsThatTakeNoValueAreLeftAloneAndSaidSo() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute(
          "CREATE TABLE thing (id integer GENERATED ALWAYS AS IDENTITY PRIMARY KEY,"
              + " name text, tags int4range, gap xml)");
      assertThat(on.database().table("thing").field("tags").unfillable()).contains("int4range");
      assertThat(
              counts(go(on, "thing", Ledger.NONE, "id;name;tags", "7;Wren;[1,2)", "8;Auk;empty")))
          .containsExactly(2L, 0L, 0L, 0L, 0L);
      Destination forced =
          new Destination(
              "thing",
              List.of(Fill.of("id", Origin.column("id")), Fill.of("gap", Origin.column("name"))),
              List.of(),
              null);
      try (SourceTable source = open("id;name", "7;Wren")) {
        assertThatThrownBy(() -> go(on, plan(forced), source, Ledger.NONE))
            .hasMessageContaining("id: the database numbers it itself")
            .hasMessageContaining("gap: fields of the type xml can't be filled");
      }
    }
  }

  @Test
  void whatTheApplicationChangesIsItsRightAndTold() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute(
          "CREATE TABLE thing (nr integer PRIMARY KEY, name text, amount numeric(9,2))",
          "CREATE FUNCTION change() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN"
              + " NEW.name := upper(NEW.name); NEW.amount := NEW.amount + 1; RETURN NEW; END $$",
          "CREATE TRIGGER change BEFORE INSERT OR UPDATE ON thing"
              + " FOR EACH ROW EXECUTE FUNCTION change()");
      String[] lines = {"nr;name;amount", "1;Wren;10.50", "2;AUK;2"};
      Kept ledger = new Kept();
      RunReport report = go(on, "thing", ledger, lines);
      assertThat(report.balanced()).isTrue();
      RunReport.ControlTotal amount =
          report.controlTotals().stream().filter(t -> t.field().equals("amount")).findFirst().get();
      assertThat(amount.source()).isEqualByComparingTo("12.50");
      assertThat(amount.altered()).isEqualByComparingTo("2");
      assertThat(amount.written()).isEqualByComparingTo("14.50");
      assertThat(ledger.entries.get(0).notes())
          .extracting(n -> n.code() + " " + n.field() + " " + n.value() + " " + n.reason())
          .containsExactlyInAnyOrder(
              "ALTERED name Wren the application made it “WREN”",
              "ALTERED amount 10.50 the application made it “11.50”");
      assertThat(ledger.entries.get(1).notes()).hasSize(1);
    }
  }

  @Test
  void aPlanMayRefuseWhatTheApplicationChanges() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute(
          "CREATE TABLE thing (nr integer PRIMARY KEY, name text)",
          "CREATE FUNCTION shout() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN"
              + " NEW.name := upper(NEW.name); RETURN NEW; END $$",
          "CREATE TRIGGER shout BEFORE INSERT ON thing" + " FOR EACH ROW EXECUTE FUNCTION shout()");
      try (SourceTable source = open("nr;name", "1;AUK", "2;Wren")) {
        Destination drafted =
            new PlanDraft(on.database(), source).draft(on.database().table("thing")).destination();
        Plan plan =
            new Plan(
                "p",
                null,
                Reading.FIND,
                List.of(drafted),
                new RunSettings(null, RunSettings.WhenAltered.REFUSE));
        assertThatThrownBy(() -> go(on, plan, source, Ledger.NONE))
            .hasMessageContaining("1 value of name (first on line 3)")
            .hasMessageContaining("Nothing was written");
      }
      assertThat(on.one("SELECT COUNT(*) FROM thing")).isEqualTo(0L);
    }
  }

  @Test
  void aRecordThatTheApplicationSwallowsIsRefused() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute(
          "CREATE TABLE thing (nr integer PRIMARY KEY, name text)",
          "CREATE FUNCTION swallow() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN"
              + " IF NEW.nr = 2 THEN RETURN NULL; END IF; RETURN NEW; END $$",
          "CREATE TRIGGER swallow BEFORE INSERT ON thing"
              + " FOR EACH ROW EXECUTE FUNCTION swallow()");
      assertThatThrownBy(() -> go(on, "thing", Ledger.NONE, "nr;name", "1;a", "2;b", "3;c"))
          .isInstanceOfSatisfying(
              PorterException.class, e -> assertThat(e.code()).isEqualTo(ErrorCode.ROW_REFUSED))
          .hasMessageContaining("line 3")
          .hasMessageContaining("took this record and kept none");
      assertThat(on.one("SELECT COUNT(*) FROM thing")).isEqualTo(0L);
    }
  }

  @Test
  void tablesOfOtherSchemasAreNamedWithTheirSchema() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.postgres()) {
      String other = "o" + System.nanoTime();
      on.execute(
          "CREATE SCHEMA " + other,
          "CREATE TABLE " + other + ".region (id integer PRIMARY KEY, code text UNIQUE NOT NULL)",
          "INSERT INTO " + other + ".region VALUES (1, 'N'), (2, 'S')",
          "CREATE TABLE \"Odd Name\" (nr integer PRIMARY KEY, region_id integer REFERENCES "
              + other
              + ".region (id))",
          "CREATE VIEW seen AS SELECT * FROM \"Odd Name\"");
      assertThat(on.database().tableNames()).contains("Odd Name", other + ".region");
      assertThat(on.database().table("Odd Name").field("region_id").link().table())
          .isEqualTo(other + ".region");
      assertThat(counts(go(on, "Odd Name", Ledger.NONE, "nr;region", "1;N", "2;S", "3;N")))
          .containsExactly(3L, 0L, 0L, 0L, 0L);
      assertThat(on.one("SELECT region_id FROM \"Odd Name\" WHERE nr = 2")).isEqualTo(2);
      assertThat(counts(go(on, other + ".region", Ledger.NONE, "id;code", "1;N", "3;W")))
          .containsExactly(1L, 0L, 1L, 0L, 0L);
      assertThatThrownBy(() -> on.database().table("seen"))
          .hasMessageContaining("is a view")
          .hasMessageContaining("Odd Name");
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void aLooselyComparedKeyKeepsTheRecordsSpelling(Databases.Fresh on)
      throws SQLException, IOException {
    try (on) {
      on.execute(
          "CREATE TABLE thing (id integer GENERATED BY DEFAULT AS IDENTITY PRIMARY KEY,"
              + " reg varchar(20) UNIQUE NOT NULL, name varchar(20))",
          "INSERT INTO thing (reg, name) VALUES ('QH-0566', 'Wren')");
      Destination byHand =
          new Destination(
              "thing",
              List.of(Fill.of("reg", Origin.column("reg")), Fill.of("name", Origin.column("name"))),
              List.of(
                  new MatchKey(
                      List.of("reg"), List.of(Ignore.CASE, Ignore.SPACES, Ignore.PUNCTUATION))),
              null);
      try (SourceTable source = open("reg;name", "qh 0566;Wren II")) {
        assertThat(counts(go(on, plan(byHand), source, Ledger.NONE)))
            .containsExactly(0L, 1L, 0L, 0L, 0L);
      }
      assertThat(on.one("SELECT reg FROM thing")).isEqualTo("QH-0566");
      assertThat(on.one("SELECT name FROM thing")).isEqualTo("Wren II");
      try (SourceTable source = open("reg;name", "Qh0566;Wren II")) {
        assertThat(counts(go(on, plan(byHand), source, Ledger.NONE)))
            .containsExactly(0L, 0L, 1L, 0L, 0L);
      }
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void aUniqueValueThatAnEarlierRowGivesUpIsFree(Databases.Fresh on)
      throws SQLException, IOException {
    try (on) {
      on.execute(
          "CREATE TABLE thing (nr integer PRIMARY KEY, sticker integer UNIQUE, name varchar(9))",
          "INSERT INTO thing VALUES (1, 10, 'a'), (2, 20, 'b'), (3, 30, 'c')");
      Destination destination =
          new Destination(
              "thing",
              List.of(
                  Fill.of("nr", Origin.column("nr"), Step.of(StepKind.READ_NUMBER)),
                  Fill.of("sticker", Origin.column("sticker"), Step.of(StepKind.READ_NUMBER)),
                  Fill.of("name", Origin.column("name"))),
              List.of(new MatchKey(List.of("nr"), List.of())),
              null);
      Kept ledger = new Kept();
      // 9 comes first so that new records would be written before changed ones
      try (SourceTable source =
          open("nr;sticker;name", "9;90;z", "1;11;a", "4;10;d", "2;30;b", "3;31;c", "5;31;e")) {
        assertThat(counts(go(on, plan(destination), source, ledger)))
            .containsExactly(2L, 2L, 0L, 0L, 2L);
      }
      assertThat(on.one("SELECT nr FROM thing WHERE sticker = 10")).isEqualTo(4);
      assertThat(ledger.entries.get(3).notes().get(0).code())
          .as("line 5 wants what line 6 gives up later")
          .isEqualTo(ProblemCode.TAKEN);
      assertThat(ledger.entries.get(5).notes().get(0).reason()).contains("line 6 has it too");
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void twoRunsIntoOneTableComeOneAfterTheOther(Databases.Fresh on) throws Exception {
    try (on) {
      on.execute(
          "CREATE TABLE thing (id integer GENERATED BY DEFAULT AS IDENTITY PRIMARY KEY,"
              + " reg varchar(20) NOT NULL)");
      String[] lines = new String[6_001];
      lines[0] = "reg";
      for (int i = 1; i < lines.length; i++) {
        lines[i] = "B" + i;
      }
      Destination destination =
          new Destination(
              "thing",
              List.of(Fill.of("reg", Origin.column("reg"))),
              List.of(new MatchKey(List.of("reg"), List.of())),
              null);
      Path theirs = file(lines);
      List<List<Long>> came = java.util.Collections.synchronizedList(new ArrayList<>());
      List<Thread> threads = new ArrayList<>();
      for (int t = 0; t < 2; t++) {
        Path cache = folder.resolve("cache" + t);
        Thread thread =
            new Thread(
                () -> {
                  try (SourceTable source = SourceReader.open(theirs, cache, Reading.FIND)) {
                    came.add(
                        counts(
                            new Pipeline(
                                    new OpenedPlan(
                                        on.database(),
                                        source,
                                        plan(destination),
                                        CONTEXT,
                                        Shared.NONE))
                                .run("1", Ledger.NONE, Progress.NONE)));
                  } catch (IOException e) {
                    throw new IllegalStateException(e);
                  }
                });
        threads.add(thread);
        thread.start();
      }
      for (Thread thread : threads) {
        thread.join();
      }
      assertThat(Set.copyOf(came))
          .containsExactlyInAnyOrder(
              List.of(6_000L, 0L, 0L, 0L, 0L), List.of(0L, 0L, 6_000L, 0L, 0L));
      assertThat(on.one("SELECT COUNT(*) FROM thing")).isEqualTo(6_000L);
    }
  }
}
