package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.function.Consumer;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Fields follow when a file is read otherwise; a guess waits for somebody to confirm it. */
class DraftedAnewTest extends ServerTest {
  private static final String FILE =
      """
      List of boats;by;Odile;;
      Reg No;Boat name;Kind;LOA (m);Owner e-mail
      QH-7001;Wren;sloop;9.5;b.halloran@brightquay.example
      QH-7002;Auk;yawl;11.7;b.halloran@brightquay.example
      """;

  private static ArrayNode fills(JsonNode plan) {
    return (ArrayNode) plan.path("destinations").get(0).path("fills");
  }

  private static JsonNode fill(JsonNode plan, String field) {
    for (JsonNode fill : fills(plan)) {
      if (fill.path("field").asString().equals(field)) {
        return fill;
      }
    }
    return null;
  }

  private static String column(JsonNode view, String field) {
    JsonNode fill = fill(view.path("plan"), field);
    return fill == null ? "" : fill.path("origin").path("column").asString("");
  }

  private static Consumer<ObjectNode> titles(int line) {
    return document -> ((ObjectNode) document.path("reading")).putArray("titleRows").add(line);
  }

  @Test
  void fieldsFollowTheTitlesUnlessSomebodyHasTouchedThem() throws Exception {
    long plan = plan(marina("follows"), FILE);
    JsonNode wrong = save(plan, titles(1));
    assertThat(column(wrong, "registration")).isNotEqualTo("Reg No");
    // somebody says what the name is, and that nothing fills the notes
    save(
        plan,
        document -> {
          fills(document).removeIf(f -> f.path("field").asString().equals("name"));
          ObjectNode name = fills(document).addObject().put("field", "name");
          name.putObject("origin").put("kind", "fixed").put("value", "unnamed");
        });
    JsonNode right = save(plan, titles(2));
    assertThat(column(right, "registration")).isEqualTo("Reg No");
    assertThat(column(right, "owner_id")).isEqualTo("Owner e-mail");
    assertThat(fill(right.path("plan"), "name").path("origin").path("value").asString())
        .isEqualTo("unnamed");
    assertThat(right.path("followed").toString())
        .contains("registration")
        .doesNotContain("\"name\"");
    // told once, and what is asked for later is the same
    JsonNode later = get("/api/plans/" + plan).body();
    assertThat(later.path("followed")).isEmpty();
    assertThat(later.path("plan")).isEqualTo(right.path("plan"));
  }

  /** Only another file can be unlike the one before, not another reading of the same. */
  @Test
  void columnsOfAnotherReadingAreNoChangeOfTheFile() throws Exception {
    long plan = plan(marina("columns"), FILE);
    save(plan, titles(2));
    JsonNode folded =
        save(
            plan,
            document ->
                ((ObjectNode) document.path("reading"))
                    .putArray("picks")
                    .addObject()
                    .put("name", "Listed by")
                    .put("column", "C")
                    .put("line", 1));
    assertThat(folded.path("source").path("changes")).isEmpty();
    assertThat(folded.path("plan").path("reading").path("columns").findValuesAsString("name"))
        .contains("Listed by", "Reg No");
    // a column that is used and gone is told
    JsonNode gone =
        save(
            plan,
            document ->
                ((ObjectNode) document.path("reading"))
                    .putObject("renamed")
                    .put("Boat name", "Ship"));
    assertThat(gone.path("source").path("changes").findValuesAsString("kind")).isNotEmpty();
  }

  @Test
  void aMatterThatIsConfirmedChangesNoFill() throws Exception {
    long plan = plan(marina("confirmed"), FILE);
    JsonNode before = save(plan, titles(2));
    JsonNode after =
        save(
            plan,
            document ->
                ((ObjectNode) document.path("reading")).putArray("confirmed").add("currency:LOA"));
    assertThat(after.path("followed")).isEmpty();
    assertThat(fills(after.path("plan"))).isEqualTo(fills(before.path("plan")));
  }

  @Test
  void aGuessIsRehearsedButNotWritten() throws Exception {
    // a number that only the length can be, under a title that says nothing
    String content =
        FILE.substring(FILE.indexOf("Reg No"))
            .replace("LOA (m)", "Value Q")
            .replace("Kind", "Type");
    long plan = plan(marina("guessed"), content);
    JsonNode view = get("/api/plans/" + plan).body();
    assertThat(fill(view.path("plan"), "length_m").path("guess").asBoolean())
        .as(view.path("evidence").toString())
        .isTrue();
    assertThat(fill(view.path("plan"), "registration").has("guess")).isFalse();
    // what the file says nothing of
    save(
        plan,
        document -> {
          ObjectNode arrived = fills(document).addObject().put("field", "arrived_on");
          arrived.putObject("origin").put("kind", "fixed").put("value", "2026-11-26");
        });
    JsonNode rehearsal =
        finished(post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong());
    JsonNode question = rehearsal.path("report").path("questions").get(0);
    assertThat(question.path("code").asString()).isEqualTo("guess");
    assertThat(question.path("value").asString()).isEqualTo("Value Q");
    assertThat(question.path("rows").asInt()).isEqualTo(2);

    Answer refused = post("/api/plans/" + plan + "/runs", "");
    assertThat(refused.status()).isEqualTo(422);
    assertThat(refused.body().path("code").asString()).isEqualTo("guess");
    assertThat(refused.body().path("detail").asString())
        .startsWith("length_m of vessel is filled from “Value Q” by a guess");

    save(plan, document -> ((ObjectNode) fill(document, "length_m")).put("guess", false));
    JsonNode run = finished(post("/api/plans/" + plan + "/runs", "").body().path("id").asLong());
    assertThat(run.path("state").asString()).as(run.toString()).isEqualTo("done");
  }
}
