package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zestyporter.core.run.Choir.members;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.match.MatchClass;
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
import org.zestyporter.core.source.Correction;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Comparison.Ignore;

/** Rows by class, and what would become of some: the same as if all were rehearsed. */
class ClassingTest {
  private static final String[] ROWS = {
    "Nr;Nachname;Geboren;Stimme;Beitrag;Ort",
    "007;Adler;1980-01-02;Alt;40;Kiel",
    ";ÖZDEMIR;1975-05-05;Bass;55;",
    "8;Özdemir;1975-05-05;Bass;60;Kiel",
    ";Brandt;1990-09-09;Tenor;35;Ulm",
    "99;Neumann;2001-03-04;Alt;20;",
    "099;Neumann;2001-03-04;;25;Jena",
    "99;Neumann;2001-03-04;Sopran;;",
    ";Öztürk;1999-01-01;Alt;10;Ulm",
    ";;;Alt;10;Ulm",
    "12;Cordes;1966-06-06;viel zu lange Stimme;10;Ulm",
    "10;Anders;1988-08-08;Alt;10;Ulm",
    "31;Voss;1950-01-01;Alt;10;Ulm"
  };

  @TempDir Path folder;

  /** Time goes on when it is told to. */
  private static final class Hand extends Clock {
    private Instant now = Instant.parse("2026-11-27T09:00:00Z");

    void turn(Duration by) {
      now = now.plus(by);
    }

    @Override
    public Instant instant() {
      return now;
    }

    @Override
    public java.time.ZoneId getZone() {
      return java.time.ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(java.time.ZoneId zone) {
      return this;
    }
  }

  private final Hand clock = new Hand();

  private static Plan plan(Destination destination) {
    return new Plan("Chor", null, Reading.FIND, List.of(destination), null);
  }

  private static List<String> rehearsed(OpenedPlan opened) {
    Fates fates = new Fates();
    new Pipeline(opened).rehearse(fates, Progress.NONE);
    return fates.told();
  }

  /** What becomes of all rows, shown class by class. */
  private static List<String> shown(Classing classing) {
    Fates fates = new Fates();
    for (MatchClass is : MatchClass.values()) {
      classing.show(is, (chunk, entry) -> fates.entries.add(chunk.entries().get(entry)));
    }
    fates.entries.sort(Comparator.comparingLong(LedgerEntry::line));
    return fates.told();
  }

  @ParameterizedTest
  @CsvSource({"h2", "postgresql"})
  void whateverThePoliciesItShowsWhatIsRehearsed(String database) throws SQLException, IOException {
    int step = Integer.getInteger("porter.more", 0) > 0 ? 1 : database.equals("h2") ? 3 : 11;
    int number = 0;
    try (Databases.Fresh on = database.equals("h2") ? Databases.h2() : Databases.postgres();
        SourceTable source = Runs.source(folder, ROWS)) {
      Choir.schema(on);
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, clock);
      for (OnMatch onMatch : OnMatch.values()) {
        for (OnNone onNone : OnNone.values()) {
          for (OnSeveral onSeveral : OnSeveral.values()) {
            for (OnRepeat onRepeat : OnRepeat.values()) {
              if (number++ % step == 0) {
                Destination members =
                    members(onMatch, onNone, onSeveral, onRepeat)
                        .withDecisions(
                            List.of(new Decision(Map.of("nummer", "31"), Decision.Act.SKIP, null)));
                OpenedPlan opened = Runs.opened(on, source, plan(members));
                String which = members.policies().toString();
                List<String> all = rehearsed(opened);
                Classing fresh = Classing.of(opened, 0, null);
                Classing kept = Classing.of(opened, 0, remembered);
                assertThat(shown(fresh)).as(which).isEqualTo(all);
                assertThat(shown(kept)).as(which).isEqualTo(all);
                assertThat(kept.counted()).as(which).isEqualTo(fresh.counted());
              }
            }
          }
        }
      }
    }
  }

