package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.Filter;
import java.net.URI;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.MediaType;
import org.springframework.mock.web.MockHttpSession;
import org.springframework.security.test.context.support.WithAnonymousUser;
import org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.MvcResult;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;
import org.springframework.test.web.servlet.setup.MockMvcBuilders;
import org.springframework.web.context.WebApplicationContext;
import org.zestyporter.server.account.AccountService;

/** Everything is closed until somebody has signed in. */
@WithAnonymousUser
class SecurityTest extends ServerTest {
  @Autowired AccountService accounts;
  @Autowired WebApplicationContext context;

  @ParameterizedTest
  @ValueSource(
      strings = {
        "/api/session",
        "/api/plans",
        "/api/plans/1",
        "/api/runs",
        "/api/runs/1/ledger",
        "/api/going-on/events",
        "/api/sources/1",
        "/api/connections",
        "/api/connections/marina/tables/vessel/records",
        "/api/nothing-of-that-name",
        "/v3/api-docs"
      })
  void nothingIsToldToStrangers(String path) throws Exception {
    Answer answer = get(path);
    assertThat(answer.status()).isEqualTo(401);
    assertThat(answer.code()).isEqualTo("signed-out");
    assertThat(answer.body().path("detail").asString()).contains("Sign in");
  }

  /** A table may have any name, and its address is taken though it holds odd signs. */
  @ParameterizedTest
  @ValueSource(strings = {"a%2Fb", "50%25", "a%3Bb", "a%3Fb%23c", "other.vessel"})
  void addressesOfTablesHoldAnySign(String name) throws Exception {
    Answer answer =
        send(MockMvcRequestBuilders.get(URI.create("/api/connections/marina/tables/" + name)));
    assertThat(answer.status()).isEqualTo(401);
    MvcResult page =
        mvc.perform(MockMvcRequestBuilders.get(URI.create("/records/marina/" + name))).andReturn();
    assertThat(page.getResponse().getForwardedUrl()).isEqualTo("/index.html");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "/api/plans%2F1",
        "/api/plans/1;a=b",
        "/records/marina/a;b",
        "/api/connections/marina/tables/../plans",
        "/assets/..%2F..%2Fapplication.yml",
        "/api/connections/a%2Fb/tables/c"
      })
  void otherOddAddressesAreRefused(String address) throws Exception {
    Answer answer = send(MockMvcRequestBuilders.get(URI.create(address)));
    assertThat(answer.status()).isEqualTo(400);
    assertThat(answer.code()).isEqualTo("odd-address");
  }

  @Test
  void strangersCannotUpload() throws Exception {
    assertThat(upload("a.csv", "a;b\n1;2\n".getBytes()).status()).isEqualTo(401);
  }

  @Test
  void requestsWithoutTheTokenAreRefused() throws Exception {
    MvcResult result =
        mvc.perform(
                MockMvcRequestBuilders.post("/api/session")
                    .contentType(MediaType.APPLICATION_JSON)
                    .content("{\"name\":\"a\",\"password\":\"b\"}"))
            .andReturn();
    assertThat(result.getResponse().getStatus()).isEqualTo(403);
    assertThat(result.getResponse().getContentAsString()).contains("stale-page");
  }

  @Test
  void firstAccountIsMadeOnceAndSignsIn() throws Exception {
    String password = accounts.createFirst("Odile", "Odile Brask").orElseThrow();
    assertThat(password).hasSize(14);
    assertThat(accounts.createFirst("other", "Other")).isEmpty();

    Answer wrong = post("/api/session", "{\"name\":\"odile\",\"password\":\"" + password + "x\"}");
    assertThat(wrong.status()).isEqualTo(401);
    assertThat(wrong.code()).isEqualTo("wrong-password");
    Answer nobody = post("/api/session", "{\"name\":\"nobody\",\"password\":\"x\"}");
    assertThat(nobody.body()).as("a name is not given away").isEqualTo(wrong.body());
    assertThat(post("/api/session", "{\"name\":\"\",\"password\":\"\"}").status()).isEqualTo(422);

    MvcResult right =
        bare()
            .perform(
                MockMvcRequestBuilders.post("/api/session")
                    .with(SecurityMockMvcRequestPostProcessors.csrf())
                    .contentType(MediaType.APPLICATION_JSON)
                    .content("{\"name\":\" ODILE \",\"password\":\"" + password + "\"}"))
            .andReturn();
    assertThat(right.getResponse().getStatus()).isEqualTo(200);
    assertThat(right.getResponse().getContentAsString())
        .contains("Odile Brask")
        .doesNotContain(password);
    MockHttpSession session = (MockHttpSession) right.getRequest().getSession();
    assertThat(status(MockMvcRequestBuilders.get("/api/plans").session(session))).isEqualTo(200);
    assertThat(status(MockMvcRequestBuilders.delete("/api/session").session(session)))
        .isEqualTo(204);
    assertThat(session.isInvalid()).isTrue();
    assertThat(status(MockMvcRequestBuilders.get("/api/plans"))).isEqualTo(401);
  }

  /** Knows of nobody but the session, as in real life. */
  private MockMvc bare() {
    return MockMvcBuilders.webAppContextSetup(context)
        .addFilters(context.getBean("springSecurityFilterChain", Filter.class))
        .build();
  }

  private int status(MockHttpServletRequestBuilder request) throws Exception {
    return bare()
        .perform(request.with(SecurityMockMvcRequestPostProcessors.csrf()))
        .andReturn()
        .getResponse()
        .getStatus();
  }

  @Test
  void pagesGoWithTheHeadersThatKeepThemSafe() throws Exception {
    var response = mvc.perform(MockMvcRequestBuilders.get("/api/plans")).andReturn().getResponse();
    assertThat(
            List.of(
                response.getHeader("Content-Security-Policy"),
                response.getHeader("X-Content-Type-Options")))
        .anySatisfy(h -> assertThat(h).contains("default-src 'self'"))
        .contains("nosniff");
  }
}
