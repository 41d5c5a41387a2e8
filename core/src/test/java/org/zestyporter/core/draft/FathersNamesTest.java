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
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.run.MemoryLedger;
import org.zestyporter.core.run.Runs;
import org.zestyporter.core.source.SourceTable;

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
    Destination drafted;
    try (SourceTable source = PlanDraftTest.file(folder, lines)) {
      drafted =
          new PlanDraft(on.database(), source).draft(on.database().table("staff")).destination();
    }
    Runs.run(on, folder, drafted, new MemoryLedger(false), lines);
    return on.rows("SELECT * FROM staff ORDER BY tab");
  }

  /** Hungary and Vietnam put the family's name first, and write it in Latin letters. */
  @ParameterizedTest
  @CsvSource({
    "Név, Kovács János, Nagy Éva, János, Kovács",
    "Ügyfél neve, Szabó Péter, Tóth Dóra, Péter, Szabó",
    "Họ và tên, Nguyễn An, Trần Bình, An, Nguyễn",
    "Name, Anna Berg, Bo Dahl, Anna, Berg"
  })
  void standBehindTheFamilysWhereTheTitleIsOfSuchALanguage(
      String title, String one, String two, String first, String last)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      assertThat(
              brought(on, "first_name VARCHAR(20), last_name VARCHAR(20)", title, one, two).get(0))
          .isEqualTo("t0;" + first + ";" + last + ";");
    }
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

  /**
   * Of namesakes the father's name tells which is meant, and a record that is made of one has it.
   */
  @ParameterizedTest
  @ValueSource(ints = {0, 21_000})
  void tellWhomALinkPointsAt(int others) throws SQLException, IOException {
    String[] lines = {
      "No;Лікар", "1;Шевченко Олег Ігорович", "2;Коваленко Петро Андрійович", "3;Бойко Яна Юріївна"
    };
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = PlanDraftTest.file(folder, lines)) {
      on.execute(
          "CREATE TABLE likari (id INTEGER GENERATED BY DEFAULT AS IDENTITY PRIMARY KEY,"
              + " prizvyshche VARCHAR(20) NOT NULL, imia VARCHAR(20), po_batkovi VARCHAR(20))",
          "CREATE TABLE visit (no INTEGER PRIMARY KEY, likar_id INTEGER REFERENCES likari (id))",
          "INSERT INTO likari (prizvyshche, imia, po_batkovi) SELECT 'Інший', 'Іван', \"X\""
              + " FROM SYSTEM_RANGE(1, "
              + others
              + ")",
          "INSERT INTO likari (prizvyshche, imia, po_batkovi) VALUES"
              + " ('Шевченко', 'Олег', 'Петрович'), ('Шевченко', 'Олег', 'Ігорович'),"
              + " ('Коваленко', 'Петро', 'Андрійович')");
      ProposedTable draft =
          new PlanDraft(on.database(), source).draft(on.database().table("visit"));
      assertThat(draft.evidence())
          .extracting(ProposedTable.FillEvidence::because)
          .anyMatch(
              because ->
                  because.endsWith(
                      "2 of 3 values are found as likari.imia, prizvyshche and po_batkovi"));
      Origin.Link link = PlanDraftTest.fill(draft, "likar_id").origin().link();
      assertThat(link.together()).containsExactly("imia", "prizvyshche", "po_batkovi");
      assertThat(link.create())
          .extracting(Fill::field)
          .containsExactly("imia", "prizvyshche", "po_batkovi");
    }
  }
}
