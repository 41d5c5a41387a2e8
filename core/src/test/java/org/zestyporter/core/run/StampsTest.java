package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.jdbc.Databases;

/** Who wrote a record and when is said of one that is written, and makes no change by itself. */
class StampsTest {
  private static final String PLAN =
      """
      {"name": "Fleet", "destinations": [{"table": "boat",
        "fills": [
          {"field": "reg", "origin": {"kind": "column", "column": "Reg"}},
          {"field": "name", "origin": {"kind": "column", "column": "Name"}},
          {"field": "written_by", "origin": {"kind": "generated", "generator": "who"}},
          {"field": "written", "origin": {"kind": "generated", "generator": "run-time"}}],
        "keys": [{"fields": ["reg"]}]}]}
      """;

  @TempDir Path folder;

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void theSameFileChangesNothing(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      on.execute(
          "CREATE TABLE boat (reg VARCHAR(10) PRIMARY KEY, name VARCHAR(20),"
              + " written_by VARCHAR(20), written TIMESTAMP NULL)",
          "INSERT INTO boat VALUES ('QH-1', 'Heron', 'somebody', '2020-01-02 03:04:05'),"
              + " ('QH-2', 'Tern', 'somebody', '2020-01-02 03:04:05')");
      Fates fates = new Fates();
      Runs.run(on, folder, PLAN, "Reg,Name\nQH-1,Heron\nQH-2,Gull\nQH-3,Wren\n", fates);
      assertThat(fates.fates).containsExactly("boat 2 unchanged", "boat 3 changed", "boat 4 new");
      assertThat(on.one("SELECT COUNT(*) FROM boat WHERE written_by = 'somebody'")).isEqualTo(1L);
      assertThat(
              on.one(
                  "SELECT COUNT(*) FROM boat WHERE reg = 'QH-1' AND written ="
                      + " '2020-01-02 03:04:05'"))
          .isEqualTo(1L);
      assertThat(on.one("SELECT COUNT(DISTINCT written) FROM boat WHERE reg <> 'QH-1'"))
          .as("the time of the run, in both")
          .isEqualTo(1L);
    }
  }
}
