package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.run.MemoryLedger;
import org.zestyporter.core.run.Runs;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** Codes are brought to the form in which the application has them. */
class CodeStepsTest {
  private static final String[] LINES = {
    "Member no;Name;Postal code", "1;Ann;12600", "2;Bo;2600", "3;Cy;70120", "4;Di;00012"
  };
  private static final Step PADDED = Step.of(StepKind.PAD, "length", "5", "with", "0");

  @TempDir Path folder;

  private Destination draft(Databases.Fresh on, String postalCode, String... lines)
      throws SQLException, IOException {
    on.execute(
        "CREATE TABLE member (member_no INTEGER PRIMARY KEY, name VARCHAR(20) NOT NULL,"
            + " postal_code "
            + postalCode
            + ")");
    return drafted(on, lines);
  }

  private Destination drafted(Databases.Fresh on, String... lines)
      throws SQLException, IOException {
    try (SourceTable source = PlanDraftTest.file(folder, lines)) {
      return new PlanDraft(on.database(), source)
          .draft(on.database().table("member"))
          .destination();
    }
  }

  private static List<Step> steps(Destination of) {
    return of.fills().stream()
        .filter(f -> f.field().equals("postal_code"))
        .findFirst()
        .orElseThrow()
        .steps();
  }

  /** Spreadsheets take codes for numbers; a rule of the table says how long they are. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void zerosThatWereLostAreGivenBack(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      Destination drafted = draft(on, "VARCHAR(10) CHECK (LENGTH(postal_code) = 5)", LINES);
      assertThat(steps(drafted)).containsExactly(Step.of(StepKind.TRIM), PADDED);
      Runs.run(on, folder, drafted, new MemoryLedger(false), LINES);
      assertThat(on.rows("SELECT postal_code FROM member ORDER BY member_no"))
          .containsExactly("12600;", "02600;", "70120;", "00012;");
    }
  }

  @Test
  void aFieldThatIsAlwaysAsLongSaysSoToo() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.postgres()) {
      assertThat(steps(draft(on, "CHAR(5)", LINES)))
          .containsExactly(Step.of(StepKind.TRIM), PADDED);
    }
  }

  /** Nothing says that shorter ones are wrong, or the application has such. */
  @Test
  void othersStayAsTheyAre() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      assertThat(steps(draft(on, "VARCHAR(10)", LINES))).containsExactly(Step.of(StepKind.TRIM));
    }
    try (Databases.Fresh on = Databases.h2()) {
      String[] letters = {"Member no;Name;Postal code", "1;Ann;AB126", "2;Bo;2600"};
      assertThat(steps(draft(on, "CHAR(5)", letters))).doesNotContain(PADDED);
    }
    try (Databases.Fresh on = Databases.postgres()) {
      draft(on, "CHAR(5)", LINES);
      on.execute("INSERT INTO member VALUES (9, 'Ed', '2600')");
      assertThat(steps(drafted(on, LINES))).doesNotContain(PADDED);
    }
  }
}
