package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.source.SourceTable;

/** Words that say yes and no of a field by its own name. */
class TruthDraftTest {
  @TempDir Path folder;

  private ProposedTable draft(Databases.Fresh on, String field, String title, String... words)
      throws SQLException, IOException {
    on.execute("CREATE TABLE thing (code VARCHAR(9) PRIMARY KEY, " + field + " BOOLEAN)");
    String[] lines = new String[words.length + 1];
    lines[0] = "Code;" + title;
    for (int i = 0; i < words.length; i++) {
      lines[i + 1] = "c" + i + ";" + words[i];
    }
    try (SourceTable source = PlanDraftTest.file(folder, lines)) {
      return new PlanDraft(on.database(), source).draft(on.database().table("thing"));
    }
  }

  @ParameterizedTest
  @CsvSource({
    "ativo, Situação, Ativo, Inativo",
    "is_active, Status, Active, Inactive",
    "paid, Settlement, Paid, Not paid",
    "bezahlt, Stand, bezahlt, offen",
    "is_archived, Q7, archived, in use",
    "enabled, Zustand, Aktiv, Inaktiv",
    "verheiratet, Familie, verheiratet, nicht verheiratet",
    "energos, Κατάσταση, Ενεργός, Ανενεργός"
  })
  void areReadByIt(String field, String title, String yes, String no)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      ProposedTable draft = draft(on, field, title, yes, no, yes.toUpperCase(), no, "");
      Fill fill = PlanDraftTest.fill(draft, field);
      assertThat(fill.origin().column()).isEqualTo(title);
      assertThat(fill.steps()).hasSize(1);
      assertThat(fill.steps().get(0).setting("yes").split("\\|")).contains(yes);
      assertThat(fill.steps().get(0).setting("no").split("\\|")).containsExactly(no);
    }
  }

  /** A third word is asked about; it is no reason to leave a column that is called as the field. */
  @ParameterizedTest
  @CsvSource({
    "active, Aktiv, Ja, Nein, offen",
    "active, Kehtiv, jah, ei, ?",
    "active, सक्रिय, हाँ, नहीं, पता नहीं"
  })
  void aThirdWordIsNoReasonToLeaveThem(String field, String title, String a, String b, String c)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      assertThat(DraftByValuesTest.columns(draft(on, field, title, a, b, c)))
          .containsEntry(field, title);
    }
  }

  /** Where neither word says it, both do, or there is a third, nobody can tell. */
  @ParameterizedTest
  @CsvSource({
    "ativo, Situação, Aberto, Fechado, Aberto",
    "active, Status, Active, Inactive, Paused",
    "member, Status, full member, young member, full member",
    "paid, Name, Paid in, Paid out, Paid in"
  })
  void areLeftWhereTheySayNothing(String field, String title, String a, String b, String c)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      assertThat(DraftByValuesTest.columns(draft(on, field, title, a, b, c)))
          .doesNotContainKey(field);
    }
  }

  @Test
  void oneWordAmongBlanksSaysYes() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      Fill fill = PlanDraftTest.fill(draft(on, "is_vip", "Remark", "VIP", "", "vip"), "is_vip");
      assertThat(fill.steps().get(0).setting("no")).isNull();
      assertThat(fill.steps().get(0).setting("yes")).contains("VIP");
    }
  }
}
