package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.sql.Connection;
import java.sql.Statement;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;
import org.zestyporter.core.plan.PlanJson;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Runs beside each other, runs that wait, and what is left when things are deleted. */
class RunsTest extends ServerTest {

  private long run(long plan) throws Exception {
    return post("/api/plans/" + plan + "/runs", "").body().path("id").asLong();
  }

  private Answer delete(String path) throws Exception {
    return send(MockMvcRequestBuilders.delete(path));
  }

  private long planFor(String connection, String table, String file) throws Exception {
    long source =
        upload("things.csv", file.getBytes(StandardCharsets.UTF_8)).body().path("id").asLong();
    return post(
            "/api/plans",
            PlanJson.MAPPER
                .createObjectNode()
                .put("source", source)
                .put("connection", connection)
                .put("table", table))
        .body()
        .path("id")
        .asLong();
  }

  @Test
  void aCorrectedCellIsCorrectedInRehearsalAndRunToo() throws Exception {
    long plan = newPlan(marina("corrected"), arrivals());
    JsonNode rehearsal =
        finished(post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong());
    JsonNode problem = null;
    for (JsonNode each : rehearsal.path("report").path("problems")) {
      problem = each.path("code").asString().equals("out-of-range") ? each : problem;
    }
    assertThat(problem).isNotNull();
    JsonNode view = get("/api/plans/" + plan).body();
    ObjectNode document = (ObjectNode) view.path("plan").deepCopy();
    document
        .putArray("corrections")
        .addObject()
        .put("line", problem.path("sample").path("row").asLong())
        .put("column", "LOA (ft)")
        .put("was", "410")
        .put("now", "41");
    ObjectNode edit = PlanJson.MAPPER.createObjectNode();
    edit.set("revision", view.path("revision"));
    edit.set("plan", document);
    JsonNode saved = put("/api/plans/" + plan, edit).body();
    assertThat(saved.path("lapsed")).isEmpty();
    int before = rehearsal.path("report").path("destinations").get(0).path("rejected").asInt();
    JsonNode again =
        finished(post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong());
    JsonNode run = finished(run(plan));
    for (JsonNode each : List.of(again, run)) {
      assertThat(each.path("report").path("destinations").get(0).path("rejected").asInt())
          .as(each.path("kind").asString())
          .isEqualTo(before - 1);
    }
  }

  @Test
  void twoPlansIntoOneTableMakeNoRecordTwice() throws Exception {
    String marina = marina("together");
    StringBuilder file = new StringBuilder("Code;Name\n");
    for (int i = 0; i < 5_000; i++) {
      file.append(Integer.toString(i + 1_296, 36).toUpperCase(java.util.Locale.ROOT))
          .append(";type ")
          .append(i)
          .append('\n');
    }
    List<Long> started = new ArrayList<>();
    for (int i = 0; i < 2; i++) {
      started.add(run(planFor(marina, "vessel_type", file.toString())));
    }
    int added = 0;
    int unchanged = 0;
    for (long id : started) {
      JsonNode run = finished(id);
      assertThat(run.path("state").asString()).as(run.toString()).isEqualTo("done");
      JsonNode into = run.path("report").path("destinations").get(0);
      added += into.path("new").asInt();
      unchanged += into.path("unchanged").asInt();
    }
    assertThat(added).isEqualTo(5_000);
    assertThat(unchanged).isEqualTo(5_000);
  }

  @Test
  void startingNeverWaitsAndStopWorksWhileTheTableIsLocked() throws Exception {
    try (EmbeddedPostgres postgres = EmbeddedPostgres.builder().start();
        Connection other = postgres.getPostgresDatabase().getConnection();
        Statement statement = other.createStatement()) {
      statement.execute("CREATE TABLE thing (nr integer PRIMARY KEY, name text)");
      post(
          "/api/connections",
          PlanJson.MAPPER
              .createObjectNode()
              .put("name", "locked")
              .put("shownName", "Locked")
              .put("url", postgres.getJdbcUrl("postgres", "postgres"))
              .put("user", "postgres")
              .put("password", "postgres"));
      long plan = planFor("locked", "thing", "nr;name\n1;a\n2;b\n");
      other.setAutoCommit(false);
      statement.execute("LOCK TABLE thing IN ACCESS EXCLUSIVE MODE");
      Instant begun = Instant.now();
      Answer started = post("/api/plans/" + plan + "/runs", "");
      assertThat(started.status()).isEqualTo(202);
      assertThat(Duration.between(begun, Instant.now())).isLessThan(Duration.ofSeconds(5));
      long id = started.body().path("id").asLong();
      assertThat(get("/api/runs/" + id).body().path("state").asString()).isEqualTo("going");
      assertThat(delete("/api/runs/" + id).status()).as("not while it goes").isEqualTo(409);
      assertThat(delete("/api/plans/" + plan).status()).isEqualTo(409);
      assertThat(delete("/api/connections/locked").status()).isEqualTo(409);
      post("/api/runs/" + id + "/stop", "");
      assertThat(finished(id).path("state").asString()).isEqualTo("stopped");
      other.rollback();
      other.setAutoCommit(true);
      assertThat(finished(run(plan)).path("state").asString()).isEqualTo("done");
    }
  }

