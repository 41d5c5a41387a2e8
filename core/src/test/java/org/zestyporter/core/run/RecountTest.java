package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.plan.Policies.OnMatch;
import org.zestyporter.core.plan.Policies.OnNone;
import org.zestyporter.core.plan.Policies.OnRepeat;
import org.zestyporter.core.plan.Policies.OnSeveral;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** What answers change is counted from the rows they touch: the same as if all were rehearsed. */
class RecountTest {
  private static final String[] PLACES = {"Kiel", "Ulm", "Jena", "Bonn", "Kölle", "Freiburg"};

  @TempDir Path folder;

  /** Members whose places are looked up, and whose numbers and mail addresses are unique. */
  private static void schema(Databases.Fresh on) throws SQLException {
    on.execute(
        "CREATE TABLE ort (id INTEGER PRIMARY KEY, name VARCHAR(20) NOT NULL UNIQUE)",
        "CREATE TABLE mitglied (id INTEGER PRIMARY KEY, nummer VARCHAR(8), nachname VARCHAR(40),"
            + " mail VARCHAR(40) UNIQUE, beitrag NUMERIC(12,2), ort INTEGER REFERENCES ort(id),"
            + " stimme VARCHAR(10))",
        "INSERT INTO ort VALUES (1, 'Kiel'), (2, 'Ulm'), (3, 'Jena'), (4, 'Köln')");
    for (int i = 1; i <= 300; i++) {
      on.execute(
          "INSERT INTO mitglied VALUES ("
              + i
              + ", '"
              + (i * 3)
              + "', 'Name "
              + i % 120
              + "', 'm"
              + i
              + "@chor.example', "
              + (20 + i % 40)
              + ", "
              + (1 + i % 3)
              + ", 'Alt')");
    }
  }

  /**
   * @param names how many there are; few, so that many rows are one record, or many
   */
  private static String[] rows(int count, int names) {
    Random random = new Random(5);
    List<String> rows = new ArrayList<>();
    rows.add("Nr;Nachname;Mail;Beitrag;Ort;Stimme");
    for (int i = 0; i < count; i++) {
      rows.add(
          String.join(
              ";",
              random.nextInt(9) == 0 ? "" : String.valueOf(random.nextInt(names * 10)),
              "Name " + random.nextInt(names),
              random.nextInt(3) == 0 ? "" : "m" + random.nextInt(names * 5) + "@chor.example",
              random.nextInt(300) == 0 ? "90000" : String.valueOf(20 + random.nextInt(60)),
              PLACES[random.nextInt(random.nextInt(6) == 0 ? 6 : 3)],
              random.nextInt(20) == 0 ? "Sopran und Alt" : "Alt"));
    }
    return rows.toArray(String[]::new);
  }

  private static Destination members(Policies policies) {
    List<Fill> fills =
        List.of(
            Fill.of(
                    "id",
                    Origin.generated(Origin.Generator.LINE),
                    Step.of(StepKind.ADD, "number", "1000"))
                .forNewOnly(),
            Fill.of("nummer", Origin.column("Nr")).forNewOnly(),
            Fill.of("nachname", Origin.column("Nachname")).forNewOnly(),
            Fill.of("mail", Origin.column("Mail")),
            Fill.of("beitrag", Origin.column("Beitrag"), Step.of(StepKind.READ_NUMBER)),
            Fill.of(
                "ort",
                Origin.linked("Ort", new Origin.Link("name", List.of(), Origin.WhenMissing.ASK)),
                Step.of(StepKind.TRANSLATE, "book", "Orte")),
            Fill.of("stimme", Origin.column("Stimme")));
    return new Destination(
        "mitglied",
        fills,
        List.of(
            new MatchKey(List.of("nummer"), List.of()),
            new MatchKey(List.of("nachname"), List.of())),
        policies);
  }

  private static Plan plan(Destination destination, Phrasebook.Phrase... phrases) {
    return new Plan("Chor", null, Reading.FIND, List.of(destination), null)
        .withPhrasebooks(List.of(new Phrasebook("Orte", List.of(phrases))));
  }

