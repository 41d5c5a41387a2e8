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
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Comparison;

/**
 * What a file writes with other accents than the table, or in words that the table doesn't know.
 */
class LooselyFoundTest {
  @TempDir Path folder;

  @ParameterizedTest
  @CsvSource({
    "Ελιά, Πεύκο, Δρυς, ΕΛΙΑ, ΠΕΥΚΟ, false",
    "Hêtre, Chêne, Érable, HETRE, CHENE, true",
    "Bukva, Dab, Breza, Búkva, Dáb, true",
    "Oak, Beech, Ash, OAK, BEECH, false"
  })
  void linksIgnoreAccentsOnlyWhereThatFindsMore(
      String first, String second, String third, String a, String b, boolean accents)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE TABLE kind (id INTEGER PRIMARY KEY, title VARCHAR(20) NOT NULL)",
          "INSERT INTO kind VALUES (1, '%s'), (2, '%s'), (3, '%s')".formatted(first, second, third),
          "CREATE TABLE tree (no VARCHAR(9) PRIMARY KEY, kind_id INTEGER REFERENCES kind (id))");
      String[] lines = {"No;Q", "t1;" + a, "t2;" + b, "t3;" + a, "t4;" + third};
      try (SourceTable source = PlanDraftTest.file(folder, lines)) {
        ProposedTable draft =
            new PlanDraft(on.database(), source).draft(on.database().table("tree"));
        Fill kind = PlanDraftTest.fill(draft, "kind_id");
        assertThat(kind.origin().link().by()).isEqualTo("title");
        assertThat(kind.origin().link().ignoring().contains(Comparison.Ignore.ACCENTS))
            .isEqualTo(accents);
        assertThat(draft.evidence())
            .filteredOn(e -> e.field().equals("kind_id"))
            .extracting(ProposedTable.FillEvidence::because)
            .containsExactly("4 of 4 values are found as kind.title");
      }
    }
  }

  /** What the description of a field calls it is as good as its name. */
  @Test
  void aFewWordsAreAskedAboutWhereTheFieldIsDescribedSo() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE TABLE tree (no VARCHAR(9) PRIMARY KEY, w3 ENUM ('Α', 'Θ'), w4 ENUM ('x', 'y'))",
          "COMMENT ON COLUMN tree.w3 IS 'Φύλο'",
          "COMMENT ON COLUMN tree.w4 IS 'Wood of the tree'");
      String[] lines = {"No;ΦΥΛΟ;Wood", "t1;Ανδρικό;hard", "t2;Γυναικείο;soft", "t3;;hard"};
      try (SourceTable source = PlanDraftTest.file(folder, lines)) {
        ProposedTable draft =
            new PlanDraft(on.database(), source).draft(on.database().table("tree"));
        assertThat(DraftByValuesTest.columns(draft)).containsEntry("w3", "ΦΥΛΟ");
        assertThat(PlanDraftTest.fill(draft, "w3").whenBad()).isEqualTo(Fill.WhenBad.ASK);
        // less than all of a description is too little to ask for what no value says
        assertThat(DraftByValuesTest.columns(draft)).doesNotContainKey("w4");
        assertThat(draft.evidence())
            .extracting(ProposedTable.FillEvidence::because)
            .anyMatch(
                "the field is described as “Φύλο”; none of its values is among its choices"
                    ::equals);
        assertThat(List.of("x", "y")).isEqualTo(on.database().table("tree").find("w4").choices());
      }
    }
  }
}
