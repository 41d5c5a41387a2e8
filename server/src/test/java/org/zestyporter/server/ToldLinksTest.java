package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.Map;
import java.util.function.Consumer;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Where a field points is told once: in its plan, and for those that are drafted after it. */
class ToldLinksTest extends ServerTest {
  private static final String FILE = "Tag;Given to\nT1;Ann Reed\nT2;Bert Voss\nT3;Ann Read\n";

  private static void tables(String connection) throws Exception {
    String url = "jdbc:h2:file:" + HOME.resolve(connection) + ";DATABASE_TO_LOWER=TRUE";
    try (Connection own = DriverManager.getConnection(url, "sa", "");
        Statement statement = own.createStatement()) {
      statement.execute("CREATE TABLE holder (no INTEGER PRIMARY KEY, label VARCHAR(20))");
      statement.execute(
          "INSERT INTO holder VALUES (81, 'Ann Reed'), (82, 'Bert Voss'), (83, 'Ann Read')");
      statement.execute("CREATE TABLE door_key (tag VARCHAR(9) PRIMARY KEY, given_to INTEGER)");
    }
  }

  private long source() throws Exception {
    byte[] bytes = FILE.getBytes(StandardCharsets.UTF_8);
    return upload("keys.csv", bytes).body().path("id").asLong();
  }

  private long newPlan(String connection) throws Exception {
    Map<String, Object> wanted =
        Map.of("source", source(), "connection", connection, "table", "door_key");
    return post("/api/plans", wanted).body().path("id").asLong();
  }

  private static Consumer<ObjectNode> pointing(String to) {
    return document -> {
      document.putArray("links");
      if (to != null) {
        document
            .withArray("links")
            .addObject()
            .put("table", "door_key")
            .put("field", "given_to")
            .put("to", to);
      }
    };
  }

  private static JsonNode field(JsonNode view) {
    return view.path("table").path("fields").get(1);
  }

  private JsonNode offer(long plan) throws Exception {
    String path = "/api/plans/" + plan + "/offers?field=given_to&column=Given to";
    return get(path).body().get(0).path("fill");
  }

  @Test
  void aFieldPointsWhereItIsTold() throws Exception {
    String marina = marina("told");
    tables(marina);
    long plan = newPlan(marina);
    assertThat(field(get("/api/plans/" + plan).body()).has("link")).isFalse();
    assertThat(offer(plan).path("origin").path("kind").asString()).isEqualTo("column");

    JsonNode wrong = save(plan, pointing("berths"));
    assertThat(wrong.path("matters").findValuesAsString("message").toString())
        .contains("no table “berths”");
    JsonNode told = save(plan, pointing("holder"));
    assertThat(told.path("matters")).isEmpty();
    assertThat(field(told).path("link").path("table").asString()).isEqualTo("holder");
    JsonNode fill = offer(plan);
    assertThat(fill.path("origin").path("link").path("by").asString()).isEqualTo("label");
    JsonNode filled =
        save(plan, document -> document.path("destinations").get(0).withArray("fills").add(fill));
    assertThat(filled.path("troubles").findValuesAsString("rows")).containsOnly("0");

    // what the fill looks in is not there once the field points elsewhere
    JsonNode elsewhere = save(plan, pointing("vessel_type"));
    assertThat(elsewhere.path("matters").findValuesAsString("message"))
        .containsExactly("given_to: The table vessel_type has no field “label”.");

    save(plan, pointing("holder"));
    String proposals = "/api/sources/" + source() + "/proposals?connection=" + marina;
    assertThat(get(proposals).body().toString()).contains("2 of 2 columns find a field");
    long later = newPlan(marina);
    JsonNode remembered = get("/api/plans/" + later).body();
    assertThat(remembered.path("plan").path("links")).hasSize(1);
    assertThat(remembered.path("plan").path("destinations").get(0).path("fills").toString())
        .contains("\"by\":\"label\"");

    assertThat(field(save(plan, pointing(null))).has("link")).isFalse();
  }

  @Test
  void tablesAreNamedWithoutCountingTheirRecords() throws Exception {
    String marina = marina("named");
    JsonNode named = get("/api/connections/" + marina + "/tables?counted=false").body();
    assertThat(named.findValuesAsString("name")).contains("vessel", "owner");
    assertThat(named.findValues("records")).isEmpty();
    assertThat(get("/api/connections/" + marina + "/tables").body().findValues("records"))
        .hasSameSizeAs(named);
  }
}
