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
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.MemoryLedger;
import org.zestyporter.core.run.Runs;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;

/** Whole names for tables with a third field for a name: that of the father, or a middle one. */
class FathersNamesTest {
  @TempDir Path folder;

  private List<String> brought(Databases.Fresh on, String fields, String title, String... names)
      throws SQLException, IOException {
    on.execute("CREATE TABLE staff (tab VARCHAR(9) PRIMARY KEY, " + fields + ")");
    String[] lines = new String[names.length + 1];
    lines[0] = "Tab;" + title;
    for (int i = 0; i < names.length; i++) {
      lines[i + 1] = "t" + i + ";" + names[i];
    }
    List<Fill> fills;
    try (SourceTable source = PlanDraftTest.file(folder, lines)) {
      ProposedTable draft =
          new PlanDraft(on.database(), source).draft(on.database().table("staff"));
      fills = draft.destination().fills().stream().map(f -> f.withGuess(false)).toList();
    }
    Plan plan =
        new Plan(
            "Staff",
            null,
            Reading.FIND,
            List.of(new Destination("staff", fills, List.of(), null)),
            null);
    Runs.run(on, folder, PlanJson.write(plan), String.join("\n", lines), new MemoryLedger(false));
    return on.rows("SELECT * FROM staff ORDER BY tab");
  }

  @ParameterizedTest
  @CsvSource({
    "'familiya VARCHAR(20), imya VARCHAR(20), otchestvo VARCHAR(20)', ФИО",
    "'prizvyshche VARCHAR(20), imia VARCHAR(20), po_batkovi VARCHAR(20)', ПІБ",
    "'last_name VARCHAR(20), first_name VARCHAR(20), middle_name VARCHAR(20)', ФИО сотрудника"
  })
  void areTheLastWordsWhereTheFamilyStandsFirst(String fields, String title)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      assertThat(
              brought(
                  on,
                  fields,
                  title,
                  "Мельник Анна Петрівна",
                  "Ткачук  Игорь Олегович",
                  "Алиев Тимур Рустам оглы"))
          .containsExactly(
              "t0;Мельник;Анна;Петрівна;",
              "t1;Ткачук;Игорь;Олегович;",
              "t2;Алиев;Тимур;Рустам оглы;");
    }
  }

  @Test
  void standBetweenTheOthersWhereTheFamilyStandsLast() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      String fields = "first_name VARCHAR(20), middle_name VARCHAR(20), last_name VARCHAR(20)";
      assertThat(
              brought(on, fields, "Full name", "Ann May Lee", "Jan van der Berg", "Bo A. B. Holt"))
          .containsExactly("t0;Ann;May;Lee;", "t1;Jan;null;van der Berg;", "t2;Bo;A. B.;Holt;");
    }
  }

  @Test
  void standBehindTheFirstOneWhereACommaFollowsTheFamily() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      String fields = "surname VARCHAR(20), forename VARCHAR(20), middle VARCHAR(20)";
      assertThat(brought(on, fields, "Name", "\"Lee, Ann May\"", "\"Holt, Bo\""))
          .containsExactly("t0;Lee;Ann;May;", "t1;Holt;Bo;null;");
    }
  }

  /** Without a field of its own it stays with the first name. */
  @Test
  void stayWithTheFirstNameOtherwise() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      String fields = "familiya VARCHAR(20), imya VARCHAR(20)";
      assertThat(brought(on, fields, "ФИО", "Мельник Анна Петровна", "Ткачук Игорь Олегович"))
          .containsExactly("t0;Мельник;Анна Петровна;", "t1;Ткачук;Игорь Олегович;");
    }
  }
}
