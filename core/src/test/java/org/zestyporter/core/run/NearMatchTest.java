package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Comparison.Ignore;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.ProblemCode;

/** What records that are only near make of rows, in the trees of a park. */
class NearMatchTest {
  private static final MatchKey BY_PLATE = new MatchKey(List.of("plate"), List.of(Ignore.CASE));
  private static final MatchKey NEAR =
      new MatchKey(
          List.of("kind", "planted"), List.of(), null, Map.of("kind", "spelling", "planted", "40"));

  private static final String[] ROWS = {
    "plate,kind,planted,girth",
    "t-1,Weeping willow,1990-03-01,2.5",
    ",Weping Willow,1990-03-20,2.6",
    ",willow (weeping),1990-02-01,2.7",
    ",Weeping willow,1991-03-01,2.8",
    ",Copper beech,1950-01-01,3.1",
    "t-9,Coper beech,1950-01-02,3.2",
    ",,1950-01-02,3.3",
    "t-8,Coper beech,1950-01-02,3.4"
  };

  @TempDir Path folder;

  private static void schema(Databases.Fresh on) throws SQLException {
    on.execute(
        "CREATE TABLE tree (id INTEGER PRIMARY KEY, plate VARCHAR(8), kind VARCHAR(40),"
            + " planted DATE, girth NUMERIC(6,2))",
        "INSERT INTO tree VALUES (1, 'T-1', 'Weeping Willow', '1990-03-01', 2.4),"
            + " (2, NULL, 'Copper Beech', '1950-01-01', 3.0),"
            + " (3, NULL, 'Copper beach', '1950-01-10', 3.0)");
  }

  private static Destination trees(MatchKey... keys) {
    List<Fill> fills =
        List.of(
            Fill.of(
                    "id",
                    Origin.generated(Origin.Generator.LINE),
                    Step.of(StepKind.ADD, "number", "100"))
                .forNewOnly(),
            Fill.of("plate", Origin.column("plate")).forNewOnly(),
            Fill.of("kind", Origin.column("kind")),
            Fill.of("planted", Origin.column("planted"), Step.of(StepKind.READ_DATE)),
            Fill.of("girth", Origin.column("girth"), Step.of(StepKind.READ_NUMBER)));
    return new Destination("tree", fills, List.of(keys), Policies.DEFAULT);
  }

  private RunReport go(Databases.Fresh on, Destination destination, Fates ledger, boolean run)
      throws IOException {
    Plan plan = new Plan("Trees", null, Reading.FIND, List.of(destination), null);
    return Runs.go(on, folder, plan, List.of(ROWS), ledger, run);
  }

  private static Decision decision(
      String kind, String planted, Decision.Act act, String... record) {
    return new Decision(Map.of("kind", kind, "planted", planted), act, List.of(record));
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void whatIsOnlyNearIsAskedAndNeverTaken(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      schema(on);
      Fates ledger = new Fates();
      RunReport report = go(on, trees(BY_PLATE, NEAR), ledger, false);
      assertThat(ledger.line(2).outcome()).isEqualTo(Outcome.CHANGED);
      for (long line : new long[] {3, 4, 6, 7, 9}) {
        LedgerEntry.Note asked = ledger.line(line).notes().get(0);
        assertThat(asked.code()).as("line %d", line).isEqualTo(ProblemCode.SIMILAR);
        assertThat(asked.question()).isTrue();
        assertThat(ledger.line(line).matchedBy()).isEqualTo(2);
      }
      assertThat(ledger.reasons(3))
          .isEqualTo("much like record 1: kind Weeping Willow, planted 1990-03-01");
      // the one that is the same in both comes first
      assertThat(RecordKeys.of(ledger.line(6).notes().get(0).value()))
          .containsExactly(List.of("2"), List.of("3"));
      assertThat(ledger.line(5).outcome()).isEqualTo(Outcome.NEW);
      assertThat(report.questions())
          .singleElement()
          .satisfies(
              q -> {
                assertThat(q.code()).isEqualTo(ProblemCode.SIMILAR);
                assertThat(q.field()).isEqualTo("kind, planted");
                assertThat(q.rows()).isEqualTo(5);
              });
      assertThat(report.balanced()).isTrue();
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void whatSomebodySaysOfItHolds(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      schema(on);
      Destination decided =
          trees(BY_PLATE, NEAR)
              .withDecisions(
                  List.of(
                      decision("Weping Willow", "1990-03-20", Decision.Act.OTHER),
                      decision("willow (weeping)", "1990-02-01", Decision.Act.TAKE, "1"),
                      decision("Copper beech", "1950-01-01", Decision.Act.TAKE, "3"),
                      decision("Coper beech", "1950-01-02", Decision.Act.TAKE, "3")));
      Fates rehearsed = new Fates();
      go(on, decided, rehearsed, false);
      Fates written = new Fates();
      RunReport report = go(on, decided, written, true);
      assertThat(written.told()).isEqualTo(rehearsed.told());
      assertThat(report.questions()).isEmpty();
      assertThat(report.balanced()).isTrue();
      assertThat(written.line(3).outcome()).isEqualTo(Outcome.NEW);
      // line 2 has the record already
      assertThat(written.line(4).outcome()).isEqualTo(Outcome.REJECTED);
      assertThat(written.reasons(4)).isEqualTo("line 2 speaks of the same record");
      assertThat(written.line(6).recordKey()).isEqualTo("3");
      assertThat(on.one("SELECT kind FROM tree WHERE id = 3")).isEqualTo("Copper beech");
      assertThat(written.line(7).outcome()).isEqualTo(Outcome.REJECTED);
      assertThat(written.reasons(7)).isEqualTo("line 6 speaks of the same record");
    }
  }

  /** A single key that is near lets no two rows have one record either. */
  @Test
  void noRecordIsWrittenTwice() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      Destination decided =
          trees(NEAR)
              .withDecisions(
                  List.of(
                      decision("Weeping willow", "1990-03-01", Decision.Act.TAKE, "1"),
                      decision("Weping Willow", "1990-03-20", Decision.Act.TAKE, "1")));
      Fates ledger = new Fates();
      go(on, decided, ledger, true);
      assertThat(ledger.line(2).outcome()).isEqualTo(Outcome.CHANGED);
      assertThat(ledger.reasons(3)).isEqualTo("line 2 speaks of the same record");
    }
  }

  @ParameterizedTest
  @CsvSource({
    "girth, spelling, by \"spelling\"",
    "kind, 0.5, by \"0.5\"",
    "planted, 0, by \"0\"",
    "planted, -3, by \"-3\"",
    "planted, 1e400, by \"1e400\"",
    "plate, spelling, no field of it"
  })
  void whatCanNotBeNearIsRefused(String field, String how, String told) throws SQLException {
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      MatchKey key =
          new MatchKey(List.of("kind", "planted", "girth"), List.of(), null, Map.of(field, how));
      assertThatThrownBy(() -> go(on, trees(key), new Fates(), false))
          .isInstanceOf(PorterException.class)
          .hasMessageContaining(told);
    }
  }
}
