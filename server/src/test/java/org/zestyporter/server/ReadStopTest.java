package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.plan.PlanJson;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The raw sheet, and how changes of the reading take effect. */
class ReadStopTest extends ServerTest {

  private long plan(String connection) throws Exception {
    String text = "Printed;20.11.2026;\nCode;Name;Seen\nHBT;houseboat;4\n\nSLP;sloop;9\nTotal;2;\n";
    long source =
        upload("kinds.csv", text.getBytes(StandardCharsets.UTF_8)).body().path("id").asLong();
    return post(
            "/api/plans",
            PlanJson.MAPPER
                .createObjectNode()
                .put("source", source)
                .put("connection", connection)
                .put("table", "vessel_type"))
        .body()
        .path("id")
        .asLong();
  }

  private JsonNode read(long plan, String reading) throws Exception {
    JsonNode view = get("/api/plans/" + plan).body();
    ObjectNode document = (ObjectNode) view.path("plan").deepCopy();
    document.set("reading", PlanJson.MAPPER.readTree(reading));
    ObjectNode edit = PlanJson.MAPPER.createObjectNode();
    edit.set("revision", view.path("revision"));
    edit.set("plan", document);
    return put("/api/plans/" + plan, edit).body();
  }

  @Test
  void rawLinesCarryTheirRole() throws Exception {
    long plan = plan(marina("raw"));
    JsonNode lines = get("/api/plans/" + plan + "/lines?from=1&count=50").body();
    assertThat(lines).hasSize(6);
    // the first line also holds two words, but a date is no title
    assertThat(lines.findValuesAsString("role"))
        .containsExactly("left-out", "titles", "record", "blank", "record", "left-out");
    assertThat(
            get("/api/plans/" + plan + "/lines?from=5&count=1").body().get(0).path("line").asInt())
        .isEqualTo(5);
    assertThat(get("/api/plans/" + plan + "/row?line=5").body().path("row").asInt()).isEqualTo(1);
  }

  @Test
  void marksChangeTheRowsAndTheColumnsAtOnce() throws Exception {
    long plan = plan(marina("marks"));
    JsonNode view = read(plan, "{\"titleRows\": [3]}");
    assertThat(view.path("source").path("rows").asInt()).isEqualTo(1);
    assertThat(view.path("source").path("columns").get(0).path("name").asString()).isEqualTo("HBT");
    assertThat(view.path("matters").findValuesAsString("code"))
        .as("the fills miss their columns")
        .contains("no-such-column");
    view = read(plan, "{\"firstRow\": 5, \"lastRow\": 6}");
    assertThat(view.path("source").path("rows").asInt()).isEqualTo(2);
    assertThat(view.path("matters")).isEmpty();
    view = read(plan, "{\"delimiter\": \",\"}");
    assertThat(view.path("source").path("columns")).hasSize(1);
  }

  @Test
  void windowShowsTheRowAndWhatBecomesOfIt() throws Exception {
    long plan = plan(marina("window"));
    JsonNode window = get("/api/plans/" + plan + "/window?from=0&count=5").body();
    assertThat(window).hasSize(2);
    assertThat(window.get(0).path("line").asInt()).isEqualTo(3);
    assertThat(window.get(1).path("values").findValuesAsString("value"))
        .containsExactly("SLP", "sloop");
    assertThat(get("/api/plans/" + plan + "/troubled?after=-1").body().path("row").asInt())
        .isEqualTo(-1);
  }

  @Test
  void labelsNameLinkedRecords() throws Exception {
    String marina = marina("labels");
    JsonNode labels =
        get("/api/connections/" + marina + "/tables/vessel_type/labels?key=1&key=99").body();
    assertThat(labels.path("1").asString()).isEqualTo("SLP sloop");
    assertThat(labels.has("99")).isFalse();
    assertThat(
            get("/api/connections/" + marina + "/tables/berth/labels?key=2")
                .body()
                .path("2")
                .asString())
        .isEqualTo("A-02");
  }

  @Test
  void recordsAreFoundAndPaged() throws Exception {
    String marina = marina("paged");
    String path = "/api/connections/" + marina + "/tables/vessel/records";
    JsonNode page = get(path + "?offset=1870&limit=50").body();
    assertThat(page.path("total").asInt()).isEqualTo(1873);
    assertThat(page.path("records")).hasSize(3);
    JsonNode found = get(path + "?search=qh-0011").body();
    assertThat(found.path("total").asInt()).isEqualTo(1);
    assertThat(found.path("records").get(0).path("key").asString()).isEqualTo("1");
    assertThat(get(path + "?key=x").status()).isEqualTo(404);
  }
}
