package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.server.run.LedgerLimits;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Runs are taken back over HTTP, and undos too. */
class UndoRunsTest extends ServerTest {
  @Autowired private LedgerLimits limits;

  private JsonNode run(long plan) throws Exception {
    return finished(post("/api/plans/" + plan + "/runs", "").body().path("id").asLong());
  }

  private Answer undo(long run, String edited) throws Exception {
    ObjectNode request = PlanJson.MAPPER.createObjectNode().put("edited", edited);
    return post("/api/runs/" + run + "/undo", request);
  }

  private List<String> records(String connection, String table) throws Exception {
    List<String> records = new ArrayList<>();
    String path = "/api/connections/" + connection + "/tables/" + table + "/records";
    int found = 1;
    for (int from = 0; found > 0; from += found) {
      JsonNode page = get(path + "?limit=200&offset=" + from).body().path("records");
      found = page.size();
      page.forEach(r -> records.add(r.toString()));
    }
    return records;
  }

  @Test
  void aRunIsTakenBackAndStandsAgain() throws Exception {
    String marina = marina("undo");
    List<String> before = records(marina, "vessel");
    long plan = newPlan(marina, arrivals());
    JsonNode run = run(plan);
    long id = run.path("id").asLong();
    JsonNode into = run.path("report").path("destinations").get(0);
    List<String> after = records(marina, "vessel");
    assertThat(after).isNotEqualTo(before);

    limits.tidy();
    assertThat(get("/api/runs/" + id).body().path("keptUntil").asString())
        .as("no limit is reached")
        .isNotBlank();
    JsonNode prospect = get("/api/runs/" + id + "/undo").body();
    JsonNode part = prospect.path("parts").get(0);
    assertThat(part.path("removed").asInt()).isEqualTo(into.path("new").asInt()).isPositive();
    assertThat(part.path("putBack").asInt()).isEqualTo(into.path("changed").asInt()).isPositive();
    assertThat(part.path("edited").asInt()).isZero();
    assertThat(records(marina, "vessel")).isEqualTo(after);

    Answer started = undo(id, "keep");
    assertThat(started.status()).isEqualTo(202);
    JsonNode undone = finished(started.body().path("id").asLong());
    assertThat(undone.path("state").asString()).as(undone.toString()).isEqualTo("done");
    assertThat(undone.path("kind").asString()).isEqualTo("undo");
    assertThat(undone.path("undoes").path("number")).isEqualTo(run.path("number"));
    assertThat(undone.path("report").path("destinations").get(0).path("removed").asInt())
        .isEqualTo(into.path("new").asInt());
    assertThat(records(marina, "vessel")).isEqualTo(before);
    assertThat(get("/api/runs/" + id).body().path("undoneBy").path("number"))
        .isEqualTo(undone.path("number"));
    JsonNode page =
        get("/api/runs/" + undone.path("id").asLong() + "/ledger?outcome=removed").body();
    assertThat(page.path("total").asInt()).isEqualTo(into.path("new").asInt());

    Answer twice = undo(id, "keep");
    assertThat(twice.status()).isEqualTo(409);
    assertThat(twice.code()).isEqualTo("undone");

    JsonNode again = finished(undo(undone.path("id").asLong(), "keep").body().path("id").asLong());
    assertThat(again.path("state").asString()).as(again.toString()).isEqualTo("done");
    assertThat(records(marina, "vessel")).isEqualTo(after);
    assertThat(get("/api/runs/" + id).body().hasNonNull("undoneBy")).isFalse();
    assertThat(get("/api/runs/" + id + "/undo").status()).isEqualTo(200);
  }

  @Test
  void whatCantBeTakenBackIsSaid() throws Exception {
    String marina = marina("undoable");
    long plan = newPlan(marina, arrivals());
    long rehearsal = post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong();
    finished(rehearsal);
    Answer answer = get("/api/runs/" + rehearsal + "/undo");
    assertThat(answer.status()).isEqualTo(409);
    assertThat(answer.code()).isEqualTo("cant-undo");
    assertThat(get("/api/runs/99999/undo").status()).isEqualTo(404);

    long run = run(plan).path("id").asLong();
    assertThat(undo(run, "nonsense").status()).isEqualTo(400);
    ObjectNode undecided = PlanJson.MAPPER.createObjectNode();
    undecided.putArray("decisions").addObject().put("destination", 0);
    assertThat(post("/api/runs/" + run + "/undo", undecided).status()).isEqualTo(422);
    JsonNode deletion = get("/api/runs/" + run + "/deletion").body();
    assertThat(deletion.toString()).contains("can't be undone any more");
    assertThat(send(MockMvcRequestBuilders.delete("/api/runs/" + run)).status()).isEqualTo(204);
    assertThat(get("/api/runs/" + run + "/undo").status()).isEqualTo(404);
  }
}
