package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.run.MemoryLedger;
import org.zestyporter.core.run.Runs;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** Names of countries, languages and currencies for fields that hold their codes. */
class IsoCodesTest {
  @TempDir Path folder;

  @ParameterizedTest
  @CsvSource({
    "jazyk, 'ENUM (''cs'', ''sk'', ''en'')', Jazyk, čeština, angličtina, cs, en",
    "language, 'ENUM (''CS'', ''EN'')', Sprache, Tschechisch, Englisch, CS, EN",
    "country_code, CHAR(2), Land, Österreich, Niederlande, AT, NL",
    "country_code, CHAR(2), País, Alemania, UK, DE, GB",
    "country, VARCHAR(3), Pays, Allemagne, Pays-Bas, DEU, NLD",
    "land, 'ENUM (''at'', ''de'')', Country, Austria, GERMANY, at, de",
    "lingua, CHAR(2), Language, Italian, italiano, it, it",
    "currency, CHAR(3), Währung, €, Schweizer Franken, EUR, CHF",
    "currency, CHAR(3), Währung, euro, USD, EUR, USD"
  })
  void areMadeOfThem(
      String field, String type, String title, String a, String b, String codeOfA, String codeOfB)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute("CREATE TABLE thing (no VARCHAR(9) PRIMARY KEY, " + field + " " + type + ")");
      String[] lines = {"No;" + title, "n1;" + a, "n2;" + b};
      Fill fill;
      try (SourceTable source = PlanDraftTest.file(folder, lines)) {
        ProposedTable draft =
            new PlanDraft(on.database(), source).draft(on.database().table("thing"));
        fill = PlanDraftTest.fill(draft, field);
        assertThat(draft.evidence())
            .extracting(ProposedTable.FillEvidence::because)
            .anyMatch(because -> because.contains("2 of 2 values name a "));
      }
      Destination drafted = new Destination("thing", List.of(key(), fill), List.of(), null);
      Runs.run(on, folder, drafted, new MemoryLedger(false), lines);
      assertThat(on.rows("SELECT " + field + " FROM thing ORDER BY no"))
          .containsExactly(codeOfA + ";", codeOfB + ";");
    }
  }

  private static Fill key() {
    return Fill.of("no", Origin.column("No"));
  }

  /** Codes are taken as they are, words of other kinds too, and names where they have room. */
  @ParameterizedTest
  @CsvSource({
    "jazyk, 'ENUM (''cs'', ''sk'', ''en'')', Jazyk, cs, en",
    "country_code, CHAR(2), Country, NL, AT",
    "country, VARCHAR(40), Country, Austria, Malta",
    "state, CHAR(2), Country, Austria, Malta",
    "country_code, CHAR(2), Crew, Austria, Malta",
    "language, 'ENUM (''plain'', ''legal'')', Language, German, French"
  })
  void areNotMadeOfWhatIsNone(String field, String type, String title, String a, String b)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute("CREATE TABLE thing (no VARCHAR(9) PRIMARY KEY, " + field + " " + type + ")");
      try (SourceTable source = PlanDraftTest.file(folder, "No;" + title, "n1;" + a, "n2;" + b)) {
        ProposedTable draft =
            new PlanDraft(on.database(), source).draft(on.database().table("thing"));
        assertThat(draft.destination().fills())
            .flatExtracting(Fill::steps)
            .extracting(Step::kind)
            .doesNotContain(StepKind.COUNTRY, StepKind.LANGUAGE, StepKind.CURRENCY);
      }
    }
  }
}
