package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.http.MediaType;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Steps on trial, formulas, phrasebooks, checks and corrections over HTTP. */
class FillStopTest extends ServerTest {
  private static final String FILE =
      """
      Reg No;Boat name;Kind;LOA (ft);Beam (ft);Owner e-mail;Berth;Arrives;Insured until
      QH-7001;Wren;sloop;32' 6";9;b.halloran@brightquay.example;;3.11.2026;1.10.2026
      QH-7002;Auk;Ketch rig;38,5;9;b.halloran@brightquay.example;;3.11.2026;1.10.2027
      QH-7003;Tern;Ketch rig;41;9;b.halloran@brightquay.example;;3.11.2026;
      """;

  private JsonNode fill(long plan, String field) throws Exception {
    for (JsonNode fill : fills(get("/api/plans/" + plan).body())) {
      if (fill.path("field").asString().equals(field)) {
        return fill;
      }
    }
    throw new AssertionError(field);
  }

  private static JsonNode fills(JsonNode view) {
    return view.path("plan").path("destinations").get(0).path("fills");
  }

  private static JsonNode trouble(JsonNode view, String field) {
    for (JsonNode trouble : view.path("troubles")) {
      if (trouble.path("field").asString().equals(field)) {
        return trouble;
      }
    }
    throw new AssertionError(field);
  }

  @Test
  void stepsAreRankedByWhatTheyFree() throws Exception {
    long plan = plan(marina("ranked"), FILE);
    ObjectNode length = (ObjectNode) fill(plan, "length_m");
    // as if the one length with its unit were a slip
    ((ArrayNode) length.path("steps")).set(0, length.objectNode().put("kind", "read-number"));
    JsonNode trials =
        post("/api/plans/" + plan + "/trials", Map.of("fill", length, "at", -1)).body();
    assertThat(trials.get(0).path("step").path("kind").asString()).isEqualTo("read-measure");
    assertThat(trials.get(0).path("frees").asInt()).isEqualTo(1);
    assertThat(trials.get(0).path("after").asString()).isEqualTo("32.5");
    assertThat(trials.size()).isGreaterThan(35);
    Answer refused =
        post(
            "/api/plans/" + plan + "/trials",
            Map.of("fill", Map.of("field", "id", "origin", Map.of("kind", "database")), "at", 0));
    assertThat(refused.status()).isEqualTo(422);
  }

  @Test
  void formulasAreAnsweredForTheRecordInHand() throws Exception {
    long plan = plan(marina("formulas"), FILE);
    JsonNode fill = fill(plan, "name");
    String path = "/api/plans/" + plan + "/formula";
    JsonNode fine =
        post(path, Map.of("fill", fill, "formula", "UPPER([Boat name])", "inStep", false, "row", 1))
            .body();
    assertThat(fine.path("value").asString()).isEqualTo("AUK");
    assertThat(fine.path("kind").asString()).isEqualTo("text");
    JsonNode inStep =
        post(path, Map.of("fill", fill, "formula", "LEN([value])", "inStep", true, "row", 2))
            .body();
    assertThat(inStep.path("value").asString()).isEqualTo("4");
    JsonNode wrong =
        post(path, Map.of("fill", fill, "formula", "UPPER([Bot name])", "inStep", false, "row", 0))
            .body();
    assertThat(wrong.path("message").asString()).contains("is it [Boat name]?");
    assertThat(wrong.path("from").asInt()).isEqualTo(6);
    JsonNode troubled =
        post(path, Map.of("fill", fill, "formula", "[Kind] * 2", "inStep", false, "row", 0)).body();
    assertThat(troubled.path("problem").path("code").asString()).isEqualTo("not-a-number");
    assertThat(get("/api/functions").body().size()).isGreaterThan(100);
  }

