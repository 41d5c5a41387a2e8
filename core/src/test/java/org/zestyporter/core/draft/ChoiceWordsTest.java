package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.run.MemoryLedger;
import org.zestyporter.core.run.Runs;
import org.zestyporter.core.source.SourceTable;

/** Words that mean a field's choices in another language, or are longer or shorter than these. */
class ChoiceWordsTest {
  @TempDir Path folder;

  private Destination draft(Databases.Fresh on, String choices, String title, String... words)
      throws SQLException, IOException {
    String list = "'" + choices.replace(" ", "', '") + "'";
    on.execute(
        "CREATE TABLE person (code VARCHAR(9) PRIMARY KEY, sort VARCHAR(12) CHECK (sort IN ("
            + list
            + ")))");
    try (SourceTable source = PlanDraftTest.file(folder, lines(title, words))) {
      return new PlanDraft(on.database(), source)
          .draft(on.database().table("person"))
          .destination();
    }
  }

  private static String[] lines(String title, String... words) {
    String[] lines = new String[words.length + 1];
    lines[0] = "Code;" + title;
    for (int i = 0; i < words.length; i++) {
      lines[i + 1] = "c" + i + ";" + words[i];
    }
    return lines;
  }

  @ParameterizedTest
  @CsvSource({
    "male female unknown, Nem, férfi, nő, male, female",
    "M F X, Geschlecht, Männlich, Frau, M, F",
    "m w, Sex, male, Female, m, w",
    "mies nainen, Sukupuoli, M, F, mies, nainen",
    "F M, लिंग, महिला, पुरुष, F, M",
    "single married divorced, Q7, verheiratet, geschieden, married, divorced",
    "active inactive, Stav, aktivní, neaktivní, active, inactive",
    "ciornă livrată anulată, Q7, Livrata, ANULATĂ, livrată, anulată",
    "open closed, Zustand, offen, CLOSED, open, closed"
  })
  void areBroughtToTheChoices(
      String choices, String title, String one, String two, String first, String second)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      Destination drafted = draft(on, choices, title, one, two, one, two);
      String[] lines = lines(title, one, two, one, two);
      Runs.run(on, folder, drafted, new MemoryLedger(false), lines);
      assertThat(on.rows("SELECT sort FROM person ORDER BY code"))
          .containsExactly(first + ";", second + ";", first + ";", second + ";");
    }
  }

  /** What means two choices, or none, is nobody's to tell. */
  @ParameterizedTest
  @CsvSource({
    "'man male other', Sex, männlich, Mann",
    "'red blue', Farbe, rot, blau",
    "'small large', Q7, male, female",
    "'resume résumé', Sort, resumé, résume"
  })
  void othersAreLeft(String choices, String title, String one, String two)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      assertThat(draft(on, choices, title, one, two).fills())
          .allSatisfy(fill -> assertThat(fill.steps()).hasSizeLessThan(3));
    }
  }
}
