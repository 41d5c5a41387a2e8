package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.Filter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.HttpMethod;
import org.springframework.http.MediaType;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;
import org.springframework.test.web.servlet.setup.MockMvcBuilders;
import org.springframework.web.context.WebApplicationContext;
import org.zestyporter.core.plan.PlanJson;
import tools.jackson.databind.JsonNode;

/**
 * Every endpoint of the OpenAPI document with no session, no token, a wrong token, and signed in
 * with things that are not there. The list is made from the document, which another test holds
 * against the server, so no endpoint can be forgotten.
 */
class EndpointMatrixTest extends ServerTest {
  private static final Set<String> CHANGING = Set.of("post", "put", "delete", "patch");
  private static final Map<String, String> ODD_NUMBERS =
      Map.of("limit", "-1", "offset", "-5", "count", "-7", "from", "-9", "pairs", "-2");

  @Autowired WebApplicationContext context;

  /** An endpoint of the document. */
  record Endpoint(String method, String path, JsonNode operation) {
    @Override
    public String toString() {
      return method.toUpperCase(java.util.Locale.ROOT) + " " + path;
    }

    boolean isSignIn() {
      return path.equals("/api/session") && method.equals("post");
    }

    boolean changes() {
      return CHANGING.contains(method);
    }

    MockHttpServletRequestBuilder request(String part) {
      String filled = path.replaceAll("\\{[^}]+}", part);
      MockHttpServletRequestBuilder request =
          MockMvcRequestBuilders.request(
                  HttpMethod.valueOf(method.toUpperCase(java.util.Locale.ROOT)), filled)
              .accept(MediaType.ALL);
      for (JsonNode parameter : operation.path("parameters")) {
        if (parameter.path("in").asString().equals("query")) {
          String type = parameter.path("schema").path("type").asString();
          request.param(parameter.path("name").asString(), type.equals("integer") ? "1" : "x");
        }
      }
      JsonNode content = operation.path("requestBody").path("content");
      if (!content.isMissingNode()) {
        boolean bytes = content.has("application/octet-stream");
        request
            .contentType(bytes ? MediaType.APPLICATION_OCTET_STREAM : MediaType.APPLICATION_JSON)
            .content(bytes ? "a;b\n1;2\n" : "{}");
      }
      return request;
    }
  }

  static Stream<Endpoint> endpoints() throws IOException {
    JsonNode document =
        PlanJson.MAPPER.readTree(Files.readString(Path.of("..", "web", "openapi.json")));
    List<Endpoint> all = new ArrayList<>();
    for (Map.Entry<String, JsonNode> path : document.path("paths").properties()) {
      for (Map.Entry<String, JsonNode> operation : path.getValue().properties()) {
        all.add(new Endpoint(operation.getKey(), path.getKey(), operation.getValue()));
      }
    }
    return all.stream();
  }

  static Stream<Endpoint> changing() throws IOException {
    return endpoints().filter(Endpoint::changes);
  }

  /** Knows of nobody but the session, as in real life. */
  private MockMvc bare() {
    return MockMvcBuilders.webAppContextSetup(context)
        .addFilters(context.getBean("springSecurityFilterChain", Filter.class))
        .build();
  }

  @Test
  void thereAreEndpoints() throws IOException {
    assertThat(endpoints()).hasSizeGreaterThan(60);
    assertThat(changing()).hasSizeGreaterThan(25);
  }

  @ParameterizedTest
  @MethodSource("endpoints")
  void withoutASessionNothingIsToldOrDone(Endpoint endpoint) throws Exception {
    MockHttpServletResponse answer =
        bare()
            .perform(endpoint.request("1").with(SecurityMockMvcRequestPostProcessors.csrf()))
            .andReturn()
            .getResponse();
    if (endpoint.isSignIn()) {
      assertThat(answer.getStatus()).isEqualTo(422);
    } else {
      assertThat(answer.getStatus()).isEqualTo(401);
      assertThat(answer.getContentAsString()).contains("signed-out");
    }
  }

  @ParameterizedTest
  @MethodSource("changing")
  void withoutATokenNothingIsDone(Endpoint endpoint) throws Exception {
    MockHttpServletResponse answer = mvc.perform(endpoint.request("1")).andReturn().getResponse();
    assertThat(answer.getStatus()).isEqualTo(403);
    assertThat(answer.getContentAsString()).contains("stale-page");
  }

  @ParameterizedTest
  @MethodSource("changing")
  void withAWrongTokenNothingIsDone(Endpoint endpoint) throws Exception {
    MockHttpServletResponse answer =
        mvc.perform(
                endpoint
                    .request("1")
                    .with(SecurityMockMvcRequestPostProcessors.csrf().useInvalidToken()))
            .andReturn()
            .getResponse();
    assertThat(answer.getStatus()).isEqualTo(403);
  }

  /**
   * Signed in, asking for what there is not and with bodies of nothing: never the server's fault.
   */
  @ParameterizedTest
  @MethodSource("endpoints")
  void signedInWhatMakesNoSenseIsSaidSo(Endpoint endpoint) throws Exception {
    for (String part : List.of("999999", "-1", "no%20such", "x".repeat(3_000), "'")) {
      MockHttpServletResponse answer =
          mvc.perform(endpoint.request(part).with(SecurityMockMvcRequestPostProcessors.csrf()))
              .andReturn()
              .getResponse();
      assertThat(answer.getStatus())
          .as(endpoint + " with " + part + ": " + answer.getContentAsString())
          .isLessThan(500);
      if (answer.getStatus() >= 400) {
        JsonNode body = PlanJson.MAPPER.readTree(answer.getContentAsString());
        assertThat(body.path("detail").asString()).matches("(?s)\\p{Lu}.*\\.");
        assertThat(body.path("code").asString()).isNotEmpty();
      }
    }
  }

  /** Numbers beyond reason in the query of every endpoint that takes them. */
  @ParameterizedTest
  @MethodSource("endpoints")
  void oddNumbersAreNoServerErrors(Endpoint endpoint) throws Exception {
    String marina = endpoint.path().contains("{connection}") ? shared() : "1";
    for (JsonNode parameter : endpoint.operation().path("parameters")) {
      String name = parameter.path("name").asString();
      if (!ODD_NUMBERS.containsKey(name)) {
        continue;
      }
      for (String odd : List.of(ODD_NUMBERS.get(name), "99999999999999999999", "2147483647")) {
        String path =
            endpoint
                .path()
                .replace("{connection}", marina)
                .replace("{table}", "vessel")
                .replaceAll("\\{[^}]+}", "1");
        MockHttpServletResponse answer =
            mvc.perform(MockMvcRequestBuilders.get(path).param(name, odd))
                .andReturn()
                .getResponse();
        assertThat(answer.getStatus())
            .as(endpoint + " " + name + "=" + odd + ": " + answer.getContentAsString())
            .isLessThan(500);
      }
    }
  }

  private static String made;

  private String shared() throws Exception {
    if (made == null) {
      made = marina("matrix");
    }
    return made;
  }
}