  private static Map<MatchClass, Long> rows(Classing classing) {
    Map<MatchClass, Long> rows = new EnumMap<>(classing.counted().rows());
    rows.values().removeIf(n -> n == 0);
    return rows;
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void eachEditIsSeenThoughTheRestIsKept(Databases.Fresh on) throws SQLException, IOException {
    try (on;
        SourceTable source = Runs.source(folder, ROWS)) {
      Choir.schema(on);
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, clock);
      Destination members = members(Policies.DEFAULT);
      Destination byName = members.withKeys(List.of(Choir.BY_NAME));
      Fill name = Fill.of("nachname", Origin.column("Nachname"));
      Fill translated =
          name.withSteps(List.of(Step.of(StepKind.TRANSLATE, "book", "Namen"))).forNewOnly();
      List<Plan> edits = new ArrayList<>();
      for (Destination edited :
          List.of(
              members,
              byName,
              byName.withKeys(List.of(new MatchKey(List.of("geboren"), List.of()))),
              byName.withKeys(List.of()),
              byName.withAmong("[ausgetreten]=0"),
              with(byName, Fill.of("geboren", Origin.fixed("1990-09-09"))),
              with(byName, Fill.of("stimme", Origin.column("Ort"))))) {
        edits.add(plan(edited));
      }
      Plan last = plan(with(byName, translated));
      edits.add(last.withPhrasebooks(List.of(book("Adler", "Brandt"))));
      edits.add(last.withPhrasebooks(List.of(book("Adler", "Ozdemir"))));
      List<Map<MatchClass, Long>> seen = new ArrayList<>();
      for (int round = 0; round < 2; round++) {
        for (Plan edit : edits) {
          OpenedPlan opened = Runs.opened(on, source, edit);
          Classing kept = Classing.of(opened, 0, remembered);
          assertThat(shown(kept)).isEqualTo(rehearsed(opened));
          assertThat(kept.counted()).isEqualTo(Classing.of(opened, 0, null).counted());
          seen.add(rows(kept));
        }
      }
      assertThat(seen.subList(0, edits.size())).isEqualTo(seen.subList(edits.size(), seen.size()));
      assertThat(seen.stream().distinct().count()).isGreaterThanOrEqualTo(6);
    }
  }

  private static Phrasebook book(String from, String to) {
    return new Phrasebook("Namen", List.of(new Phrasebook.Phrase(from, to)));
  }

  private static Destination with(Destination members, Fill fill) {
    return members.withFills(
        members.fills().stream().map(f -> f.field().equals(fill.field()) ? fill : f).toList());
  }

