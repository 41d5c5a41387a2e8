package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zestyporter.core.run.Loans.books;
import static org.zestyporter.core.run.Loans.plan;
import static org.zestyporter.core.run.Loans.rows;
import static org.zestyporter.core.run.Loans.schema;
import static org.zestyporter.core.run.Loans.with;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/**
 * What answers change in plans of several tables is counted from the rows they touch: the same as
 * if all were rehearsed.
 */
class RecountOfSeveralTest {
  @TempDir Path folder;

  /** Answers that somebody gives one after the other. */
  private static List<Plan> answers(Plan plan) {
    List<Plan> plans = new ArrayList<>();
    for (int[] known : new int[][] {{0, 0}, {1, 0}, {1, 1}, {2, 1}, {2, 2}}) {
      plans.add(books(plan, known[0], known[1]));
    }
    Plan all = plans.get(4);
    Plan far = with(all, 1, d -> with(d, "tage", f -> f.withFarOff(List.of("90000"))));
    plans.add(far);
    Plan topics = with(far, 3, d -> with(d, "art", f -> f.withWhenBad(Fill.WhenBad.BLANK)));
    plans.add(topics);
    List<Decision> decisions = new ArrayList<>();
    for (int reader = 0; reader < 9; reader++) {
      Decision.Act act = reader % 2 == 0 ? Decision.Act.SKIP : Decision.Act.REJECT;
      decisions.add(new Decision(Map.of("name", "L" + reader), act, null));
    }
    plans.add(with(topics, 0, d -> d.withDecisions(decisions.subList(0, 4))));
    plans.add(with(topics, 0, d -> d.withDecisions(decisions.subList(2, 9))));
    plans.add(with(books(topics, 1, 2), 0, d -> d.withDecisions(decisions)));
    // what tells records apart, and what links look for
    Plan read = named(plan, Map.of("L1", "L2", "L3", "Neu", "L7", "L70"));
    Plan called = with(read, 0, d -> with(d, "name", RecountOfSeveralTest::named));
    plans.add(called);
    plans.add(with(called, 1, d -> with(d, "leser", RecountOfSeveralTest::named)));
    Plan lent = named(plan, Map.of("N7", "N14", "N20", "N21", "N35", "neu"));
    plans.add(with(lent, 1, d -> with(d, "nummer", RecountOfSeveralTest::named)));
    plans.add(with(all, 2, d -> with(d, "zeile", f -> f.withOrigin(Origin.fixed("2")))));
    // somebody thinks better of all of it
    plans.add(books(plan, 0, 1));
    return plans;
  }

  /** With a phrasebook of names, and all answers about places and titles. */
  private static Plan named(Plan plan, Map<String, String> names) {
    List<Phrasebook> all = new ArrayList<>(books(plan, 2, 2).phrasebooks());
    all.add(
        new Phrasebook(
            "Namen",
            names.entrySet().stream()
                .map(e -> new Phrasebook.Phrase(e.getKey(), e.getValue()))
                .toList()));
    return plan.withPhrasebooks(all);
  }

  private static Fill named(Fill fill) {
    return fill.withSteps(List.of(Step.of(StepKind.TRANSLATE, "book", "Namen")));
  }

  private static RowOutcomes rehearsed(OpenedPlan opened) {
    RowOutcomes outcomes = new RowOutcomes();
    List<RunReport.DestinationReport> books =
        new Pipeline(opened).rehearse(outcomes.beside(new Fates()), Progress.NONE).destinations();
    for (int d = 0; d < books.size(); d++) {
      // the books and what was noted of each row say the same
      RowOutcomes.Counts counts = outcomes.counts().get(d);
      RunReport.DestinationReport of = books.get(d);
      assertThat(counts.added()).isEqualTo(of.added());
      assertThat(counts.changed()).isEqualTo(of.changed());
      assertThat(counts.skipped()).isEqualTo(of.skipped());
      assertThat(counts.rejected()).isEqualTo(of.rejected());
      assertThat(counts.waiting()).isEqualTo(of.waiting() == null ? 0 : of.waiting());
    }
    return outcomes;
  }