  @Test
  void phrasebooksAreLearntUsedCountedAndTakenOutAndIn() throws Exception {
    long plan = plan(marina("phrases"), FILE);
    assertThat(trouble(get("/api/plans/" + plan).body(), "type_id").path("questions").asInt())
        .isEqualTo(2);
    JsonNode suggested =
        post(
                "/api/plans/" + plan + "/suggestions",
                Map.of("fill", fill(plan, "type_id"), "word", "Ketch rig"))
            .body();
    assertThat(suggested.get(0).path("value").asString()).isEqualTo("ketch");
    assertThat(suggested.get(0).path("near").asBoolean()).isTrue();

    long book =
        post(
                "/api/phrasebooks/learn",
                Map.of("book", Map.of("name", "Kinds"), "from", "Ketch rig", "to", "ketch"))
            .body()
            .path("id")
            .asLong();
    JsonNode view =
        save(
            plan,
            document -> {
              for (JsonNode fill : document.path("destinations").get(0).path("fills")) {
                if (fill.path("field").asString().equals("type_id")) {
                  ((ArrayNode) fill.path("steps"))
                      .addObject()
                      .put("kind", "translate")
                      .putObject("with")
                      .put("book", "Kinds");
                }
              }
            });
    assertThat(trouble(view, "type_id").path("rows").asInt()).isZero();
    assertThat(get("/api/phrasebook-uses?book=Kinds").body().get(0).path("field").asString())
        .isEqualTo("type_id");

    put("/api/phrasebooks/" + book + "/phrases", Map.of("from", "KETCH  RIG", "to", "yawl"));
    JsonNode phrases = get("/api/phrasebooks/" + book).body().path("phrases");
    assertThat(phrases).as("capitals and spaces don't matter").hasSize(1);
    assertThat(phrases.get(0).path("to").asString()).isEqualTo("yawl");

    Answer taken =
        post(
            "/api/phrasebooks/" + book + "/csv", Map.of("text", "from;to\nmtr;motor\n\"a;b\";c\n"));
    assertThat(taken.body().path("phrases").asInt()).isEqualTo(2);
    Answer odd = post("/api/phrasebooks/" + book + "/csv", Map.of("text", "x;y\na;b;c\n"));
    assertThat(odd.body().path("detail").asString()).startsWith("Line 2 should hold a word");
    assertThat(get("/api/phrasebooks/" + book).body().path("phrases"))
        .as("nothing of it was taken in")
        .hasSize(3);
    String csv =
        mvc.perform(MockMvcRequestBuilders.get("/api/phrasebooks/" + book + "/csv"))
            .andReturn()
            .getResponse()
            .getContentAsString();
    assertThat(csv.lines()).containsExactly("from,to", "a;b,c", "KETCH  RIG,yawl", "mtr,motor");
    assertThat(post("/api/phrasebooks", Map.of("name", "Kinds")).code()).isEqualTo("name-taken");
    assertThat(post("/api/phrasebooks", Map.of("name", " ")).status()).isEqualTo(422);
    send(
        MockMvcRequestBuilders.delete("/api/phrasebooks/" + book + "/phrases")
            .param("word", "MTR"));
    assertThat(get("/api/phrasebooks/" + book).body().path("phrases")).hasSize(2);
    send(MockMvcRequestBuilders.delete("/api/phrasebooks/" + book));
    assertThat(get("/api/phrasebooks/" + book).status()).isEqualTo(404);
    assertThat(get("/api/plans/" + plan).body().path("matters").findValuesAsString("code"))
        .contains("no-such-phrasebook");
  }

  @Test
  void checksAreKeptWithTheConnectionAndSeenInFill() throws Exception {
    String marina = marina("checks");
    long plan = plan(marina, FILE);
    String path = "/api/connections/" + marina + "/tables/vessel/checks";
    Answer wrong = put(path, Map.of("name", "x", "formula", "[insured] > 1"));
    assertThat(wrong.status()).isEqualTo(422);
    assertThat(wrong.body().path("detail").asString()).contains("no column “insured”");
    put(
        path,
        Map.of(
            "name", "insured",
            "formula", "[insured_until] >= [arrived_on]",
            "message", "not insured on arrival"));
    JsonNode window = get("/api/plans/" + plan + "/window?from=0&count=3").body();
    assertThat(window.get(0).path("broken").asString()).isEqualTo("not insured on arrival");
    assertThat(window.get(1).has("broken")).isFalse();
    save(
        plan,
        document ->
            ((ObjectNode) document.path("destinations").get(0))
                .putArray("checksOff")
                .add("insured"));
    assertThat(get("/api/plans/" + plan + "/window?from=0&count=1").body().get(0).has("broken"))
        .isFalse();
    assertThat(send(MockMvcRequestBuilders.delete(path).param("check", "insured")).body())
        .isEmpty();
  }

  @Test
  void correctionsAreReadUntilTheirCellsChange() throws Exception {
    long plan = plan(marina("corrections"), FILE);
    JsonNode view =
        save(
            plan,
            document -> {
              ArrayNode corrections = document.putArray("corrections");
              corrections
                  .addObject()
                  .put("line", 2)
                  .put("column", "LOA (ft)")
                  .put("was", "32' 6\"")
                  .put("now", "32,5");
              corrections
                  .addObject()
                  .put("line", 3)
                  .put("column", "LOA (ft)")
                  .put("was", "39")
                  .put("now", "40");
            });
    assertThat(trouble(view, "length_m").path("rows").asInt()).isZero();
    assertThat(view.path("lapsed").findValuesAsString("line")).containsExactly("3");
    JsonNode stages =
        post(
                "/api/plans/" + plan + "/stages",
                Map.of("fill", fill(plan, "length_m"), "offset", 0, "limit", 9))
            .body();
    assertThat(stages.path("rows").findValuesAsString("origin")).contains("32,5");
  }

