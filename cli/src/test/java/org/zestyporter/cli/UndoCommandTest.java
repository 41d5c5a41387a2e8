package org.zestyporter.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Runs of the command line are taken back by their numbers. */
class UndoCommandTest extends CommandLineTest {

  private List<String> vessels() throws SQLException {
    List<String> records = new ArrayList<>();
    try (var statement = builder.createStatement();
        var found = statement.executeQuery("SELECT * FROM vessel ORDER BY id")) {
      while (found.next()) {
        StringBuilder record = new StringBuilder();
        for (int i = 1; i <= found.getMetaData().getColumnCount(); i++) {
          record.append(found.getString(i)).append('|');
        }
        records.add(record.toString());
      }
    }
    return records;
  }

  @Test
  void aRunIsTakenBackByItsNumberAndStandsAgain() throws SQLException {
    Path plan = draft();
    List<String> before = vessels();
    Ended run = go("run", plan, file, "--to", url);
    assertThat(run.out()).contains("It can be taken back: ./porter undo ");
    String number = run.out().replaceAll("(?s).*undo (\\d{4}-\\d{4}).*", "$1");
    assertThat(number).endsWith("-0001");
    List<String> after = vessels();
    assertThat(after).isNotEqualTo(before);
    Path kept = folder.resolve("home/runs").resolve(number).resolve("run.json");
    assertThat(kept).content().contains("\"state\" : \"done\"").doesNotContain("assword");

    Ended undo = go("undo", number, "--json");
    assertThat(undo.code()).as(undo.err()).isZero();
    assertThat(undo.json().path("destinations").get(0).path("removed").asInt()).isPositive();
    assertThat(vessels()).isEqualTo(before);
    Ended twice = go("undo", number);
    assertThat(twice.code()).isEqualTo(2);
    assertThat(twice.err()).contains("was taken back already, by");

    Ended again = go("undo", undo.json().path("run").asString());
    assertThat(again.out()).contains("brought back").contains("Every record is accounted for.");
    assertThat(vessels()).isEqualTo(after);
    assertThat(go("undo", number).code()).isZero();
    assertThat(vessels()).isEqualTo(before);
  }

  @Test
  void whatWasEditedSinceIsAskedAboutFirst() throws SQLException {
    Path plan = draft();
    Ended run = go("run", plan, file, "--to", url, "--json");
    String number = run.json().path("run").asString();
    try (var statement = builder.createStatement()) {
      statement.execute(
          "UPDATE vessel SET name = 'Wren of Ayr' WHERE id = (SELECT MAX(id) FROM vessel)");
    }
    List<String> edited = vessels();
    Ended asked = go("undo", number);
    assertThat(asked.code()).isEqualTo(1);
    assertThat(asked.err()).contains("1 of its records were edited since").contains("Wren of Ayr");
    assertThat(vessels()).isEqualTo(edited);
    Ended kept = go("undo", number, "--keep-edited");
    assertThat(kept.code()).isEqualTo(1);
    assertThat(kept.out()).contains("1 left");
    assertThat(vessels()).anySatisfy(v -> assertThat(v).contains("Wren of Ayr"));
    assertThat(go("undo", "2020-0001").err()).contains("There is no run 2020-0001");
    assertThat(go("undo", "../../etc").code()).isEqualTo(2);
  }

  @Test
  void aRunThatFailsLeavesNothingToUndo() throws IOException {
    Path plan = draft();
    assertThat(go("run", plan, file, "--to", "jdbc:postgresql://127.0.0.1:1/x").code())
        .isEqualTo(3);
    assertThat(go("undo", java.time.Year.now() + "-0001").err()).contains("There is no run");
  }
}