  @ParameterizedTest
  @CsvSource({
    "h2, whole, blank, '', 40",
    "h2, whole, reject, '', 4000",
    "h2, each, blank, '', 40",
    "h2, each, reject, '', 4000",
    "h2, whole, blank, '\"policies\": {\"onRepeat\": \"merge\"},', 900",
    "h2, each, blank, '\"policies\": {\"onRepeat\": \"ask\"},', 900",
    "postgresql, whole, reject, '\"policies\": {\"onNone\": \"ask\"},', 2000"
  })
  void countsAreThoseOfAWholeRehearsal(
      String database, String way, String missing, String policies, int names)
      throws SQLException, IOException {
    String[] rows = rows(3_000, names);
    try (Databases.Fresh on = database.equals("h2") ? Databases.h2() : Databases.postgres();
        SourceTable source = Runs.source(folder, rows)) {
      schema(on);
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, Clock.systemUTC());
      List<Plan> plans = answers(plan(way, missing, policies));
      RowOutcomes outcomes = rehearsed(Runs.opened(on, source, plans.get(0)));
      assertThat(outcomes.counts()).allMatch(counts -> counts.waiting() > 0);
      Set<List<RowOutcomes.Counts>> told = new HashSet<>();
      for (int i = 1; i < plans.size(); i++) {
        OpenedPlan answered = Runs.opened(on, source, plans.get(i));
        Recount recount =
            Recount.of(Runs.opened(on, source, plans.get(i - 1)), answered, outcomes, remembered);
        assertThat(recount).as("answer %d", i).isNotNull();
        outcomes = recount.outcomes();
        told.add(outcomes.counts());
        assertThat(outcomes.counts()).as("answer %d", i).isEqualTo(rehearsed(answered).counts());
      }
      assertThat(told)
          .as("nearly each answer changes something")
          .hasSizeGreaterThan(plans.size() - 5);
    }
  }

  /** An answer about a few rows goes through these, and through those that have to do with them. */
  @Test
  void onlyWhatIsTouchedIsGoneThrough() throws SQLException, IOException {
    List<String> rows = new ArrayList<>();
    rows.add(Loans.TITLES_OF_ROWS);
    for (int i = 0; i < 4_000; i++) {
      // each of its own, but for one in a hundred, who brought the one after
      String place = i % 100 == 0 ? "Kölle" : "Ulm";
      String brought = i % 100 == 1 ? "Eigen " + (i - 1) : "";
      rows.add("E%s;Eigen %s;%s;%s;9;1;Faust;e%s/f%s;A".formatted(i, i, brought, place, i, i));
    }
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = Runs.source(folder, rows.toArray(String[]::new))) {
      schema(on);
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, Clock.systemUTC());
      Plan plan = plan("whole", "blank", "");
      OpenedPlan asked = Runs.opened(on, source, books(plan, 0, 0));
      RowOutcomes outcomes = rehearsed(asked);
      assertThat(outcomes.counts())
          .extracting(RowOutcomes.Counts::waiting)
          .containsExactly(40L, 40L, 40L, 80L);
      OpenedPlan answered = Runs.opened(on, source, books(plan, 1, 0));
      Recount recount = Recount.of(asked, answered, outcomes, remembered);
      assertThat(recount.rows()).isEqualTo(80);
      assertThat(recount.outcomes().counts())
          .extracting(RowOutcomes.Counts::added)
          .containsExactly(4_000L, 4_000L, 4_000L, 8_000L);
      assertThat(outcomes.counts().get(0).waiting()).as("what was known stays").isEqualTo(40);
    }
  }

  /** What decides which rows go where, or about children, has to be rehearsed. */
  @Test
  void otherEditsAreNotCounted() throws SQLException, IOException {
    String[] rows = rows(60, 20);
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = Runs.source(folder, rows)) {
      schema(on);
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, Clock.systemUTC());
      Plan plan = books(plan("whole", "blank", ""), 0, 0);
      OpenedPlan asked = Runs.opened(on, source, plan);
      RowOutcomes outcomes = rehearsed(asked);
      Decision skip =
          new Decision(Map.of("ausleihe", "1001", "zeile", "1"), Decision.Act.SKIP, null);
      List<Plan> others =
          List.of(
              with(plan, 2, d -> d.withWhere("[Titel]<>\"Effi\"")),
              with(plan, 3, d -> d.withSplit(new Destination.Split("Themen", List.of("w")))),
              with(plan, 0, d -> d.withDistinct(false)),
              with(plan, 2, d -> d.withDecisions(List.of(skip))),
              plan.withDestinations(plan.destinations().subList(0, 3)));
      for (Plan other : others) {
        OpenedPlan now = Runs.opened(on, source, other);
        assertThat(Recount.of(asked, now, outcomes, remembered)).as("%s", other).isNull();
      }
      OpenedPlan same = Runs.opened(on, source, plan.withName("anders"));
      assertThat(Recount.of(asked, same, outcomes, remembered).rows()).isZero();
      assertThat(Recount.of(asked, same, new RowOutcomes(), remembered)).isNull();
    }
  }
}
