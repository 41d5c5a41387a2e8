package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Map;
import java.util.function.Consumer;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.webmvc.test.autoconfigure.AutoConfigureMockMvc;
import org.springframework.boot.webmvc.test.autoconfigure.MockMvcPrint;
import org.springframework.http.MediaType;
import org.springframework.security.test.context.support.WithMockUser;
import org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.MvcResult;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.demo.Marina;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The server with a marina in H2, shared by the tests that talk to it. */
@SpringBootTest(classes = PorterServer.class)
@AutoConfigureMockMvc(print = MockMvcPrint.NONE)
@WithMockUser(username = "odile")
abstract class ServerTest {
  static final Path HOME = temporary();
  static final Marina MARINA = Marina.open();

  @Autowired MockMvc mvc;

  @DynamicPropertySource
  static void home(DynamicPropertyRegistry registry) {
    registry.add("porter.home", HOME::toString);
    registry.add("porter.upload-limit", () -> "3MB");
    registry.add("porter.database-folders", HOME::toString);
  }

  private static Path temporary() {
    try {
      Path home = Files.createTempDirectory("porter-test");
      home.toFile().deleteOnExit();
      return home;
    } catch (IOException e) {
      throw new IllegalStateException(e);
    }
  }

  /** An answer of the server. */
  record Answer(int status, JsonNode body) {
    String code() {
      return body.path("code").asString();
    }
  }

  Answer get(String path, Object... variables) throws Exception {
    return send(MockMvcRequestBuilders.get(path, variables));
  }

  Answer post(String path, Object body) throws Exception {
    return send(json(MockMvcRequestBuilders.post(path), body));
  }

  Answer put(String path, Object body) throws Exception {
    return send(json(MockMvcRequestBuilders.put(path), body));
  }

  private static MockHttpServletRequestBuilder json(
      MockHttpServletRequestBuilder request, Object body) {
    return request
        .contentType(MediaType.APPLICATION_JSON)
        .content(body instanceof String s ? s : PlanJson.MAPPER.writeValueAsString(body));
  }

  /** Saves a plan changed; it has to be taken. */
  JsonNode save(long plan, Consumer<ObjectNode> change) throws Exception {
    JsonNode view = get("/api/plans/" + plan).body();
    ObjectNode document = (ObjectNode) view.path("plan").deepCopy();
    change.accept(document);
    Answer answer =
        put(
            "/api/plans/" + plan,
            Map.of("revision", view.path("revision").asInt(), "plan", document));
    assertThat(answer.status()).as(answer.body().toString()).isEqualTo(200);
    return answer.body();
  }

  /** A plan for the vessels of a connection, made for a file. */
  long plan(String connection, String content) throws Exception {
    long source =
        upload("boats.csv", content.getBytes(StandardCharsets.UTF_8)).body().path("id").asLong();
    return post("/api/plans", Map.of("source", source, "connection", connection, "table", "vessel"))
        .body()
        .path("id")
        .asLong();
  }

  Answer upload(String name, byte[] bytes) throws Exception {
    return send(
        MockMvcRequestBuilders.post("/api/sources")
            .param("name", name)
            .contentType(MediaType.APPLICATION_OCTET_STREAM)
            .content(bytes));
  }

  /** A file once it is read, which an upload waits for only a moment. */
  JsonNode read(long source) throws Exception {
    JsonNode file = get("/api/sources/" + source).body();
    for (int i = 0; i < 300 && file.path("rows").asLong() < 0; i++) {
      Thread.sleep(50);
      file = get("/api/sources/" + source).body();
    }
    return file;
  }

  Answer send(MockHttpServletRequestBuilder request) throws Exception {
    MvcResult result =
        mvc.perform(request.with(SecurityMockMvcRequestPostProcessors.csrf())).andReturn();
    String text = result.getResponse().getContentAsString();
    JsonNode body =
        text.isEmpty() ? PlanJson.MAPPER.createObjectNode() : PlanJson.MAPPER.readTree(text);
    return new Answer(result.getResponse().getStatus(), body);
  }

  static byte[] arrivals() throws IOException {
    Path file = Files.createTempFile("winter-arrivals", ".xlsx");
    MARINA.arrivals().writeWorkbook(file);
    byte[] bytes = Files.readAllBytes(file);
    Files.delete(file);
    return bytes;
  }

  /** Makes a marina of its own and the connection to it. */
  String marina(String name) throws Exception {
    String url = "jdbc:h2:file:" + HOME.resolve(name) + ";DATABASE_TO_LOWER=TRUE";
    build(url);
    Answer answer =
        post(
            "/api/connections",
            PlanJson.MAPPER
                .createObjectNode()
                .put("name", name)
                .put("shownName", "Quillhaven Marina")
                .put("url", url)
                .put("user", "sa")
                .put("password", ""));
    if (answer.status() != 201) {
      throw new IllegalStateException(answer.body().toString());
    }
    return name;
  }

  static Connection connect(String marina) throws SQLException {
    return DriverManager.getConnection(
        "jdbc:h2:file:" + HOME.resolve(marina) + ";DATABASE_TO_LOWER=TRUE", "sa", "");
  }

  static void execute(String marina, String sql) throws SQLException {
    try (Connection connection = connect(marina);
        Statement statement = connection.createStatement()) {
      statement.execute(sql);
    }
  }

  private static void build(String url) throws SQLException {
    try (Connection connection = DriverManager.getConnection(url, "sa", "")) {
      MARINA.build(connection);
    }
  }

  /** Waits until a rehearsal or run is done and gives it. */
  JsonNode finished(long id) throws Exception {
    for (int i = 0; i < 300; i++) {
      JsonNode run = get("/api/runs/" + id).body();
      String state = run.path("state").asString();
      if (!state.equals("going") && !state.equals("committing")) {
        return run;
      }
      Thread.sleep(50);
    }
    throw new IllegalStateException("it did not finish");
  }

  long newPlan(String connection, byte[] file) throws Exception {
    long source = upload("winter-arrivals.xlsx", file).body().path("id").asLong();
    return post(
            "/api/plans",
            PlanJson.MAPPER
                .createObjectNode()
                .put("source", source)
                .put("connection", connection)
                .put("table", "vessel"))
        .body()
        .path("id")
        .asLong();
  }
}
