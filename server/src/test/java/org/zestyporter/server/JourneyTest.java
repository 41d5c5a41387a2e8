package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.demo.Arrivals;
import org.zestyporter.demo.Marina;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** From a dropped file to records over HTTP. */
class JourneyTest extends ServerTest {
  private static final Arrivals.Facts FACTS = MARINA.arrivals().facts();

  @Test
  void fileBecomesRecordsAndASecondDropChangesNothing() throws Exception {
    String marina = marina("journey");
    Answer source = upload("winter-arrivals.xlsx", arrivals());
    assertThat(source.status()).isEqualTo(201);
    long sourceId = source.body().path("id").asLong();
    assertThat(read(sourceId).path("rows").asInt()).isEqualTo(FACTS.rows());

    Answer proposals = get("/api/sources/{id}/proposals?connection={c}", sourceId, marina);
    assertThat(proposals.body().get(0).path("table").asString()).isEqualTo("vessel");
    assertThat(proposals.body().get(0).path("columns").asInt()).isEqualTo(10);

    long plan = newPlan(marina, arrivals());
    JsonNode view = get("/api/plans/" + plan).body();
    assertThat(view.path("matters")).isEmpty();
    assertThat(trouble(view, "type_id")).isEqualTo(FACTS.unknownKinds());
    assertThat(trouble(view, "length_m")).isEqualTo(FACTS.badLengths());
    assertThat(view.path("tableRecords").asInt()).isEqualTo(Marina.VESSELS);

    JsonNode asked = get("/api/plans/" + plan + "/match?of=repeats&pairs=200").body();
    assertThat(asked.path("repeats").asInt()).isEqualTo(2 * FACTS.repeated());
    assertThat(asked.path("pairs")).hasSize(FACTS.repeated());
    assertThat(asked.path("others")).allMatch(others -> others.size() == 1);
    save(
        plan,
        p ->
            ((ObjectNode) p.path("destinations").get(0).path("policies"))
                .put("onRepeat", "keep-last"));
    JsonNode match = get("/api/plans/" + plan + "/match").body();
    assertThat(match.path("one").asInt()).isEqualTo(FACTS.changed() + FACTS.unchanged());
    assertThat(match.path("none").asInt()).isEqualTo(FACTS.added());
    assertThat(match.path("repeats").asInt()).isEqualTo(FACTS.repeated());
    assertThat(match.path("troubled").asInt()).isEqualTo(FACTS.rejected());

    JsonNode keys = get("/api/plans/" + plan + "/match/keys").body();
    assertThat(keys.path("unindexed")).isEmpty();
    assertThat(keys.path("suggested"))
        .allSatisfy(
            key -> {
              assertThat(key.path("key").path("fields")).isNotEmpty();
              assertThat(key.path("one").isNumber()).isTrue();
            });

    JsonNode rehearsal =
        finished(post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong());
    assertThat(rehearsal.path("state").asString()).isEqualTo("done");
    JsonNode run = finished(post("/api/plans/" + plan + "/runs", "").body().path("id").asLong());
    assertThat(run.path("report").path("balanced").asBoolean()).isTrue();
    assertThat(run.path("report").path("destinations"))
        .isEqualTo(rehearsal.path("report").path("destinations"));
    assertThat(run.path("number").asString()).matches("\\d{4}-\\d{4}");

    checkLedger(run.path("id").asLong());

    long nextSource = upload("winter-arrivals.xlsx", arrivals()).body().path("id").asLong();
    JsonNode fitting = get("/api/sources/{id}/proposals?connection={c}", nextSource, marina).body();
    assertThat(fitting.get(0).path("plan").asLong()).isEqualTo(plan);
    put(
        "/api/plans/" + plan + "/source",
        PlanJson.MAPPER.createObjectNode().put("source", nextSource));
    JsonNode again = finished(post("/api/plans/" + plan + "/runs", "").body().path("id").asLong());
    JsonNode vessel = again.path("report").path("destinations").get(0);
    assertThat(vessel.path("new").asInt()).isZero();
    assertThat(vessel.path("changed").asInt()).isZero();
    assertThat(vessel.path("unchanged").asInt())
        .isEqualTo(FACTS.added() + FACTS.changed() + FACTS.unchanged());
    assertThat(get("/api/plans/" + plan).body().path("tableRecords").asInt())
        .isEqualTo(Marina.VESSELS + FACTS.added());
  }

  private void checkLedger(long run) throws Exception {
    JsonNode all = get("/api/runs/" + run + "/ledger?limit=50").body();
    assertThat(all.path("total").asInt()).isEqualTo(FACTS.rows());
    assertThat(all.path("entries")).hasSize(50);
    JsonNode changed =
        get("/api/runs/" + run + "/ledger?outcome=changed&offset=380&limit=50").body();
    assertThat(changed.path("total").asInt()).isEqualTo(FACTS.changed());
    assertThat(changed.path("entries")).hasSize(FACTS.changed() - 380);
    JsonNode found = get("/api/runs/" + run + "/ledger?search=ketch rig").body();
    assertThat(found.path("total").asInt()).isEqualTo(22);
    JsonNode entry = changed.path("entries").get(0);
    String key = entry.path("recordKey").asString();
    JsonNode record = get("/api/connections/journey/tables/vessel/records?key={k}", key).body();
    assertThat(record.path("records")).hasSize(1);
    int arrived = indexOf(record.path("fields"), "arrived_on");
    int after = indexOf(all.path("fields"), "arrived_on");
    assertThat(record.path("records").get(0).path("values").get(arrived))
        .isEqualTo(entry.path("after").get(after));
  }