  @Test
  void columnsAreOfferedForAFieldWithWhatWouldPass() throws Exception {
    long plan = plan(marina("offers"), FILE);
    String offers = "/api/plans/" + plan + "/offers?field=";
    JsonNode owner = get(offers + "owner_id").body().get(0);
    assertThat(owner.path("column").asString()).isEqualTo("Owner e-mail");
    assertThat(owner.path("fill")).isEqualTo(fill(plan, "owner_id"));
    assertThat(owner.path("passes").asInt()).isEqualTo(3);
    assertThat(owner.path("rows").asInt()).isEqualTo(3);
    JsonNode length = get(offers + "length_m").body().get(0);
    assertThat(length.path("column").asString()).isEqualTo("LOA (ft)");
    assertThat(length.path("passes").asInt()).as("32' 6\" is a measure").isEqualTo(3);
    assertThat(length.path("samples").size()).isEqualTo(3);
    // whatever was offered, a column can be chosen
    JsonNode chosen = get(offers + "owner_id&column=Kind").body().get(0);
    assertThat(chosen.path("fill").path("origin").path("kind").asString()).isEqualTo("link");
    assertThat(chosen.path("passes").asInt()).isZero();
    String lookups = "/api/plans/" + plan + "/lookups?field=";
    JsonNode looked = get(lookups + "owner_id&column=Owner e-mail").body();
    assertThat(looked.get(0).path("field").asString()).isEqualTo("email");
    assertThat(looked.get(0).path("found").asInt()).isEqualTo(3);
    JsonNode kinds = get(lookups + "type_id&column=Owner e-mail").body();
    assertThat(kinds.findValuesAsString("found")).isNotEmpty().containsOnly("0");
    assertThat(get(lookups + "name&column=Kind").body()).isEmpty();
    assertThat(get(lookups + "owner_id&column=Mast").code()).isEqualTo("no-such-column");
    assertThat(get(offers + "owner_id&column=Mast").code()).isEqualTo("no-such-column");
    assertThat(get(offers + "mast").code()).isEqualTo("no-such-field");
  }

  /** The best proposal; other connections may not have answered in time when first asked. */
  private JsonNode best(long source, String connection) throws Exception {
    String path = "/api/sources/" + source + "/proposals?connection=" + connection;
    JsonNode best = get(path).body().get(0);
    for (int again = 0; best == null && again < 5; again++) {
      best = get(path).body().get(0);
    }
    return best;
  }

  @Test
  void aTableOfAnotherConnectionIsProposedWhereItFitsBetter() throws Exception {
    String here = marina("here");
    String there = marina("there");
    try (Connection connection =
            DriverManager.getConnection(
                "jdbc:h2:file:" + HOME.resolve(there) + ";DATABASE_TO_LOWER=TRUE", "sa", "");
        Statement statement = connection.createStatement()) {
      statement.execute(
          "CREATE TABLE swan (ring VARCHAR(9) PRIMARY KEY, wingspan INTEGER, plumage VARCHAR(9))");
    }
    String file = "Ring;Wingspan;Plumage\nA-1;210;grey\nA-2;222;white\n";
    long source =
        upload("swans.csv", file.getBytes(StandardCharsets.UTF_8)).body().path("id").asLong();
    JsonNode first = best(source, here);
    assertThat(first.path("connection").asString()).isEqualTo(there);
    assertThat(first.path("table").asString()).isEqualTo("swan");
    assertThat(first.path("because").asString()).isEqualTo("3 of 3 columns find a field");

    // a database that can't be reached keeps nobody from the others
    String lost = marina("lost");
    try (Connection connection =
            DriverManager.getConnection(
                "jdbc:h2:file:" + HOME.resolve(lost) + ";DATABASE_TO_LOWER=TRUE", "sa", "");
        Statement statement = connection.createStatement()) {
      statement.execute("SHUTDOWN");
    }
    Files.delete(HOME.resolve(lost + ".mv.db"));
    assertThat(best(source, lost).path("connection").asString()).isEqualTo(there);
    send(MockMvcRequestBuilders.delete("/api/connections/" + lost));
  }

  @Test
  void whatIsNoJsonIsNotUnderstood() throws Exception {
    Answer answer =
        send(
            MockMvcRequestBuilders.post("/api/phrasebooks")
                .contentType(MediaType.APPLICATION_JSON)
                .content("{"));
    assertThat(answer.status()).isEqualTo(400);
  }
}