  private static RowOutcomes rehearsed(OpenedPlan opened, long rows) {
    RowOutcomes outcomes = new RowOutcomes();
    Fates fates = new Fates();
    RunReport.DestinationReport report =
        new Pipeline(opened).rehearse(outcomes.beside(fates), Progress.NONE).destinations().get(0);
    // the books and what was noted of each row say the same
    RowOutcomes.Counts counts = outcomes.counts().get(0);
    assertThat(counts.added()).isEqualTo(report.added());
    assertThat(counts.changed()).isEqualTo(report.changed());
    assertThat(counts.unchanged()).isEqualTo(report.unchanged());
    assertThat(counts.skipped()).isEqualTo(report.skipped());
    assertThat(counts.rejected()).isEqualTo(report.rejected());
    assertThat(counts.waiting()).isEqualTo(report.waiting() == null ? 0 : report.waiting());
    assertThat(fates.entries).hasSize((int) rows);
    return outcomes;
  }

  private static Destination with(Destination members, Fill fill) {
    return members.withFills(
        members.fills().stream().map(f -> f.field().equals(fill.field()) ? fill : f).toList());
  }

  private static Fill fill(Destination members, String field) {
    return members.fills().stream().filter(f -> f.field().equals(field)).findFirst().orElseThrow();
  }

  /** Answers that somebody gives one after the other. */
  private static List<Plan> answers(Destination members) {
    Phrasebook.Phrase cologne = new Phrasebook.Phrase("Kölle", "Köln");
    Phrasebook.Phrase bonn = new Phrasebook.Phrase("Bonn", null);
    Phrasebook.Phrase wrong = new Phrasebook.Phrase("Freiburg", "Freibourg");
    Phrasebook.Phrase right = new Phrasebook.Phrase("Freiburg", "Ulm");
    List<Plan> plans = new ArrayList<>();
    plans.add(plan(members));
    plans.add(plan(members, cologne));
    plans.add(plan(members, cologne, bonn));
    plans.add(plan(members, cologne, bonn, wrong));
    plans.add(plan(members, cologne, bonn, right));
    Destination far = with(members, fill(members, "beitrag").withFarOff(List.of("90000")));
    plans.add(plan(far, cologne, bonn, right));
    // the numbers get a unit, so that none is far off; then nobody is to be asked any more
    Fill half =
        fill(members, "beitrag")
            .withSteps(
                List.of(Step.of(StepKind.READ_NUMBER), Step.of(StepKind.ADD, "number", "800")));
    plans.add(plan(with(members, half), cologne, bonn, right));
    plans.add(plan(members, cologne, bonn, right));
    plans.add(
        plan(
            with(members, fill(members, "beitrag").withFarOff(List.of(Fill.ANY))),
            cologne,
            bonn,
            right));
    Destination voices = with(far, fill(far, "stimme").withWhenBad(Fill.WhenBad.BLANK));
    plans.add(plan(voices, cologne, bonn, right));
    List<Decision> decisions = new ArrayList<>();
    for (int name = 0; name < 12; name++) {
      Map<String, String> of = Map.of("nachname", "Name " + name);
      decisions.add(
          switch (name % 4) {
            case 0 -> new Decision(of, Decision.Act.OTHER, null);
            case 1 -> new Decision(of, Decision.Act.SKIP, null);
            case 2 -> new Decision(of, Decision.Act.TAKE, List.of(String.valueOf(name + 120)));
            default -> new Decision(of, Decision.Act.LAST, null);
          });
    }
    for (int given = 3; given <= decisions.size(); given += 3) {
      plans.add(plan(voices.withDecisions(decisions.subList(0, given)), cologne, bonn, right));
    }
    // what decides which rows and records are the same
    Destination tidied =
        with(
            voices,
            fill(voices, "nachname")
                .withSteps(List.of(Step.of(StepKind.TRANSLATE, "book", "Namen"))));
    Phrasebook names =
        new Phrasebook(
            "Namen",
            List.of(
                new Phrasebook.Phrase("Name 7", "Name 8"),
                new Phrasebook.Phrase("Name 9", null),
                new Phrasebook.Phrase("Name 11", "Neu 11")));
    Plan named = plan(tidied, cologne, bonn, right);
    plans.add(named.withPhrasebooks(List.of(named.phrasebooks().get(0), names)));
    plans.add(
        plan(with(voices, Fill.of("nachname", Origin.column("Ort")).forNewOnly()), cologne, right));
    plans.add(plan(with(voices, Fill.of("mail", Origin.fixed("m7@chor.example"))), cologne, right));
    // somebody thinks better of it
    plans.add(plan(voices.withDecisions(decisions.subList(4, 12)), cologne, right));
    plans.add(plan(members, right));
    return plans;
  }