  private static int indexOf(JsonNode names, String name) {
    for (int i = 0; i < names.size(); i++) {
      if (names.get(i).asString().equals(name)) {
        return i;
      }
    }
    return -1;
  }

  private static int trouble(JsonNode view, String field) {
    for (JsonNode trouble : view.path("troubles")) {
      if (trouble.path("field").asString().equals(field)) {
        return trouble.path("rows").asInt();
      }
    }
    return -1;
  }

  @Test
  void runSaysWhichRowsCameOutOtherwiseThanRehearsed() throws Exception {
    String marina = marina("between");
    long plan = newPlan(marina, arrivals());
    rehearsedAndThenChanged(plan, marina);
    JsonNode run = finished(post("/api/plans/" + plan + "/runs", "").body().path("id").asLong());
    assertThat(run.path("state").asString()).isEqualTo("done");
    JsonNode differences = get("/api/runs/" + run.path("id").asLong() + "/differences").body();
    assertThat(differences.path("total").asInt()).isEqualTo(2);
    assertThat(differences.path("first").findValuesAsString("rehearsed"))
        .containsExactlyInAnyOrder("new", "unchanged");
    assertThat(differences.path("first").findValuesAsString("why"))
        .containsExactlyInAnyOrder(
            "the record was added in between", "the record was edited in between");
  }

  private void rehearsedAndThenChanged(long plan, String marina) throws Exception {
    finished(post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong());
    String url = "jdbc:h2:file:" + HOME.resolve(marina) + ";DATABASE_TO_LOWER=TRUE";
    try (Connection connection = DriverManager.getConnection(url, "sa", "");
        Statement statement = connection.createStatement()) {
      // one of those that were unchanged, and one of those that were new
      statement.execute("UPDATE vessel SET length_m = 3 WHERE registration = 'QH-0011'");
      statement.execute(
          "INSERT INTO vessel (registration, name, type_id, length_m, owner_id, arrived_on)"
              + " SELECT 'QH-2292', name, type_id, length_m, owner_id, arrived_on FROM vessel"
              + " WHERE id = 1");
    }
  }

  @Test
  void aPlanMayRefuseRowsThatComeOutOtherwiseThanRehearsed() throws Exception {
    String marina = marina("refusing-others");
    long plan = newPlan(marina, arrivals());
    JsonNode view = get("/api/plans/" + plan).body();
    ObjectNode edit = PlanJson.MAPPER.createObjectNode();
    edit.set("revision", view.path("revision"));
    ObjectNode document = (ObjectNode) view.path("plan").deepCopy();
    document.putObject("run").put("whenDifferent", "refuse");
    edit.set("plan", document);
    assertThat(put("/api/plans/" + plan, edit).status()).isEqualTo(200);
    rehearsedAndThenChanged(plan, marina);
    long records = get("/api/plans/" + plan).body().path("tableRecords").asLong();
    JsonNode run = finished(post("/api/plans/" + plan + "/runs", "").body().path("id").asLong());
    assertThat(run.path("state").asString()).isEqualTo("failed");
    assertThat(run.path("code").asString()).isEqualTo("different");
    assertThat(run.path("message").asString())
        .startsWith("2 rows come out otherwise than rehearsed: line ")
        .contains("changed, not unchanged");
    assertThat(get("/api/plans/" + plan).body().path("tableRecords").asLong()).isEqualTo(records);
    finished(post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong());
    JsonNode again = finished(post("/api/plans/" + plan + "/runs", "").body().path("id").asLong());
    assertThat(again.path("state").asString()).isEqualTo("done");
  }

  @Test
  void secondEditorIsToldAndNothingOfTheFirstIsLost() throws Exception {
    long plan = newPlan(marina("editors"), arrivals());
    JsonNode view = get("/api/plans/" + plan).body();
    ObjectNode edit = PlanJson.MAPPER.createObjectNode();
    edit.set("revision", view.path("revision"));
    edit.set("plan", ((ObjectNode) view.path("plan").deepCopy()).put("name", "Arrivals, mine"));

    assertThat(put("/api/plans/" + plan, edit).body().path("revision").asInt()).isEqualTo(2);
    edit.set("plan", ((ObjectNode) view.path("plan").deepCopy()).put("name", "Arrivals, yours"));
    Answer second = put("/api/plans/" + plan, edit);

    assertThat(second.status()).isEqualTo(409);
    assertThat(second.code()).isEqualTo("changed-meanwhile");
    assertThat(second.body().path("detail").asString()).contains("odile", "revision 2");
    assertThat(get("/api/plans/" + plan).body().path("plan").path("name").asString())
        .isEqualTo("Arrivals, mine");
  }

  @Test
  void trialOfAFillShowsItsStagesAndLeavesThePlanAlone() throws Exception {
    long plan = newPlan(marina("trial"), arrivals());
    String trial =
        """
        {"fill": {"field": "length_m", "origin": {"kind": "column", "column": "LOA (ft)"},
          "steps": [{"kind": "read-number"}, {"kind": "multiply", "with": {"by": "0.3048"}}]},
         "offset": 0, "limit": 5}""";
    JsonNode stages = post("/api/plans/" + plan + "/stages", trial).body();

    assertThat(stages.path("rows")).hasSize(5);
    assertThat(stages.path("rows").get(0).path("trace").path("problem").path("code").asString())
        .isIn("too-precise", "not-a-number");
    assertThat(stages.path("troubledRows").asInt()).isGreaterThan(FACTS.badLengths());
    assertThat(get("/api/plans/" + plan).body().path("revision").asInt()).isEqualTo(1);
  }
}
