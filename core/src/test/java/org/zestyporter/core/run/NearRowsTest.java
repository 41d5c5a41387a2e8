package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Clock;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.match.MatchClass;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.preview.MatchSurvey;
import org.zestyporter.core.source.Correction;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.ProblemCode;

/** What becomes of rows that are only near to other rows of the file: the members of a choir. */
class NearRowsTest {
  private static final MatchKey BY_NUMBER = new MatchKey(List.of("number"), List.of());
  private static final MatchKey NEAR =
      new MatchKey(List.of("name"), List.of(), null, Map.of("name", "spelling"));

  private static final String[] ROWS = {
    "number,name,voice",
    "11,Anna Lindqvist,alto",
    "12,Jan Peters,bass",
    "13,\"Lindquist, Anna\",alto",
    "14,Rosa Amsel,alto",
    "14,Rosa Amsel,alto",
    "15,Jan Peters,tenor",
    "3,Rosa Amsl,alto",
    ",Anna Lindqvst,soprano"
  };

  @TempDir Path folder;

  private static void schema(Databases.Fresh on) throws SQLException {
    on.execute(
        "CREATE TABLE singer (id INTEGER PRIMARY KEY, number INTEGER, name VARCHAR(40),"
            + " voice VARCHAR(20))",
        "INSERT INTO singer VALUES (1, 3, 'Somebody Else', 'bass'), (2, 4, 'Ian Petersen', 'bass')");
  }

  private static Destination singers(MatchKey... keys) {
    List<Fill> fills =
        List.of(
            Fill.of(
                    "id",
                    Origin.generated(Origin.Generator.LINE),
                    Step.of(StepKind.ADD, "number", "100"))
                .forNewOnly(),
            Fill.of("number", Origin.column("number"), Step.of(StepKind.READ_NUMBER)).forNewOnly(),
            Fill.of("name", Origin.column("name")),
            Fill.of("voice", Origin.column("voice")));
    return new Destination("singer", fills, List.of(keys), Policies.DEFAULT);
  }

  private RunReport go(Databases.Fresh on, Destination destination, Fates ledger, boolean run)
      throws IOException {
    return Runs.go(on, folder, plan(destination), List.of(ROWS), ledger, run);
  }

  private static Plan plan(Destination destination) {
    return new Plan("Choir", null, Reading.FIND, List.of(destination), null);
  }

