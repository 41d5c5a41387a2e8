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
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** Choices are met whatever letters a file writes them with. */
class ChoiceLettersTest {
  @TempDir Path folder;

  @ParameterizedTest
  @CsvSource({
    "'ketch,sloop', KETCH, Sloop, lower",
    "'N,SW', n, sw, upper",
    "'Nam,Nữ', nam, NỮ, sentence",
    "'In port,At sea', in port, AT SEA, sentence",
    "'In Port,At Sea', in port, at sea, title",
    "'In port,At sea', In port, At sea,",
    "'eBay,ABC', ebay, abc,",
  })
  void theyAreChangedAsAllChoicesHaveThem(String choices, String a, String b, String to)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = PlanDraftTest.file(folder, "Nr;State", "1;" + a, "2;" + b)) {
      String list = "'" + String.join("', '", choices.split(",")) + "'";
      on.execute(
          "CREATE TABLE thing (nr INTEGER PRIMARY KEY, state VARCHAR(20) CHECK (state IN ("
              + list
              + ")))");
      ProposedTable draft =
          new PlanDraft(on.database(), source).draft(on.database().table("thing"));
      Fill fill = PlanDraftTest.fill(draft, "state");
      assertThat(fill.origin().column()).isEqualTo("State");
      assertThat(
              fill.steps().stream()
                  .filter(s -> s.kind() == StepKind.CASE)
                  .map((Step s) -> s.setting("to"))
                  .toList())
          .isEqualTo(to == null ? List.of() : List.of(to));
    }
  }
}
