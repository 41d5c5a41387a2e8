package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.asyncDispatch;

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
    MvcResult begun =
        mvc.perform(MockMvcRequestBuilders.get("/api/runs/" + run + "/returns?format=" + format))
            .andReturn();
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

  @Test
  void whatCannotBeTakenAwayIsSaid() throws Exception {
    assertThat(get("/api/runs/999999/returns").code()).isEqualTo("no-such-run");
    assertThat(get("/api/runs/999999/returns?format=doc").code()).isEqualTo("word");
  }
}
