package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.PorterException;

/** Numbers that are far above all others, in the parcels of a post office. */
class FarOffTest {
  @TempDir Path folder;

  private static Destination parcels(String... right) {
    List<Fill> fills =
        List.of(
            Fill.of("id", Origin.column("id"), Step.of(StepKind.READ_NUMBER)),
            Fill.of("weight", Origin.column("weight"), Step.of(StepKind.READ_NUMBER))
                .withFarOff(List.of(right)),
            Fill.of("stamps", Origin.fixed("3")));
    return new Destination("parcel", fills, List.of(new MatchKey(List.of("id"), List.of())), null);
  }

  private RunReport go(Databases.Fresh on, Destination to, Fates fates, boolean run, List<String> w)
      throws IOException {
    List<String> lines = new ArrayList<>(List.of("id,weight"));
    for (int i = 0; i < w.size(); i++) {
      // a key may be as far from the others as it likes
      lines.add((i == 3 ? 90_000_000 : i) + "," + w.get(i));
    }
    Plan plan = new Plan("Parcels", null, Reading.FIND, List.of(to), null);
    return Runs.go(on, folder, plan, lines, fates, run);
  }

  private static Databases.Fresh post(Databases.Fresh on) throws SQLException {
    on.execute(
        "CREATE TABLE parcel (id INTEGER PRIMARY KEY, weight NUMERIC(14,3), stamps INTEGER)");
    return on;
  }

  private static List<String> usual(int count) {
    return IntStream.range(0, count).mapToObj(i -> (2 + i % 17) + "." + i % 10).toList();
  }

  private static List<String> with(List<String> usual, String... more) {
    return Stream.concat(usual.stream(), Stream.of(more)).toList();
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void aThousandTimesTheOthersIsAskedAbout(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      post(on);
      List<String> weights = with(usual(60), "12300", "-15000.5", "0", "30");
      Fates fates = new Fates();
      RunReport report = go(on, parcels(), fates, false, weights);
      assertThat(report.questions())
          .extracting(q -> q.code() + " " + q.field() + " " + q.value() + " " + q.rows())
          .containsExactlyInAnyOrder("FAR_OFF weight 12300 1", "FAR_OFF weight -15000.5 1");
      assertThat(fates.line(62).outcome()).isEqualTo(Outcome.REJECTED);
      assertThat(fates.line(62).after()).anyMatch(value -> value.startsWith("12300"));
      assertThat(fates.reasons(62)).isEqualTo("far above all others, the highest of which is 30");
      assertThat(fates.line(5).outcome()).isEqualTo(Outcome.NEW);

      Fates then = new Fates();
      RunReport run = go(on, parcels("12300.0"), then, true, weights);
      assertThat(then.line(62).outcome()).isEqualTo(Outcome.NEW);
      assertThat(then.line(63).outcome()).isEqualTo(Outcome.REJECTED);
      assertThat(run.balanced()).isTrue();
      assertThat(go(on, parcels(Fill.ANY), new Fates(), true, weights).questions()).isEmpty();
      assertThat(on.one("SELECT count(*) FROM parcel").toString()).isEqualTo("64");
    }
  }

  @Test
  void whatOnlySpreadsWidelyIsNot() throws SQLException, IOException {
    try (Databases.Fresh on = post(Databases.h2())) {
      // towns by their people: each size there is between the smallest and the largest
      List<String> towns = new ArrayList<>(usual(60));
      for (int power = 3; power < 27; power++) {
        towns.add(String.valueOf(1 << power));
      }
      assertThat(go(on, parcels(), new Fates(), false, towns).questions()).isEmpty();
      // two groups, of which one is no slip
      List<String> grams = new ArrayList<>(usual(60));
      usual(10).forEach(w -> grams.add(w + "00000"));
      IntStream.range(0, 10).forEach(i -> grams.add((2000 + i) + "000"));
      assertThat(go(on, parcels(), new Fates(), false, grams).questions()).isEmpty();
      // too few to tell
      assertThat(go(on, parcels(), new Fates(), false, with(usual(10), "12300")).questions())
          .isEmpty();
      // a hundred times is no thousand
      assertThat(go(on, parcels(), new Fates(), false, with(usual(60), "1230")).questions())
          .isEmpty();
    }
  }

  /** Among values of one size a lost decimal sign is told, though it is no thousand times most. */
  @Test
  void aLostSignAmongValuesOfOneSizeIsAskedAbout() throws SQLException, IOException {
    try (Databases.Fresh on = post(Databases.h2())) {
      List<String> lengths = IntStream.range(0, 60).mapToObj(i -> 5 + i % 41 + ".5").toList();
      assertThat(go(on, parcels(), new Fates(), false, with(lengths, "14500")).questions())
          .extracting(RunReport.Question::value)
          .containsExactly("14500");
      assertThat(go(on, parcels(), new Fates(), false, with(lengths, "0.014")).questions())
          .extracting(RunReport.Question::value)
          .containsExactly("0.014");
      // a hundred times the largest is none
      assertThat(go(on, parcels(), new Fates(), false, with(lengths, "4500", "0.1")).questions())
          .isEmpty();
    }
  }

