package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Answers are counted from the last rehearsal, over HTTP. */
class RecountsTest extends ServerTest {
  private static final String[] FIGURES = {
    "new", "changed", "unchanged", "skipped", "rejected", "waiting"
  };

  private JsonNode rehearsed(long plan) throws Exception {
    Answer begun = post("/api/plans/" + plan + "/rehearsals", "");
    assertThat(begun.status()).as(begun.body().toString()).isEqualTo(202);
    return finished(begun.body().path("id").asLong());
  }

  private JsonNode recount(long plan) throws Exception {
    Answer answer = post("/api/plans/" + plan + "/recount", "");
    assertThat(answer.status()).as(answer.body().toString()).isEqualTo(200);
    return answer.body();
  }

  private static void assertSame(JsonNode counts, JsonNode rehearsal) {
    JsonNode told = rehearsal.path("report").path("destinations");
    assertThat(counts).hasSize(told.size());
    for (int d = 0; d < told.size(); d++) {
      for (String figure : FIGURES) {
        assertThat(counts.get(d).path(figure).asLong())
            .as(figure)
            .isEqualTo(told.get(d).path(figure).asLong());
      }
    }
  }

  private static ObjectNode fill(JsonNode plan, String field) {
    for (JsonNode fill : plan.path("destinations").get(0).path("fills")) {
      if (fill.path("field").asString().equals(field)) {
        return (ObjectNode) fill;
      }
    }
    throw new AssertionError(field);
  }

  private static JsonNode question(JsonNode rehearsal, String field) {
    for (JsonNode question : rehearsal.path("report").path("questions")) {
      if (question.path("field").asString().equals(field)) {
        return question;
      }
    }
    throw new AssertionError(rehearsal.path("report").path("questions").toString());
  }

  @Test
  void answersAreCountedFromTheLastRehearsal() throws Exception {
    long plan = newPlan(marina("recounts"), arrivals());
    // nothing is known before the first rehearsal
    assertThat(recount(plan).path("rehearsal").isMissingNode()).isTrue();
    save(
        plan,
        document ->
            document
                .path("destinations")
                .get(0)
                .path("fills")
                .forEach(f -> ((ObjectNode) f).remove("guess")));
    JsonNode first = rehearsed(plan);
    JsonNode asked = question(first, "type_id");
    assertThat(asked.path("rows").asLong()).isPositive();
    JsonNode view =
        save(
            plan,
            document -> {
              ((ArrayNode) fill(document, "type_id").path("steps"))
                  .addObject()
                  .put("kind", "translate")
                  .putObject("with")
                  .put("book", "Kinds");
              ObjectNode book = document.putArray("phrasebooks").addObject().put("name", "Kinds");
              book.putArray("phrases")
                  .addObject()
                  .put("from", asked.path("value").asString())
                  .put("to", "ketch");
            });
    JsonNode counted = recount(plan);
    assertThat(counted.path("rehearsal").asLong()).isEqualTo(first.path("id").asLong());
    assertThat(counted.path("revision").asInt()).isEqualTo(view.path("revision").asInt());
    assertThat(counted.path("rows").asLong())
        .isGreaterThanOrEqualTo(asked.path("rows").asLong())
        .isLessThan(first.path("report").path("read").asLong());
    // what was answered goes on from what was counted
    save(plan, document -> fill(document, "name").put("whenBad", "blank"));
    JsonNode then = recount(plan);
    JsonNode whole = rehearsed(plan);
    assertSame(then.path("counts"), whole);
    assertThat(then.path("counts").get(0).path("waiting").asLong())
        .isLessThan(first.path("report").path("destinations").get(0).path("waiting").asLong());
  }

  /** A shared phrasebook learns a word, and the plan stays as it is. */
  @Test
  void wordsOfSharedPhrasebooksAreCounted() throws Exception {
    long plan = newPlan(marina("shared"), arrivals());
    learn("Schiffsarten", "barge of old", "barge");
    save(
        plan,
        document ->
            ((ArrayNode) fill(document, "type_id").path("steps"))
                .addObject()
                .put("kind", "translate")
                .putObject("with")
                .put("book", "Schiffsarten"));
    JsonNode first = rehearsed(plan);
    JsonNode asked = question(first, "type_id");
    learn("Schiffsarten", asked.path("value").asString(), "ketch");
    JsonNode counted = recount(plan);
    assertThat(counted.path("rows").asLong()).isGreaterThanOrEqualTo(asked.path("rows").asLong());
    assertThat(counted.path("revision").asInt()).isEqualTo(first.path("revision").asInt());
    assertSame(counted.path("counts"), rehearsed(plan));
  }

  private void learn(String book, String from, String to) throws Exception {
    Answer learnt =
        post(
            "/api/phrasebooks/learn", Map.of("book", Map.of("name", book), "from", from, "to", to));
    assertThat(learnt.status()).as(learnt.body().toString()).isBetween(200, 201);
  }

  @Test
  void whatIsNoAnswerHasToBeRehearsed() throws Exception {
    long plan = newPlan(marina("rehearsed"), arrivals());
    rehearsed(plan);
    assertThat(recount(plan).path("rows").asLong()).isZero();
    save(
        plan,
        document ->
            ((ObjectNode) document.path("destinations").get(0).path("policies"))
                .put("onMatch", "skip"));
    assertThat(recount(plan).path("counts").isMissingNode()).isTrue();
    Answer unknown = post("/api/plans/999999/recount", Map.of());
    assertThat(unknown.status()).isEqualTo(404);
  }
}
