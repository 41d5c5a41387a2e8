package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.draft.ProposedTable;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.ProblemCode;

/** Tables of MariaDB that keep their texts in a character set of the last century. */
class FewLettersTest {
  @TempDir Path folder;

  private static final String PLAN =
      """
      {"name": "Guests", "run": {"mode": "set-aside"}, "destinations": [{"table": "guest", "fills": [
        {"field": "name", "origin": {"kind": "column", "column": "Name"}},
        {"field": "town_id", "origin": {"kind": "link", "column": "Town", "link": {"by": "name",
          "whenMissing": "reject"}}},
        {"field": "remark", "origin": {"kind": "column", "column": "Remark"}}],
       "keys": [{"fields": ["name"]}]}]}
      """;

  private static final String GUESTS =
      """
      Name;Town;Remark
      Zoë;Köln;12 €
      Łukasz;Köln;
      Ann;Łódź;
      Jean;Köln;₹ 500
      Bob;Köln;plain
      """;

  private static Databases.Fresh guests() throws SQLException {
    Databases.Fresh on = Databases.maria();
    on.execute(
        "CREATE TABLE town (id INTEGER AUTO_INCREMENT PRIMARY KEY, name VARCHAR(20) NOT NULL UNIQUE)"
            + " CHARACTER SET latin1",
        "CREATE TABLE guest (id INTEGER AUTO_INCREMENT PRIMARY KEY, name VARCHAR(20) NOT NULL UNIQUE,"
            + " town_id INTEGER REFERENCES town (id), remark VARCHAR(40)) CHARACTER SET latin1",
        "INSERT INTO town (name) VALUES ('Köln')",
        "INSERT INTO guest (name) VALUES ('Zoë')");
    return on;
  }

  @Test
  void lettersWithoutRoomAreToldBeforeTheRun() throws SQLException, IOException {
    try (Databases.Fresh on = guests()) {
      Fates rehearsed = new Fates();
      Runs.rehearse(on, folder, PLAN, GUESTS, rehearsed);
      assertThat(rehearsed.fates)
          .containsExactlyInAnyOrder(
              "guest 2 changed",
              "guest 3 rejected",
              "guest 4 rejected",
              "guest 5 rejected",
              "guest 6 new");
      assertThat(rehearsed.code(3)).isEqualTo(ProblemCode.FORBIDDEN_CHARACTER);
      assertThat(rehearsed.code(4)).isEqualTo(ProblemCode.UNKNOWN_LINK);
      assertThat(rehearsed.entries)
          .filteredOn(e -> e.line() == 5)
          .flatExtracting(LedgerEntry::notes)
          .extracting(LedgerEntry.Note::reason)
          .containsExactly("“₹” is no letter that remark has room for (windows-1252)");
      Fates ran = new Fates();
      Runs.run(on, folder, PLAN, GUESTS, ran);
      assertThat(ran.fates).isEqualTo(rehearsed.fates);
      assertThat(on.rows("SELECT name, remark FROM guest ORDER BY id"))
          .containsExactly("Zoë;12 €;", "Bob;plain;");
    }
  }

  @Test
  void draftsAndSearchesAskForNothingThatCanNotBeThere() throws SQLException, IOException {
    try (Databases.Fresh on = guests();
        SourceTable source = Runs.source(folder, GUESTS.split("\n"))) {
      Database database = on.database();
      TableInfo guest = database.table("guest");
      ProposedTable draft = new PlanDraft(database, source).draft(guest);
      assertThat(draft.destination().fills())
          .filteredOn(f -> f.origin().column() != null)
          .extracting(f -> f.field() + " " + f.origin().column())
          .contains("name Name", "town_id Town", "remark Remark");
      assertThat(database.count(guest, "zoë")).isEqualTo(1);
      assertThat(database.count(guest, "Łukasz")).isZero();
      assertThat(database.page(guest, "₹", 0, 10)).isEmpty();
    }
  }
}
