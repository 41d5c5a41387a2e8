package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.sql.Connection;
import java.sql.DriverManager;
import java.util.Arrays;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.plan.PlanJson;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What goes wrong is said in the user's words, and nothing is lost. */
class ErrorsTest extends ServerTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "empty.csv||empty-file",
        "blank.csv|'  \n\n'|empty-file",
        "photo.csv|'\u0089PNG\u0000\u0001\u0002'|not-a-table",
        "cut.xlsx|'PK\u0003\u0004xx'|unreadable-workbook",
        "cut.json|'[{\"a\": 1},'|unreadable-json",
        "page.xls|'<html><body><table></table>'|markup"
      })
  void filesThatCannotBeReadAreRefusedAndNotKept(String name, String content, String code)
      throws Exception {
    byte[] bytes = content == null ? new byte[0] : content.getBytes(StandardCharsets.ISO_8859_1);
    long before = kept();
    Answer answer = upload(name, bytes);
    assertThat(answer.status()).isEqualTo(422);
    assertThat(answer.code()).isEqualTo(code);
    assertThat(answer.body().path("detail").asString()).endsWith(".").doesNotContain("Exception");
    assertThat(kept()).isEqualTo(before);
  }

  private static long kept() throws Exception {
    if (!Files.exists(HOME.resolve("sources"))) {
      return 0;
    }
    try (Stream<?> folders = Files.list(HOME.resolve("sources"))) {
      return folders.count();
    }
  }

  @Test
  void filesOverTheLimitAreRefusedWithTheLimit() throws Exception {
    byte[] large = new byte[3 * 1024 * 1024 + 1];
    Arrays.fill(large, (byte) 'x');
    Answer answer = upload("large.csv", large);
    assertThat(answer.code()).isEqualTo("too-large");
    assertThat(answer.body().path("detail").asString())
        .contains("3 MB")
        .contains("porter.upload-limit");
  }

  @Test
  void pathsInFileNamesAreDropped() throws Exception {
    Answer answer = upload("..\\..\\up/../a.csv", "a;b\n1;2\n".getBytes(StandardCharsets.UTF_8));
    assertThat(answer.body().path("name").asString()).isEqualTo("a.csv");
  }

  @ParameterizedTest
  @CsvSource({
    "/api/plans/999,no-such-plan",
    "/api/runs/999,no-such-run",
    "/api/sources/999,no-such-file",
    "/api/connections/nowhere/tables,no-such-connection"
  })
  void whatIsNotThereIsSaidSo(String path, String code) throws Exception {
    Answer answer = get(path);
    assertThat(answer.status()).isEqualTo(404);
    assertThat(answer.code()).isEqualTo(code);
  }

  @Test
  void requestsThatMakeNoSenseAreNoServerErrors() throws Exception {
    assertThat(get("/api/plans/many").status()).isEqualTo(400);
    assertThat(post("/api/plans", "{not json").status()).isEqualTo(400);
    assertThat(get("/api/no-such-thing").status()).isEqualTo(404);
  }

  @Test
  void connectionsAreTriedBeforeTheyAreKeptAndPasswordsAreNeverTold() throws Exception {
    String name = marina("secrets");
    JsonNode all = get("/api/connections").body();
    assertThat(all.toString()).doesNotContain("password").doesNotContain("secret\"");
    ObjectNode connection =
        PlanJson.MAPPER
            .createObjectNode()
            .put("name", "lost")
            .put("shownName", "Lost")
            .put("url", "jdbc:postgresql://127.0.0.1:1/none")
            .put("user", "u")
            .put("password", "p");
    Answer unreachable = post("/api/connections", connection);
    assertThat(unreachable.status()).isEqualTo(502);
    assertThat(unreachable.code()).isEqualTo("database-port");
    assertThat(post("/api/connections", connection.put("url", "jdbc:odd:x")).code())
        .isEqualTo("unknown-database");
    assertThat(post("/api/connections", connection.put("name", "No Good")).code())
        .isEqualTo("invalid");
    assertThat(
            post("/api/connections", connection.put("name", name).put("url", "jdbc:h2:mem:x"))
                .status())
        .isEqualTo(409);
  }

  @Test
  void tableThatGoesAfterTheRehearsalStopsTheRunInWords() throws Exception {
    String marina = marina("vanishing");
    long plan = newPlan(marina, arrivals());
    finished(post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong());
    String url = "jdbc:h2:file:" + HOME.resolve(marina) + ";DATABASE_TO_LOWER=TRUE";
    try (Connection connection = DriverManager.getConnection(url, "sa", "");
        var statement = connection.createStatement()) {
      statement.execute("DROP TABLE berth_contract");
      statement.execute("ALTER TABLE vessel RENAME TO ship");
    }
    Answer run = post("/api/plans/" + plan + "/runs", "");
    assertThat(run.status()).isEqualTo(404);
    assertThat(run.code()).isEqualTo("no-such-table");
    assertThat(run.body().path("detail").asString()).contains("vessel");
  }

  @Test
  void rowThatTheDatabaseRefusesFailsTheWholeRun() throws Exception {
    String marina = marina("refusing");
    String url = "jdbc:h2:file:" + HOME.resolve(marina) + ";DATABASE_TO_LOWER=TRUE";
    try (Connection connection = DriverManager.getConnection(url, "sa", "");
        var statement = connection.createStatement()) {
      statement.execute(
          "ALTER TABLE vessel ADD CONSTRAINT odd CHECK (SUBSTRING(registration FROM 1) <> 'QH-2292')");
    }
    long plan = newPlan(marina, arrivals());
    JsonNode run = finished(post("/api/plans/" + plan + "/runs", "").body().path("id").asLong());
    assertThat(run.path("state").asString()).isEqualTo("failed");
    assertThat(run.path("code").asString()).isEqualTo("row-refused");
    assertThat(run.path("message").asString()).contains("Nothing was written");
    assertThat(get("/api/plans/" + plan).body().path("tableRecords").asInt()).isEqualTo(1873);
    assertThat(get("/api/runs/" + run.path("id").asLong() + "/ledger").body().path("total").asInt())
        .isZero();
  }

  @Test
  void settingsOfAReadingThatCannotBeAreRefusedBeforeTheyAreKept() throws Exception {
    long plan = newPlan(marina("readings"), arrivals());
    JsonNode view = get("/api/plans/" + plan).body();
    ObjectNode document = (ObjectNode) view.path("plan").deepCopy();
    document.set("reading", PlanJson.MAPPER.createObjectNode().put("sheet", "No such sheet"));
    ObjectNode edit = PlanJson.MAPPER.createObjectNode().put("revision", 1);
    edit.set("plan", document);
    Answer answer = put("/api/plans/" + plan, edit);
    assertThat(answer.status()).isEqualTo(422);
    assertThat(answer.code()).isEqualTo("no-such-sheet");
    assertThat(get("/api/plans/" + plan).body().path("revision").asInt()).isEqualTo(1);
  }
}