  @Test
  void deletingTakesAlongWhatItSaid() throws Exception {
    String marina = marina("deleting");
    long plan = planFor(marina, "vessel_type", "Code;Name\nRFT;raft\n");
    JsonNode done = finished(run(plan));
    long source = get("/api/plans/" + plan).body().path("source").path("id").asLong();
    assertThat(get("/api/sources/" + source + "/deletion").body().path("refused").asString())
        .contains("read by the plan “Things”");
    assertThat(delete("/api/sources/" + source).status()).isEqualTo(409);
    assertThat(
            get("/api/connections/" + marina + "/deletion")
                .body()
                .path("affected")
                .get(0)
                .asString())
        .contains("the plan “Things” writes to it");
    assertThat(get("/api/plans/" + plan + "/deletion").body().path("goes").get(0).asString())
        .isEqualTo("1 run with ledger and books");

    assertThat(delete("/api/plans/" + plan).status()).isEqualTo(204);
    assertThat(get("/api/plans/" + plan).status()).isEqualTo(404);
    assertThat(get("/api/runs/" + done.path("id").asLong()).status()).isEqualTo(404);
    assertThat(delete("/api/sources/" + source).status()).isEqualTo(204);
    assertThat(HOME.resolve("sources/" + source)).doesNotExist();
    assertThat(get("/api/sources/" + source).status()).isEqualTo(404);
    assertThat(
            get("/api/connections/" + marina + "/tables/vessel_type/records?search=raft")
                .body()
                .path("total")
                .asInt())
        .as("the application's records stay")
        .isEqualTo(1);

    long next = planFor(marina, "vessel_type", "Code;Name\nKYK;kayak\n");
    String number = finished(run(next)).path("number").asString();
    assertThat(number).as("numbers go on").isGreaterThan(done.path("number").asString());
  }

  @Test
  void aRunMayBeDeletedAndItsFileIsStillNamedByOthers() throws Exception {
    String marina = marina("forgetting");
    long plan = planFor(marina, "vessel_type", "Code;Name\nSKF;skiff\n");
    long first = finished(run(plan)).path("id").asLong();
    long second = finished(run(plan)).path("id").asLong();
    assertThat(delete("/api/runs/" + first).status()).isEqualTo(204);
    long old = get("/api/plans/" + plan).body().path("source").path("id").asLong();
    long other =
        upload("other.csv", "Code;Name\nPNT;punt\n".getBytes(StandardCharsets.UTF_8))
            .body()
            .path("id")
            .asLong();
    put("/api/plans/" + plan + "/source", "{\"source\": " + other + "}");
    assertThat(delete("/api/sources/" + old).status()).isEqualTo(204);
    assertThat(get("/api/runs/" + second).body().path("source").asString()).isEqualTo("things.csv");
    assertThat(get("/api/runs/" + first).status()).isEqualTo(404);
    assertThat(Files.exists(HOME.resolve("sources/" + old))).isFalse();
  }

  @Test
  void olderRehearsalsGoByThemselves() throws Exception {
    long plan = planFor(marina("again"), "vessel_type", "Code;Name\nDHW;dhow\n");
    long first = post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong();
    finished(first);
    long second = post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong();
    finished(second);
    long third = post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong();
    finished(third);
    for (int i = 0; i < 50 && get("/api/runs/" + first).status() != 404; i++) {
      Thread.sleep(50);
    }
    assertThat(get("/api/runs/" + first).status()).isEqualTo(404);
    // the one before is what the newest is compared with
    assertThat(get("/api/runs/" + second).status()).isEqualTo(200);
    JsonNode since = get("/api/runs/" + third + "/since").body().path("since");
    assertThat(since.path("comparable").asBoolean()).isTrue();
    assertThat(since.path("moves")).isEmpty();
  }
}
