package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** Columns of numbers that have their unit beside them, all or some, are read as measures. */
class MeasureDraftTest {
  @TempDir Path folder;

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void numbersWithTheirUnitAreReadAsMeasures(Databases.Fresh on) throws SQLException, IOException {
    on.execute(
        "CREATE TABLE spar (id INTEGER PRIMARY KEY, length_m NUMERIC(6,2), price INTEGER,"
            + " weight NUMERIC(8,1), wear NUMERIC(5,2), loss NUMERIC(4,4))");
    try (on;
        SourceTable source =
            PlanDraftTest.file(
                folder,
                "Id;Länge (m);Price;Weight;Wear;Loss",
                "1;18,80 m;7;12 kg;12 %;1,5 %",
                "2;9,5 m;8;0,4 t;7,5 %;2 %",
                "3;12 m;9;17,5 kg;0 %;0 %",
                "4;7;3;8 kg;3%;4 %")) {
      ProposedTable proposal =
          new PlanDraft(on.database(), source).draft(on.database().table("spar"));
      assertThat(PlanDraftTest.fill(proposal, "length_m").steps())
          .containsExactly(Step.of(StepKind.READ_MEASURE, "in", "m"));
      assertThat(PlanDraftTest.kinds(proposal, "price")).containsExactly(StepKind.READ_NUMBER);
      assertThat(PlanDraftTest.fill(proposal, "weight").steps())
          .containsExactly(Step.of(StepKind.READ_MEASURE, "in", "kg"));
      assertThat(PlanDraftTest.fill(proposal, "wear").steps())
          .containsExactly(Step.of(StepKind.READ_PERCENT, "as", "points"));
      assertThat(PlanDraftTest.fill(proposal, "loss").steps())
          .containsExactly(Step.of(StepKind.READ_PERCENT, "as", "fraction"));
    }
  }

  /** An application may count in cents what a list has in whole units and places. */
  @ParameterizedTest
  @CsvSource({
    "Total,12.50|7|3.05,true",
    "Total,1250|700|305,false",
    "Total cents,12.50|7|3.05,false"
  })
  void amountsBecomeCents(String title, String values, boolean multiplied)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute("CREATE TABLE sale (\"totalCents\" INTEGER)");
      String[] lines = (title + "|" + values).split("\\|");
      try (SourceTable source = PlanDraftTest.file(folder, lines)) {
        ProposedTable draft =
            new PlanDraft(on.database(), source).draft(on.database().table("sale"));
        assertThat(PlanDraftTest.kinds(draft, "totalCents"))
            .isEqualTo(
                multiplied
                    ? List.of(StepKind.READ_NUMBER, StepKind.MULTIPLY, StepKind.ROUND)
                    : List.of(StepKind.READ_NUMBER));
      }
    }
  }

  /** Values with and without their unit stand side by side where several people keep a list. */
  @ParameterizedTest
  @CsvSource({
    // the title, or the field, says the unit: every twentieth value with it is enough
    "Tiefgang (m),draught,'2,90 m|3,10|2,20|4|1,80|2,05|1,95|3,30|2,75|2,60',m",
    "Tief,depth_m,'2,90 m|3,10|2,20|4|1,80|2,05|1,95|3,30|2,75|2,60',m",
    // nothing else says it: every fifth is enough, fewer are not
    "Tief,draught,'2,90 m|3,10|2,20|4|1,80|2,05 m|1,95|3,30|2,75|2,60',m",
    "Tief,draught,'2,90 m|3,10|2,20|4|1,80|2,05|1,95|3,30|2,75|2,60',",
    // bare numbers are in the unit of the title, those with one are converted
    "Depth (ft),draught,'9.5|8|2.20 m|7.5|6|12|11|10|9|8',ft",
    // other words are no numbers
    "Tief (m),draught,'2,90 m|rund drei|siehe Plan|x|unbekannt',"
  })
  void aFewValuesWithTheirUnitTell(String title, String field, String values, String unit)
      throws SQLException, IOException {
    Databases.Fresh on = Databases.h2();
    on.execute(
        "CREATE TABLE keel (id INTEGER PRIMARY KEY, " + field + " DECIMAL(6,2), remark CHAR(20))");
    String[] cells = values.split("\\|");
    String[] lines = new String[cells.length + 1];
    lines[0] = "Id;" + title;
    for (int i = 0; i < cells.length; i++) {
      lines[i + 1] = i + ";" + cells[i];
    }
    try (on;
        SourceTable source = PlanDraftTest.file(folder, lines)) {
      TableInfo keel = on.database().table("keel");
      PlanDraft draft = new PlanDraft(on.database(), source);
      assertThat(draft.offer(keel, keel.field(field), title).fill().steps())
          .containsExactly(
              unit == null
                  ? Step.of(StepKind.READ_NUMBER)
                  : Step.of(StepKind.READ_MEASURE, "in", unit));
    }
  }

  /** What is measured finds its field by where its numbers lie, whatever the title says. */
  @Test
  void measuresAreComparedWithTheNumbersThatAreThere() throws SQLException, IOException {
    Databases.Fresh on = Databases.h2();
    on.execute(
        "CREATE TABLE beam (id INTEGER PRIMARY KEY, span DECIMAL(6,2), weight DECIMAL(6,2))",
        "INSERT INTO beam SELECT n, 10 + n / 4.0, 900 + n / 4.0 FROM SYSTEM_RANGE(1, 40) AS r (n)");
    String[] lines = new String[31];
    lines[0] = "Id;Kolonne 1;Kolonne 2";
    for (int i = 1; i <= 30; i++) {
      String unit = i % 2 == 0 ? " m" : "";
      lines[i] = (100 + i) + ";9" + (i % 10) + "5,25;1" + i % 10 + ",75" + unit;
    }
    try (on;
        SourceTable source = PlanDraftTest.file(folder, lines)) {
      ProposedTable proposal =
          new PlanDraft(on.database(), source).draft(on.database().table("beam"));
      assertThat(PlanDraftTest.fill(proposal, "span").origin().column()).isEqualTo("Kolonne 2");
      assertThat(PlanDraftTest.fill(proposal, "span").steps())
          .containsExactly(Step.of(StepKind.READ_MEASURE, "in", "m"));
    }
  }
}