  @Test
  void aThousandthOfTheOthersIsAskedAbout() throws SQLException, IOException {
    try (Databases.Fresh on = post(Databases.h2())) {
      Fates fates = new Fates();
      List<String> weights = with(usual(60), "0.002", "-0.001", "0");
      assertThat(go(on, parcels(), fates, false, weights).questions())
          .extracting(RunReport.Question::value)
          .containsExactlyInAnyOrder("0.002", "-0.001");
      assertThat(fates.reasons(62)).isEqualTo("far below all others, the lowest of which is 2");
      assertThat(go(on, parcels("0.002", "-0.001"), new Fates(), false, weights).questions())
          .isEmpty();
      // most numbers may be small, and a few large ones be near
      List<String> prices = new ArrayList<>(usual(30));
      for (int power = 0; power < 12; power++) {
        prices.add(String.valueOf(1.0 / (1 << power)));
      }
      assertThat(go(on, parcels(), new Fates(), false, prices).questions()).isEmpty();
    }
  }

  private RunReport days(
      Databases.Fresh on, Fates fates, boolean run, List<String> right, List<String> days)
      throws IOException {
    List<String> lines = new ArrayList<>(List.of("id,made,seen"));
    for (int i = 0; i < days.size(); i++) {
      lines.add(i + "," + days.get(i) + "," + days.get(i) + " 10:30:00");
    }
    List<Fill> fills =
        List.of(
            Fill.of("id", Origin.column("id"), Step.of(StepKind.READ_NUMBER)),
            Fill.of("made", Origin.column("made"), Step.of(StepKind.READ_DATE)).withFarOff(right),
            Fill.of("seen", Origin.column("seen"), Step.of(StepKind.READ_DATE))
                .withFarOff(right.stream().map(day -> day + "T10:30:00").toList()));
    Destination to = new Destination("jar", fills, List.of(), null);
    Plan plan = new Plan("Jars", null, Reading.FIND, List.of(to), null);
    return Runs.go(on, folder, plan, lines, fates, run);
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void aDayThatIsDecadesFromTheOthersIsAskedAbout(Databases.Fresh on)
      throws SQLException, IOException {
    try (on) {
      on.execute("CREATE TABLE jar (id INTEGER PRIMARY KEY, made DATE, seen TIMESTAMP)");
      List<String> usual =
          IntStream.range(0, 60)
              .mapToObj(i -> (1994 + i % 13) + "-0" + (1 + i % 9) + "-14")
              .toList();
      List<String> days = with(usual, "2036-03-01", "1971-05-02", "2010-01-01");
      Fates fates = new Fates();
      RunReport report = days(on, fates, false, List.of(), days);
      assertThat(report.questions())
          .extracting(q -> q.field() + " " + q.value())
          .containsExactlyInAnyOrder(
              "made 2036-03-01",
              "made 1971-05-02",
              "seen 2036-03-01T10:30:00",
              "seen 1971-05-02T10:30:00");
      assertThat(fates.reasons(62))
          .contains("long after all others, the latest of which is 2010-01-01");
      assertThat(fates.reasons(63))
          .contains("long before all others, the earliest of which is 1994-01-14");
      RunReport run = days(on, new Fates(), true, List.of("2036-03-01", "1971-05-02"), days);
      assertThat(run.questions()).isEmpty();
      assertThat(run.destinations().get(0).added()).isEqualTo(63);
    }
  }

  @Test
  void daysThatOnlySpreadWidelyAreNot() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute("CREATE TABLE jar (id INTEGER PRIMARY KEY, made DATE, seen TIMESTAMP)");
      // people of all ages, and one of a hundred and three
      List<String> born =
          new ArrayList<>(IntStream.range(0, 80).mapToObj(i -> (1940 + i) + "-07-09").toList());
      born.add("1923-02-03");
      // mostly of this year, fewer and fewer before it
      List<String> late = new ArrayList<>(Collections.nCopies(90, "2026-07-09"));
      IntStream.range(0, 4).forEach(i -> late.add((2019 - 9 * i) + "-07-09"));
      // two groups, of which one is no slip
      List<String> both = new ArrayList<>(Collections.nCopies(90, "2026-07-09"));
      IntStream.range(0, 10).forEach(i -> both.add("1926-07-0" + (1 + i % 9)));
      for (List<String> days : List.of(born, late, both)) {
        assertThat(days(on, new Fates(), false, List.of(), days).questions()).isEmpty();
      }
    }
  }

  @Test
  void whatIsNoNumberCanNotBeRight() throws SQLException {
    try (Databases.Fresh on = post(Databases.h2())) {
      assertThatThrownBy(() -> go(on, parcels("heavy"), new Fates(), false, usual(30)))
          .isInstanceOf(PorterException.class)
          .hasMessageContaining("\"heavy\" though it is far off");
    }
  }
}
