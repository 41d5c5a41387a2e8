package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
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

  @Test
  void whatIsNoNumberCanNotBeRight() throws SQLException {
    try (Databases.Fresh on = post(Databases.h2())) {
      assertThatThrownBy(() -> go(on, parcels("heavy"), new Fates(), false, usual(30)))
          .isInstanceOf(PorterException.class)
          .hasMessageContaining("\"heavy\" though it is far off");
    }
  }
}
