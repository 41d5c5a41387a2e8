package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.asyncDispatch;

import java.nio.charset.StandardCharsets;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.test.web.servlet.MvcResult;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;
import org.zestyporter.core.plan.PlanJson;
import tools.jackson.databind.JsonNode;

/** Rejected rows are taken away and come back. */
class ReturnsTest extends ServerTest {

  private MockHttpServletResponse taken(long run, String format) throws Exception {
    return taken(run, "returns", format);
  }

  private MockHttpServletResponse taken(long run, String what, String format) throws Exception {
    String path = "/api/runs/" + run + "/" + what + "?format=" + format;
    MvcResult begun = mvc.perform(MockMvcRequestBuilders.get(path)).andReturn();
    return mvc.perform(asyncDispatch(begun)).andReturn().getResponse();
  }

  @ParameterizedTest
  @ValueSource(strings = {"xlsx", "csv"})
  void whatARunRejectedComesBackToItsPlan(String format) throws Exception {
    String marina = marina("returns-" + format);
    long plan = newPlan(marina, arrivals());
    JsonNode run = finished(post("/api/plans/" + plan + "/runs", "").body().path("id").asLong());
    int rejected = run.path("report").path("destinations").get(0).path("rejected").asInt();
    assertThat(rejected).isPositive();

    MockHttpServletResponse file = taken(run.path("id").asLong(), format);
    assertThat(file.getStatus()).isEqualTo(200);
    String number = run.path("number").asString();
    assertThat(file.getHeader("Content-Disposition"))
        .isEqualTo("attachment; filename=\"returns-" + number + "." + format + "\"");

    Answer source = upload("returns." + format, file.getContentAsByteArray());
    assertThat(source.body().path("rows").asInt()).isEqualTo(rejected);
    long id = source.body().path("id").asLong();
    JsonNode best = get("/api/sources/{id}/proposals?connection={c}", id, marina).body().get(0);
    assertThat(best.path("plan").asLong()).isEqualTo(plan);
    assertThat(best.path("because").asString())
        .isEqualTo("brings back what Run " + number + " rejected");

    put("/api/plans/" + plan + "/source", PlanJson.MAPPER.createObjectNode().put("source", id));
    JsonNode again = finished(post("/api/plans/" + plan + "/runs", "").body().path("id").asLong());
    JsonNode vessel = again.path("report").path("destinations").get(0);
    assertThat(vessel.path("rejected").asInt()).as(again.toString()).isEqualTo(rejected);
    assertThat(vessel.path("new").asInt() + vessel.path("changed").asInt()).isZero();
  }

  private long run(long plan) throws Exception {
    return finished(post("/api/plans/" + plan + "/runs", "").body().path("id").asLong())
        .path("id")
        .asLong();
  }

  /** Brings the rows that a run rejected back to its plan, some of them corrected. */
  private long broughtBack(long plan, long run, UnaryOperator<String> corrected) throws Exception {
    String file = taken(run, "csv").getContentAsString(StandardCharsets.UTF_8);
    Answer source = upload("back.csv", corrected.apply(file).getBytes(StandardCharsets.UTF_8));
    put(
        "/api/plans/" + plan + "/source",
        PlanJson.MAPPER.createObjectNode().put("source", source.body().path("id").asLong()));
    return run(plan);
  }

  /** The page of the first run says what each of its rows came to, however often they came back. */
  @Test
  void whatBecameOfEachRowIsTold() throws Exception {
    long plan = newPlan(marina("returned"), arrivals());
    long first = run(plan);
    JsonNode before = get("/api/runs/" + first + "/returned").body();
    int rejected = before.path("rejected").asInt();
    assertThat(rejected).isPositive();
    assertThat(before.path("back").asInt()).isZero();

    long second = broughtBack(plan, first, file -> file.replace("Ketch rig", "ketch"));
    JsonNode fates = get("/api/runs/" + first + "/returned").body();
    assertThat(fates.path("back").asInt()).isEqualTo(rejected);
    int open = fates.path("outcomes").path("rejected").asInt();
    assertThat(open).isPositive().isLessThan(rejected);
    assertThat(fates.path("fates"))
        .allSatisfy(f -> assertThat(f.path("run").asLong()).isEqualTo(second));
    assertThat(get("/api/runs/" + second + "/returned").body().path("rejected").asInt())
        .isEqualTo(open);

    // what was rejected again comes back once more, and some of it is right now
    long third = broughtBack(plan, second, file -> file.replace("gaff cutter", "cutter"));
    JsonNode last = get("/api/runs/" + first + "/returned").body();
    assertThat(last.path("back").asInt()).isEqualTo(rejected);
    assertThat(last.path("outcomes").path("rejected").asInt()).isLessThan(open);
    assertThat(last.path("fates"))
        .anySatisfy(
            f -> {
              assertThat(f.path("run").asLong()).isEqualTo(third);
              assertThat(f.path("outcome").asString()).isNotEqualTo("rejected");
            });

    // what was taken back is not there
    finished(post("/api/runs/" + third + "/undo", "{}").body().path("id").asLong());
    assertThat(
            get("/api/runs/" + first + "/returned")
                .body()
                .path("outcomes")
                .path("rejected")
                .asInt())
        .isEqualTo(open);
  }

  @Test
  void theRecordOfARehearsalCanBePutBy() throws Exception {
    long plan = newPlan(marina("records"), arrivals());
    JsonNode rehearsal =
        finished(post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong());
    long id = rehearsal.path("id").asLong();
    MockHttpServletResponse text = taken(id, "record", "csv");
    assertThat(text.getHeader("Content-Disposition"))
        .isEqualTo("attachment; filename=\"record-rehearsal-" + id + ".csv\"");
    long read = rehearsal.path("report").path("read").asLong();
    assertThat(text.getContentAsString(StandardCharsets.UTF_8).lines().count()).isEqualTo(read + 1);
    assertThat(rehearsal.path("checksum").asString()).matches("[0-9a-f]{64}");

    Answer book = upload("record.xlsx", taken(id, "record", "xlsx").getContentAsByteArray());
    assertThat(book.status()).as(book.body().toString()).isEqualTo(201);
  }

  @Test
  void whatCannotBeTakenAwayIsSaid() throws Exception {
    assertThat(get("/api/runs/999999/returns").code()).isEqualTo("no-such-run");
    assertThat(get("/api/runs/999999/returns?format=doc").code()).isEqualTo("word");
    assertThat(get("/api/runs/999999/record").code()).isEqualTo("no-such-run");
    assertThat(get("/api/runs/999999/record?format=pdf").code()).isEqualTo("word");
  }
}