  @Test
  void correctedCellsAreAnotherSource() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = Runs.source(folder, ROWS)) {
      Choir.schema(on);
      on.database().forget();
      Plan plan = plan(members(Policies.DEFAULT));
      Plan corrected = plan.withCorrections(List.of(new Correction(13, "Nr", "31", "10")));
      SourceTable rows = source.corrected(corrected.corrections());
      OpenedPlan opened = Runs.opened(on, rows, corrected);
      Remembered remembered = new Remembered(on.database(), opened.source(), clock);
      Classing kept = Classing.of(opened, 0, remembered);
      assertThat(shown(kept)).isEqualTo(rehearsed(opened));
      Classing as = Classing.of(Runs.opened(on, source, plan), 0, null);
      assertThat(rows(kept).get(MatchClass.REPEATS))
          .isEqualTo(rows(as).get(MatchClass.REPEATS) + 1);
    }
  }

  /** Records are taken to be the same for a minute, and no longer. */
  @Test
  void newRecordsAreFoundAfterAMinute() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = Runs.source(folder, ROWS)) {
      Choir.schema(on);
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, clock);
      OpenedPlan opened = Runs.opened(on, source, plan(members(Policies.DEFAULT)));
      long before = Classing.of(opened, 0, remembered).counted().rows().get(MatchClass.ONE);
      on.execute(
          "INSERT INTO mitglied (id, nummer, nachname, geboren, ausgetreten)"
              + " VALUES (60, '31', 'Voss', '1950-01-01', 0)");
      clock.turn(Duration.ofSeconds(59));
      Classing soon = Classing.of(opened, 0, remembered);
      assertThat(soon.counted().rows()).containsEntry(MatchClass.ONE, before);
      clock.turn(Duration.ofSeconds(2));
      Classing later = Classing.of(opened, 0, remembered);
      assertThat(later.counted().rows()).containsEntry(MatchClass.ONE, before + 1);
      assertThat(shown(later)).isEqualTo(rehearsed(opened));
    }
  }

  /** Though the same key was asked for by its values, and all records a little later. */
  @Test
  void nothingHoldsLongerThanAMinuteBecauseAnotherKeyAskedForAll()
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = Runs.source(folder, ROWS)) {
      Choir.schema(on);
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, clock);
      MatchKey exact = new MatchKey(List.of("nummer"), List.of());
      MatchKey loose = new MatchKey(List.of("nummer"), List.of(Ignore.CASE));
      Destination members = members(Policies.DEFAULT);
      OpenedPlan opened = Runs.opened(on, source, plan(members.withKeys(List.of(exact))));
      long before = Classing.of(opened, 0, remembered).counted().rows().get(MatchClass.ONE);
      clock.turn(Duration.ofSeconds(50));
      OpenedPlan other = Runs.opened(on, source, plan(members.withKeys(List.of(loose))));
      Classing.of(other, 0, remembered);
      on.execute(
          "INSERT INTO mitglied (id, nummer, nachname, geboren, ausgetreten)"
              + " VALUES (60, '31', 'Voss', '1950-01-01', 0)");
      clock.turn(Duration.ofSeconds(5));
      Classing.of(opened, 0, remembered);
      clock.turn(Duration.ofSeconds(10));
      assertThat(Classing.of(opened, 0, remembered).counted().rows())
          .containsEntry(MatchClass.ONE, before + 1);
    }
  }

  /** Of many rows some are looked at, from all over the file; all of them are counted. */
  @Test
  void largeFilesAreCountedWholeAndShownInPart() throws SQLException, IOException {
    Random random = new Random(11);
    int rows = 40_000;
    String[] lines = new String[rows + 1];
    lines[0] = "Nr;Nachname;Geboren;Stimme;Beitrag;Ort";
    for (int i = 1; i <= rows; i++) {
      int number = random.nextInt(rows);
      lines[i] = number + ";Name " + number + ";1980-01-02;Alt;" + random.nextInt(90) + ";Kiel";
    }
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = Runs.source(folder, lines)) {
      Choir.schema(on);
      on.execute(
          "INSERT INTO mitglied (id, nummer, nachname, geboren, ausgetreten)"
              + " SELECT \"X\" + 1000000, \"X\", 'Name ' || \"X\", DATE '1980-01-02', 0"
              + " FROM SYSTEM_RANGE(20, 20000)");
      on.database().forget();
      Destination members = members(null, null, null, OnRepeat.MERGE);
      OpenedPlan opened = Runs.opened(on, source, plan(members));
      Fates fates = new Fates();
      new Pipeline(opened).rehearse(fates, Progress.NONE);
      Remembered remembered = new Remembered(on.database(), source, clock);
      Classing kept = Classing.of(opened, 0, remembered);
      Map<MatchClass, Long> counted = kept.counted().rows();
      assertThat(counted.get(MatchClass.REPEATS))
          .isEqualTo(fates.entries.stream().filter(e -> e.outcome() == Outcome.SKIPPED).count());
      assertThat(counted.get(MatchClass.NONE))
          .isEqualTo(fates.entries.stream().filter(e -> e.outcome() == Outcome.NEW).count());
      List<LedgerEntry> some = new ArrayList<>();
      long looked =
          kept.show(MatchClass.ONE, (chunk, entry) -> some.add(chunk.entries().get(entry)));
      assertThat(counted.get(MatchClass.ONE)).isGreaterThan(10_000);
      assertThat(some.size()).isBetween(5_000, 10_000);
      assertThat(looked).isGreaterThanOrEqualTo(some.size());
      assertThat(some.get(some.size() - 1).line() - some.get(0).line()).isGreaterThan(rows / 2);
      for (LedgerEntry entry : some) {
        assertThat(entry).isEqualTo(fates.entries.get((int) entry.line() - 2));
      }
    }
  }

  @Test
  void severalFieldsOfOneKeyAreComparedEachAsItIsSaid() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = Runs.source(folder, ROWS)) {
      Choir.schema(on);
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, clock);
      for (List<Ignore> ignoring :
          List.of(List.<Ignore>of(), List.of(Ignore.CASE, Ignore.ACCENTS), List.of(Ignore.CASE))) {
        MatchKey key =
            new MatchKey(List.of("nachname", "geboren"), List.of(), Map.of("nachname", ignoring));
        Destination byName = members(Policies.DEFAULT).withKeys(List.of(key));
        OpenedPlan opened = Runs.opened(on, source, plan(byName));
        assertThat(shown(Classing.of(opened, 0, remembered))).isEqualTo(rehearsed(opened));
      }
    }
  }

  /** Of files that are too large for it nothing is kept in memory. */
  @Test
  void whatHasNoRoomIsNotKept() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = Runs.source(folder, ROWS)) {
      Choir.schema(on);
      on.database().forget();
      OpenedPlan opened = Runs.opened(on, source, plan(members(Policies.DEFAULT)));
      Target target = Targets.open(opened).get(0);
      List<String> fields = target.lookedAt(true);
      // a number of text, a name, a day, two keys and what must be unique
      long heap = 512L << 20;
      long million = Remembered.weight(1_000_000, target, fields);
      assertThat(Remembered.fits(million, heap)).isTrue();
      assertThat(Remembered.fits(10 * million, heap)).isFalse();
      assertThat(Remembered.fits(10 * million, heap * 16)).isTrue();
      // a field counts once, and what must be unique only where somebody asks for it
      fields.addAll(List.of("NUMMER", "nachname"));
      assertThat(Remembered.weight(1_000_000, target, fields)).isEqualTo(million);
      assertThat(Remembered.weightOfMatches(1_000_000, target, fields)).isLessThan(million);
    }
  }
}