  private static Decision of(String name, Decision.Act act) {
    return new Decision(Map.of("name", name), act, null);
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void theLaterOfTwoNewRecordsThatAreMuchAlikeIsAskedAbout(Databases.Fresh on)
      throws SQLException, IOException {
    try (on) {
      schema(on);
      Fates ledger = new Fates();
      RunReport report = go(on, singers(BY_NUMBER, NEAR), ledger, false);
      assertThat(ledger.line(2).outcome()).isEqualTo(Outcome.NEW);
      assertThat(ledger.line(3).outcome()).isEqualTo(Outcome.NEW);
      assertThat(ledger.reasons(4)).isEqualTo("much like line 2: name Anna Lindqvist");
      // their number says that they are one, so that nobody has to
      assertThat(ledger.line(5).outcome()).isEqualTo(Outcome.SKIPPED);
      assertThat(ledger.line(6).outcome()).isEqualTo(Outcome.NEW);
      assertThat(ledger.reasons(7)).isEqualTo("much like line 3: name Jan Peters");
      // its number says which record it is
      assertThat(ledger.line(8).outcome()).isEqualTo(Outcome.CHANGED);
      assertThat(ledger.reasons(9)).isEqualTo("much like line 2 and others: name Anna Lindqvist");
      assertThat(ledger.line(9).notes().get(0).value()).isEqualTo("2; 4");
      assertThat(report.questions())
          .singleElement()
          .satisfies(
              q -> {
                assertThat(q.code()).isEqualTo(ProblemCode.SIMILAR_ROW);
                assertThat(q.field()).isEqualTo("name");
                assertThat(q.rows()).isEqualTo(3);
              });
      assertThat(report.balanced()).isTrue();
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void whatSomebodySaysHoldsAndNeverForTheRowThatStandsFirst(Databases.Fresh on)
      throws SQLException, IOException {
    try (on) {
      schema(on);
      Destination decided =
          singers(BY_NUMBER, NEAR)
              .withDecisions(
                  List.of(
                      of("Lindquist, Anna", Decision.Act.OTHER),
                      of("Jan Peters", Decision.Act.SKIP),
                      of("Anna Lindqvst", Decision.Act.REJECT)));
      Fates rehearsed = new Fates();
      go(on, decided, rehearsed, false);
      Fates written = new Fates();
      RunReport report = go(on, decided, written, true);
      assertThat(written.told()).isEqualTo(rehearsed.told());
      assertThat(report.questions()).isEmpty();
      assertThat(report.balanced()).isTrue();
      assertThat(written.line(3).outcome()).isEqualTo(Outcome.NEW);
      assertThat(written.line(4).outcome()).isEqualTo(Outcome.NEW);
      assertThat(written.line(7).outcome()).isEqualTo(Outcome.SKIPPED);
      assertThat(written.line(9).outcome()).isEqualTo(Outcome.REJECTED);
      assertThat(on.rows("SELECT name FROM singer WHERE id > 100 ORDER BY id"))
          .containsExactly("Anna Lindqvist;", "Jan Peters;", "Lindquist, Anna;", "Rosa Amsel;");
    }
  }

  /** What a row has become is not what somebody said that it is not. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void aSecondImportAddsNothingThatWasSaidToBeAnotherOne(Databases.Fresh on)
      throws SQLException, IOException {
    MatchKey byName = new MatchKey(List.of("name"), List.of());
    List<String> rows =
        List.of("number,name,voice", ",Ian Petersen,tenor", ",Somebody Elsa,alto", ",Uwe,bass");
    Destination decided =
        singers(byName, NEAR)
            .withPolicies(new Policies(null, Policies.OnNone.ASK, null, null))
            .withDecisions(
                List.of(
                    notOf("Ian Petersen", List.of("2")),
                    notOf("Somebody Elsa", List.of("1")),
                    notOf("Uwe")));
    try (on) {
      schema(on);
      Fates first = new Fates();
      Runs.go(on, folder, plan(decided), rows, first, true);
      for (int line = 2; line <= 4; line++) {
        assertThat(first.line(line).outcome()).as("line %d", line).isEqualTo(Outcome.NEW);
      }
      Fates second = new Fates();
      Runs.go(on, folder, plan(decided), rows, second, true);
      for (int line = 2; line <= 4; line++) {
        assertThat(second.line(line).outcome()).as("line %d", line).isEqualTo(Outcome.UNCHANGED);
        assertThat(second.line(line).recordKey()).isEqualTo(first.line(line).recordKey());
      }
      // by a key that finds only what is near it is asked about
      Fates near = new Fates();
      Runs.go(on, folder, plan(decided.withKeys(List.of(NEAR))), rows, near, true);
      for (int line = 2; line <= 4; line++) {
        assertThat(near.line(line).notes().get(0).code()).isEqualTo(ProblemCode.SIMILAR);
        assertThat(RecordKeys.of(near.line(line).notes().get(0).value()))
            .containsExactly(List.of(first.line(line).recordKey()));
      }
      // whatever is found, where it was not said what of it is not meant
      Destination ever = decided.withDecisions(List.of(of("Ian Petersen", Decision.Act.OTHER)));
      Fates again = new Fates();
      Runs.go(on, folder, plan(ever), rows, again, false);
      // it would be added once more, if its number were free
      assertThat(again.line(2).notes().get(0).code()).isEqualTo(ProblemCode.TAKEN);
    }
  }

  /** Two rows that somebody says are the same: one is spelt as the other, and they are merged. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void alikeRowsThatAreSpeltAlikeBecomeOneRecord(Databases.Fresh on)
      throws SQLException, IOException {
    MatchKey byName = new MatchKey(List.of("name"), List.of());
    List<String> rows = List.of("number,name,voice", "21,Uta Brandt,", ",Uta Brand,soprano");
    Plan merging =
        plan(
            singers(byName, NEAR)
                .withPolicies(new Policies(null, null, null, Policies.OnRepeat.MERGE)));
    Plan same =
        merging.withCorrections(List.of(new Correction(3, "name", "Uta Brand", "Uta Brandt")));
    try (on) {
      schema(on);
      Fates asked = new Fates();
      Runs.go(on, folder, merging, rows, asked, false);
      assertThat(asked.reasons(3)).isEqualTo("much like line 2: name Uta Brandt");
      RunReport report = Runs.go(on, folder, same, rows, new Fates(), true);
      assertThat(report.questions()).isEmpty();
      assertThat(report.balanced()).isTrue();
      assertThat(on.rows("SELECT number, name, voice FROM singer WHERE id > 100"))
          .containsExactly("21;Uta Brandt;soprano;");
      Fates second = new Fates();
      Runs.go(on, folder, same, rows, second, true);
      assertThat(on.rows("SELECT COUNT(*) FROM singer")).containsExactly("3;");
      assertThat(second.line(2).outcome()).isIn(Outcome.UNCHANGED, Outcome.SKIPPED);
    }
  }

  @SafeVarargs
  private static Decision notOf(String name, List<String>... records) {
    return new Decision(Map.of("name", name), Decision.Act.OTHER, null, List.of(records));
  }

  /** Rows that have a key in common are known to be one, wherever the other key stands. */
  @Test
  void repeatsAreSeenBehindAKeyThatFindsNothingNear() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      Fates ledger = new Fates();
      go(on, singers(NEAR, BY_NUMBER), ledger, false);
      assertThat(ledger.line(5).outcome()).isEqualTo(Outcome.SKIPPED);
      assertThat(ledger.line(6).outcome()).isEqualTo(Outcome.NEW);
      assertThat(ledger.reasons(4)).isEqualTo("much like line 2: name Anna Lindqvist");
      assertThat(ledger.line(8).recordKey()).isEqualTo("1");
    }
  }

  /** Match counts them as a rehearsal does, and shows them beside the row that they are like. */
  @Test
  void theyStandBesideTheRowThatTheyAreLike() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      Plan plan = plan(singers(BY_NUMBER, NEAR));
      try (SourceTable source = Runs.source(folder, ROWS)) {
        OpenedPlan opened = Runs.opened(on, source, plan);
        Remembered kept = new Remembered(on.database(), source, Clock.systemUTC());
        for (Remembered remembered : new Remembered[] {null, kept}) {
          Classing classing = Classing.of(opened, 0, remembered);
          MatchSurvey.MatchClasses classes =
              new MatchSurvey(classing, MatchClass.SIMILAR, 10).result(List.of());
          assertThat(classes.similar()).isEqualTo(3);
          assertThat(classes.none()).isEqualTo(3);
          assertThat(classes.repeats()).isEqualTo(1);
          assertThat(classes.keys().get(1).similar()).isEqualTo(3);
          assertThat(classes.keys()).allMatch(MatchSurvey.KeyFinds::comparesRows);
          assertThat(classes.candidates()).allMatch(List::isEmpty);
          Map<Long, Long> beside = new HashMap<>();
          for (int i = 0; i < classes.pairs().size(); i++) {
            beside.put(classes.pairs().get(i).line(), classes.others().get(i).get(0).line());
          }
          assertThat(beside).isEqualTo(Map.of(4L, 2L, 7L, 3L, 9L, 2L));
        }
      }
    }
  }

  /** Cut off in between, it goes on as if the records that it made were not there. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void aRunInBatchesThatGoesOnAsksTheSame(Databases.Fresh on) throws SQLException, IOException {
    StringBuilder file = new StringBuilder("number,name,voice\n");
    for (int i = 0; i < 9_000; i++) {
      // figures have to agree, so that no two are alike but those with a slip
      boolean slips = i % 300 == 299;
      String name = slips ? "Singar " + (i * 7 % i) : "Singer " + i;
      file.append(i + 10).append(',').append(name).append(",alto\n");
    }
    Plan plan =
        plan(singers(BY_NUMBER, NEAR))
            .withRun(
                RunSettings.ALL_OR_NOTHING.withMode(RunSettings.Mode.BATCHES).withBatchRows(1));
    String document = PlanJson.write(plan);
    try (on;
        Databases.Fresh other = on.another()) {
      schema(other);
      MemoryLedger whole = new MemoryLedger(false);
      Runs.run(other, folder, document, file.toString(), whole);
      schema(on);
      MemoryLedger ledger = new MemoryLedger(false);
      assertThatThrownBy(
              () ->
                  Runs.run(on, folder, document, file.toString(), ledger, BatchesTest.until(4_200)))
          .hasMessageContaining("It was stopped. The first 8,191 of 9,000 rows");
      RunReport report = Runs.resume(on, folder, document, file.toString(), ledger, Progress.NONE);
      assertThat(report.questions()).isEqualTo(whole.report().questions()).isNotEmpty();
      assertThat(BatchesTest.told(ledger)).isEqualTo(BatchesTest.told(whole));
    }
  }
}
