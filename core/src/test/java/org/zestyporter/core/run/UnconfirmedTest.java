package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.Warning;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.PorterException;

/** What is only supposed is asked by a rehearsal, and nothing is written by it. */
class UnconfirmedTest {
  private static final LocaleSettings MONTH_FIRST =
      new LocaleSettings(".", DateOrder.MONTH_DAY_YEAR);

  @TempDir Path folder;

  private static final String FILE =
      """
      no;seen;other;kg;text
      1;03/04/2026;2026-05-06;1.204;01/02/2026
      2;05/05/2026;2026-05-07;2.310;02/01/2026
      3;;2026-05-07;7;n
      """;

  private static Fill read(String field, String column, StepKind kind, String... settings) {
    return Fill.of(field, Origin.column(column), Step.of(kind, settings));
  }

  private static Fill[] fills() {
    return new Fill[] {
      Fill.of("no", Origin.column("no")),
      read("seen", "seen", StepKind.READ_DATE),
      read("other", "other", StepKind.READ_DATE),
      read("kg", "kg", StepKind.READ_NUMBER),
      Fill.of("txt", Origin.column("text")),
    };
  }

  private RunReport go(Reading reading, boolean run, Fill... fills)
      throws IOException, SQLException {
    Path csv = folder.resolve("seals.csv");
    Files.writeString(csv, FILE);
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = SourceReader.open(csv, folder.resolve("cells"), reading)) {
      on.execute(
          "CREATE TABLE seal (no INT PRIMARY KEY, seen DATE, other DATE, kg NUMERIC(9,3),"
              + " txt VARCHAR(20))");
      Destination seals = new Destination("seal", List.of(fills), List.of(), null);
      Plan plan = new Plan("Seals", null, reading, List.of(seals), null);
      Pipeline pipeline = new Pipeline(Runs.opened(on, source, plan));
      RunReport report =
          run
              ? pipeline.run("2026-0001", Ledger.NONE, Progress.NONE)
              : pipeline.rehearse(Ledger.NONE, Progress.NONE);
      if (run) {
        assertThat(on.rows("SELECT seen FROM seal ORDER BY no")).startsWith("2026-03-04;");
      }
      return report;
    }
  }

  private static List<String> asked(RunReport report) {
    return report.questions().stream()
        .map(q -> q.code().word() + " " + q.field() + " " + q.value() + " " + q.rows())
        .toList();
  }

  @Test
  void datesAndNumbersThatReadInTwoWaysAreAskedOnce() throws Exception {
    assertThat(asked(go(Reading.FIND, false, fills())))
        .containsExactly("ambiguous-dates seen 03/04/2026 1", "ambiguous-decimals kg 1.204 2");
  }

  @Test
  void nothingIsWrittenBeforeTheyAreAnswered() {
    assertThatThrownBy(() -> go(Reading.FIND, true, fills()))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining("03/04/2026")
        .hasMessageContaining("column “seen”");
  }

  @Test
  void aLocaleOfThePlanAnswersBoth() throws Exception {
    Reading said = Reading.FIND.withLocale(MONTH_FIRST);
    assertThat(go(said, false, fills()).questions()).isEmpty();
    assertThat(go(said, true, fills()).balanced()).isTrue();
  }

  @Test
  void theAnswerToOneLeavesTheOtherOpen() throws Exception {
    Reading dates = Reading.FIND.withLocale(MONTH_FIRST).withConfirmed(List.of("ambiguous-dates:"));
    assertThat(asked(go(dates, false, fills()))).containsExactly("ambiguous-decimals kg 1.204 2");
    Reading both = dates.withConfirmed(List.of("ambiguous-dates:", "ambiguous-decimals:"));
    assertThat(go(both, true, fills()).questions()).isEmpty();
  }

  @Test
  void onlyFieldsThatReadThemAsTheFileDoesAreAskedAbout() throws Exception {
    Fill explicit = read("seen", "seen", StepKind.READ_DATE, "order", "month-day-year");
    Fill asText = Fill.of("txt", Origin.column("seen"));
    Fill point = read("kg", "kg", StepKind.READ_NUMBER, "decimal", ".");
    assertThat(go(Reading.FIND, true, fills()[0], explicit, asText, point).questions()).isEmpty();
    Fill formula = Fill.of("seen", Origin.formula("DATEVALUE([seen])"));
    Fill elsewhere =
        Fill.of(
            "other",
            Origin.column("other"),
            Step.of(StepKind.OR_COLUMN, "column", "seen"),
            Step.of(StepKind.READ_DATE));
    assertThat(asked(go(Reading.FIND, false, fills()[0], formula, elsewhere)))
        .containsExactly("ambiguous-dates seen 03/04/2026 1", "ambiguous-dates other 03/04/2026 1");
  }

  @Test
  void theFileSaysSoAtReadToo() throws Exception {
    Path csv = folder.resolve("seals.csv");
    Files.writeString(csv, FILE);
    try (SourceTable source = SourceReader.open(csv, folder.resolve("c"), Reading.FIND)) {
      assertThat(source.warnings())
          .filteredOn(Warning::confirm)
          .extracting(Warning::message)
          .containsExactly(
              "kg: one sign with three figures behind it, as in 1.204, may part thousands or"
                  + " decimals (2 cells). Say which sign stands before decimals.",
              "seen, text: no date tells day from month, as in 03/04/2026 (3 cells). Say which"
                  + " comes first.");
    }
  }
}
