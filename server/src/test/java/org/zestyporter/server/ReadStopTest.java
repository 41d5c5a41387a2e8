package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
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
        .as("fields that nobody has touched follow, so that none misses its column")
        .contains("required-field")
        .doesNotContain("no-such-column");
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

  /** A comma in a key is no end of it, whether one key is asked for or several. */
  @Test
  void recordsAreFoundByKeysThatHoldCommas() throws Exception {
    String marina = marina("commas");
    execute(marina, "CREATE TABLE crew (name VARCHAR(20) PRIMARY KEY)");
    execute(marina, "INSERT INTO crew VALUES ('Lee, Ann'), ('Holt')");
    execute(
        marina,
        "CREATE TABLE watch (dock VARCHAR(9), no INTEGER, who VARCHAR(9), PRIMARY KEY (dock, no))");
    execute(marina, "INSERT INTO watch VALUES ('A', 1, 'Ann'), ('B, C', 2, 'Bo')");
    String tables = "/api/connections/" + marina + "/tables/";
    for (String key : List.of("Lee, Ann", "Holt")) {
      JsonNode found = get(tables + "crew/records?key={k}", key).body();
      assertThat(found.path("records").findValuesAsString("key")).containsExactly(key);
    }
    assertThat(get(tables + "crew/labels?key={a}&key=Holt", "Lee, Ann").body().propertyNames())
        .containsExactly("Lee, Ann", "Holt");
    for (String key : List.of("A,1", "B\\, C,2")) {
      assertThat(get(tables + "watch/labels?key={k}", key).body().propertyNames())
          .containsExactly(key);
    }
    assertThat(get(tables + "watch/records?key={k}", "A").status()).isEqualTo(404);
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

  private static final String MONTHS =
      "Meter;Berth;Sep 26;Oct 26;Nov 26\nM-1;A-01;311;402;518\nM-2;A-02;96;-;140\n";

  private long uploaded(String text) throws Exception {
    Answer answer = upload("months.csv", text.getBytes(StandardCharsets.UTF_8));
    assertThat(answer.body().path("state").asString()).isEqualTo("ready");
    return answer.body().path("id").asLong();
  }

  private long planned(long source, String table, String connection) throws Exception {
    ObjectNode wanted = PlanJson.MAPPER.createObjectNode();
    wanted.put("source", source).put("connection", connection).put("table", table);
    return post("/api/plans", wanted).body().path("id").asLong();
  }

  @Test
  void firstRowsAndProgressAreTold() throws Exception {
    long source = uploaded(MONTHS);
    JsonNode peek = get("/api/sources/" + source + "/peek").body();
    assertThat(peek.path("columns")).hasSize(5);
    assertThat(peek.path("rows").get(1).get(0).path("text").asString()).isEqualTo("M-2");
    JsonNode reached = get("/api/sources/" + source + "/progress").body();
    assertThat(reached.path("state").asString()).isEqualTo("ready");
    assertThat(reached.path("rows").asInt()).isEqualTo(2);
    assertThat(get("/api/sources/99999/progress").status()).isEqualTo(404);
  }

  @Test
  void foldIsTriedBeforeItIsKept() throws Exception {
    long plan = planned(uploaded(MONTHS), "meter_reading", marina("fold"));
    JsonNode source = get("/api/plans/" + plan).body().path("source");
    JsonNode fold = source.path("proposals").path("fold");
    assertThat(fold.path("from").asString()).isEqualTo("Sep 26");
    ObjectNode trial = PlanJson.MAPPER.createObjectNode();
    trial.putObject("reading").set("fold", fold);
    trial.put("from", 0).put("count", 3);
    JsonNode preview = post("/api/plans/" + plan + "/preview", trial).body();
    assertThat(preview.path("rows").asInt()).isEqualTo(5);
    assertThat(preview.path("records")).hasSize(3);
    assertThat(preview.path("records").get(1).path("line").asInt()).isEqualTo(2);
    assertThat(get("/api/plans/" + plan).body().path("source").path("rows").asInt()).isEqualTo(2);
  }

  @Test
  void otherFileIsComparedWithTheOneThePlanWasMadeWith() throws Exception {
    long plan = planned(uploaded("Reg;Boat name;Feet\nQH-1;Wren;8\n"), "vessel", marina("other"));
    assertThat(get("/api/plans/" + plan).body().path("source").path("changes")).isEmpty();
    ObjectNode use = PlanJson.MAPPER.createObjectNode();
    use.put("source", uploaded("Reg;Name of boat;Feet;Colour\nQH-1;Wren;8;red\n"));
    JsonNode changes =
        put("/api/plans/" + plan + "/source", use).body().path("source").path("changes");
    assertThat(changes.findValuesAsString("kind")).containsExactly("renamed", "added");
    JsonNode view =
        read(
            plan,
            "{\"renamed\": {\"Name of boat\": \"Boat name\"}, \"columns\": [{\"name\": \"Reg\","
                + " \"letter\": \"A\", \"type\": \"text\"}, {\"name\": \"Boat name\", \"letter\":"
                + " \"B\", \"type\": \"text\"}, {\"name\": \"Feet\", \"letter\": \"C\", \"type\":"
                + " \"whole\"}, {\"name\": \"Colour\", \"letter\": \"D\", \"type\": \"text\"}]}");
    assertThat(view.path("source").path("changes")).isEmpty();
    assertThat(view.path("source").path("columns").findValuesAsString("name"))
        .contains("Boat name")
        .doesNotContain("Name of boat");
    assertThat(view.path("matters").findValuesAsString("code")).doesNotContain("no-such-column");
  }

  @Test
  void textOfFixedWidthIsShownWithItsLines() throws Exception {
    String text = "Reg     Boat        Tonnes\n" + "QH-0100 Silver Wren    5.0\n".repeat(5);
    long plan = planned(uploaded(text), "vessel", marina("fixed"));
    JsonNode reading = get("/api/plans/" + plan).body().path("source").path("reading");
    assertThat(reading.path("format").asString()).isEqualTo("fixed");
    assertThat(get("/api/plans/" + plan + "/text").body().get(0).asString()).startsWith("Reg     ");
    JsonNode lines = get("/api/plans/" + plan + "/lines?from=2&count=1&firstColumn=1").body();
    assertThat(lines.get(0).path("cells").get(0).path("text").asString()).isEqualTo("Silver Wren");
  }
}