  @ParameterizedTest
  @CsvSource({
    "h2, UPDATE, ADD, ASK, ASK, 150",
    "h2, UPDATE, ADD, ASK, ASK, 40000",
    "h2, UPDATE, ASK, ASK, MERGE, 150",
    "h2, FILL_BLANKS, ADD, SKIP, KEEP_FIRST, 20000",
    "h2, ASK, ADD, REJECT, REJECT, 150",
    "postgresql, UPDATE, ADD, ASK, KEEP_LAST, 30000"
  })
  void countsAreThoseOfAWholeRehearsal(
      String database,
      OnMatch onMatch,
      OnNone onNone,
      OnSeveral onSeveral,
      OnRepeat onRepeat,
      int names)
      throws SQLException, IOException {
    String[] rows = rows(5_000, names);
    try (Databases.Fresh on = database.equals("h2") ? Databases.h2() : Databases.postgres();
        SourceTable source = Runs.source(folder, rows)) {
      schema(on);
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, Clock.systemUTC());
      List<Plan> plans = answers(members(new Policies(onMatch, onNone, onSeveral, onRepeat, null)));
      OpenedPlan asked = Runs.opened(on, source, plans.get(0));
      RowOutcomes outcomes = rehearsed(asked, rows.length - 1);
      List<RowOutcomes.Counts> before = outcomes.counts();
      assertThat(Recount.getReady(asked, outcomes, remembered)).isPositive();
      assertThat(outcomes.counts()).isEqualTo(before);
      List<Long> gone = new ArrayList<>();
      for (int i = 1; i < plans.size(); i++) {
        OpenedPlan answered = Runs.opened(on, source, plans.get(i));
        Recount recount =
            Recount.of(Runs.opened(on, source, plans.get(i - 1)), answered, outcomes, remembered);
        assertThat(recount).as("answer %d", i).isNotNull();
        outcomes = recount.outcomes();
        gone.add(recount.rows());
        assertThat(outcomes.counts())
            .as("answer %d", i)
            .isEqualTo(rehearsed(answered, rows.length - 1).counts());
      }
      assertThat(gone.get(0)).isPositive();
      if (names > 10_000) {
        assertThat(gone.get(0)).isLessThan(rows.length / 4);
      }
    }
  }

  /** An answer about a few rows goes through few, however long the file is. */
  @Test
  void onlyWhatIsTouchedIsGoneThrough() throws SQLException, IOException {
    String[] rows = rows(6_000, 150);
    for (int i = 1; i < rows.length; i++) {
      // each with a key and a mail address of its own
      rows[i] =
          "N"
              + i
              + ";Eigen "
              + i
              + ";e"
              + i
              + "@chor.example;30;"
              + (i % 100 == 0 ? "Kölle" : "Ulm")
              + ";Alt";
    }
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = Runs.source(folder, rows)) {
      schema(on);
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, Clock.systemUTC());
      Destination members = members(Policies.DEFAULT);
      OpenedPlan asked = Runs.opened(on, source, plan(members));
      RowOutcomes outcomes = rehearsed(asked, rows.length - 1);
      assertThat(outcomes.counts().get(0).waiting()).isEqualTo(60);
      assertThat(Recount.getReady(asked, outcomes, remembered)).isEqualTo(60);
      Plan answer = plan(members, new Phrasebook.Phrase("Kölle", "Köln"));
      Recount recount = Recount.of(asked, Runs.opened(on, source, answer), outcomes, remembered);
      assertThat(recount.rows()).isEqualTo(60);
      assertThat(recount.outcomes().counts().get(0).waiting()).isZero();
      assertThat(recount.outcomes().counts().get(0).added()).isEqualTo(6_000);
      assertThat(outcomes.counts().get(0).waiting()).as("what was known stays").isEqualTo(60);
    }
  }

  /** What an answer makes of a row may take the record from one that finds it by another key. */
  @Test
  void rowsThatSpeakOfOneRecordAreTouchedTogether() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2();
        SourceTable source =
            Runs.source(
                folder,
                "Nr;Nachname;Mail;Beitrag;Ort;Stimme",
                "X9;Anders;;30;Kölle;Alt",
                ";Einzig;;31;Ulm;Alt",
                "X7;Fremd;;31;Ulm;Alt")) {
      schema(on);
      on.execute("INSERT INTO mitglied (id, nummer, nachname) VALUES (900, 'X9', 'Einzig')");
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, Clock.systemUTC());
      Destination members = members(Policies.DEFAULT);
      OpenedPlan asked = Runs.opened(on, source, plan(members));
      RowOutcomes outcomes = rehearsed(asked, 3);
      assertThat(outcomes.counts().get(0).changed()).isEqualTo(1);
      OpenedPlan answered =
          Runs.opened(on, source, plan(members, new Phrasebook.Phrase("Kölle", "Köln")));
      Recount recount = Recount.of(asked, answered, outcomes, remembered);
      assertThat(recount.rows()).isEqualTo(2);
      assertThat(recount.outcomes().counts()).isEqualTo(rehearsed(answered, 3).counts());
      assertThat(recount.outcomes().counts().get(0).rejected()).isEqualTo(1);
    }
  }

  /** What is no answer has to be rehearsed. */
  @Test
  void otherEditsAreNotCounted() throws SQLException, IOException {
    String[] rows = rows(50, 150);
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = Runs.source(folder, rows)) {
      schema(on);
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, Clock.systemUTC());
      Destination members = members(Policies.DEFAULT);
      OpenedPlan asked = Runs.opened(on, source, plan(members));
      RowOutcomes outcomes = rehearsed(asked, rows.length - 1);
      Plan as = plan(members);
      List<Plan> others =
          List.of(
              plan(members.withKeys(members.keys().subList(0, 1))),
              plan(members.withPolicies(new Policies(OnMatch.SKIP, null, null, null))),
              plan(members.withAmong("[id]>5")),
              plan(members.withWhere("[Ort]=\"Ulm\"")),
              plan(members.withFills(members.fills().subList(0, 5))),
              plan(with(members, fill(members, "stimme").forNewOnly())),
              plan(
                  with(members, fill(members, "stimme").withBlankOnMatch(Fill.BlankOnMatch.CLEAR))),
              plan(with(members, fill(members, "beitrag").withNever(Fill.Never.LOWER))),
              plan(with(members, Fill.of("stimme", Origin.generated(Origin.Generator.LINE)))),
              as.withDestinations(List.of(members, members.withName("noch einmal"))),
              as.withRun(as.run().withTryInDatabase(true)));
      for (Plan other : others) {
        OpenedPlan now = Runs.opened(on, source, other);
        assertThat(Recount.of(asked, now, outcomes, remembered)).as("%s", other).isNull();
      }
      OpenedPlan same = Runs.opened(on, source, as.withName("anders"));
      assertThat(Recount.of(asked, same, outcomes, remembered).rows()).isZero();
      RowOutcomes unknown = new RowOutcomes();
      assertThat(Recount.of(asked, same, unknown, remembered)).isNull();
    }
  }
}
