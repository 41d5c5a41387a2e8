package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.jdbc.Databases;

/** What a rehearsal does to fields is told as the records before and the rows say it. */
class FieldSummaryTest {
  private static final String PLAN =
      """
      {"name": "Bees", "destinations": [{
        "table": "hive", "keys": [{"fields": ["tag"]}],
        "fills": [
          {"field": "id", "origin": {"kind": "generated", "generator": "line"}, "onlyNew": true},
          {"field": "tag", "origin": {"kind": "column", "column": "Tag"}},
          {"field": "mood", "origin": {"kind": "column", "column": "Mood"}, "blankOnMatch": "clear"},
          {"field": "weight", "origin": {"kind": "column", "column": "Weight"},
            "steps": [{"kind": "read-number"}]},
          {"field": "seen_on", "origin": {"kind": "column", "column": "Seen"},
            "steps": [{"kind": "read-date"}]}]}]}""";

  private static final String FILE =
      """
      Tag;Mood;Weight;Seen
      a;calm;12.5;2026-01-03
      b;;30;2026-05-01
      c;wild;7;2026-01-03
      d;wild;8;2026-01-03
      new;new mood;1000;2026-01-03
      """;

  @TempDir Path folder;

  /** Adds up the chunks of a ledger as they come. */
  private static final class Summing implements Ledger {
    private final FieldSummary summary = new FieldSummary();

    @Override
    public void begin(LedgerLayout layout) {
      // there is one only
    }

    @Override
    public void append(LedgerChunk chunk) {
      summary.add(chunk);
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void fieldsAreToldAsTheyChange(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      on.execute(
          "CREATE TABLE hive (id INTEGER PRIMARY KEY, tag VARCHAR(9), mood VARCHAR(9),"
              + " weight NUMERIC(8,2), seen_on DATE)",
          "INSERT INTO hive VALUES (101, 'a', 'tame', 10, '2026-01-01')",
          "INSERT INTO hive VALUES (102, 'b', 'tame', 10, '2026-01-03')",
          "INSERT INTO hive VALUES (103, 'c', 'calm', NULL, '2026-01-03')",
          "INSERT INTO hive VALUES (104, 'd', 'wild', 8, '2026-01-03')",
          "INSERT INTO hive VALUES (105, 'other', 'lost', 999, '2020-01-03')");
      Summing ledger = new Summing();
      RunReport report = Runs.rehearse(on, folder, PLAN, FILE, ledger);
      assertThat(report.destinations().get(0).changed()).isEqualTo(3);
      List<FieldSummary.Changed> fields = ledger.summary.result();
      assertThat(fields).extracting(FieldSummary.Changed::field).doesNotHaveDuplicates();
      assertThat(fields)
          .extracting(f -> new RunReport.FieldCount(f.field(), f.records()))
          .containsExactlyInAnyOrderElementsOf(report.destinations().get(0).fieldsChanged());

      FieldSummary.Changed mood = of(fields, "mood");
      assertThat(mood.cleared()).isEqualTo(1);
      assertThat(mood.filled()).isZero();
      assertThat(mood.appear()).isEmpty();
      assertThat(mood.vanish()).containsExactly(new FieldSummary.Counted("tame", 2));
      assertThat(mood.largest()).isNull();
      assertThat(mood.before()).isNull();

      FieldSummary.Changed weight = of(fields, "weight");
      assertThat(weight.records()).isEqualTo(3);
      assertThat(weight.filled()).isEqualTo(1);
      assertThat(weight.largest().line()).isEqualTo(3);
      assertThat(new BigDecimal(weight.largest().from())).isEqualByComparingTo("10");
      assertThat(weight.before()).isEqualByComparingTo("28");
      assertThat(weight.after()).isEqualByComparingTo("57.5");
      assertThat(weight.appear()).isNull();

      FieldSummary.Changed seen = of(fields, "seen_on");
      assertThat(seen.largest()).isEqualTo(new FieldSummary.Shift(3, "2026-01-03", "2026-05-01"));
    }
  }

  private static FieldSummary.Changed of(List<FieldSummary.Changed> fields, String name) {
    return fields.stream().filter(f -> f.field().equals(name)).findFirst().orElseThrow();
  }
}
