package org.zestyporter.bench;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.BufferedReader;
import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.ServerSocket;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.zestyporter.core.plan.PlanJson;
import tools.jackson.databind.JsonNode;

/**
 * Times what a browser waits for at a server of its own with a large file: opening it, rehearsing
 * it, and going through its ledger. Asserts nothing.
 */
public final class Screens {
  private static final int ROUNDS = 40;
  private static final double HIGH = 0.95;

  private final String address;
  private final CookieManager cookies = new CookieManager();
  private final HttpClient client = HttpClient.newBuilder().cookieHandler(cookies).build();

  private Screens(String address) {
    this.address = address;
  }

  /**
   * @param args how many rows, 1,000,000 if left out
   */
  public static void main(String[] args) throws IOException, SQLException, InterruptedException {
    boolean isSaid = args.length > 0 && !args[0].isBlank();
    int rows = isSaid ? Integer.parseInt(args[0]) : 1_000_000;
    Path folder = Files.createTempDirectory("porter-screens");
    Path file = folder.resolve("goods.csv");
    Goods.write(file, rows);
    int port;
    try (ServerSocket free = new ServerSocket(0)) {
      port = free.getLocalPort();
    }
    try (EmbeddedPostgres postgres = EmbeddedPostgres.builder().start()) {
      fillHalf(postgres, file);
      ProcessBuilder builder =
          new ProcessBuilder(
              Commands.porter(
                  "demo", "--home", folder.resolve("home").toString(), "--port", "" + port));
      Process server = builder.redirectErrorStream(true).start();
      try {
        Screens screens = new Screens("http://localhost:" + port);
        screens.signIn(password(server.inputReader()));
        String database = "jdbc:postgresql://localhost:" + postgres.getPort() + "/postgres";
        screens.ledger(screens.rehearsed(file, database));
      } finally {
        server.descendants().forEach(ProcessHandle::destroy);
        server.destroy();
        server.waitFor(10, TimeUnit.SECONDS);
      }
    }
  }

  /** Has every other row in the table already, a third of these with another price. */
  private static void fillHalf(EmbeddedPostgres postgres, Path file) throws SQLException {
    try (Connection connection = postgres.getPostgresDatabase().getConnection();
        Statement statement = connection.createStatement()) {
      statement.execute("CREATE TABLE goods " + Goods.TABLE);
      statement.execute("COPY goods FROM '" + file + "' CSV HEADER");
      statement.execute("DELETE FROM goods WHERE id % 2 = 1");
      statement.execute("UPDATE goods SET price = price + 1 WHERE id % 6 = 0");
      statement.execute("VACUUM ANALYZE goods");
    }
  }

  private static String password(BufferedReader printed) throws IOException {
    for (String line = printed.readLine(); line != null; line = printed.readLine()) {
      if (line.strip().startsWith("password ")) {
        return line.strip().substring("password ".length());
      }
    }
    throw new IllegalStateException("The server did not start.");
  }

  private void signIn(String password) {
    send("GET", "/api/session", null);
    send("POST", "/api/session", text("{\"name\":\"odile\",\"password\":\"" + password + "\"}"));
    send("GET", "/api/session", null);
  }

  /** The number of a rehearsal of all rows. */
  private String rehearsed(Path file, String database) throws IOException {
    send(
        "POST",
        "/api/connections",
        text(
            "{\"name\":\"goods\",\"shownName\":\"Goods\",\"url\":\""
                + database
                + "\",\"user\":\"postgres\",\"password\":\"\"}"));
    BodyPublisher bytes = BodyPublishers.ofFile(file);
    JsonNode source = once("the file", () -> send("POST", "/api/sources?name=goods.csv", bytes));
    String wanted =
        "{\"source\":" + source.path("id") + ",\"connection\":\"goods\",\"table\":\"goods\"}";
    String plan =
        once("a new plan", () -> send("POST", "/api/plans", text(wanted))).path("id").asString();
    once("the plan's first view", () -> send("GET", "/api/plans/" + plan, null));
    once("the plan's view", () -> send("GET", "/api/plans/" + plan, null));
    return once("a rehearsal", () -> finished("/api/plans/" + plan + "/rehearsals"))
        .path("id")
        .asString();
  }

  private JsonNode finished(String path) {
    JsonNode run = send("POST", path, text("{}"));
    while (run.path("state").asString().equals("going")) {
      try {
        Thread.sleep(50);
      } catch (InterruptedException e) {
        throw new IllegalStateException(e);
      }
      run = send("GET", "/api/runs/" + run.path("id").asString(), null);
    }
    return run;
  }

  private void ledger(String run) {
    String path = "/api/runs/" + run + "/ledger?destination=0&limit=100&offset=";
    Random random = new Random(4);
    windows("windows of all rows", path, "", random);
    windows("windows of those of an outcome", path, "&outcome=changed", random);
    windows("windows of those with a word", path, "&search=anchor", random);
    windows("windows of those that change a field", path, "&changed=price", random);
    times(
        "a word that nobody looked for",
        () -> send("GET", path + "0&search=" + word(random), null));
    times(
        "a number that nobody looked for",
        () -> send("GET", path + "0&search=" + (10_000 + random.nextInt(900_000)), null));
    times(
        "a problem that nobody looked for",
        () -> send("GET", path + "0&problem=cut&field=" + word(random), null));
    once("what becomes of each field", () -> send("GET", fields(run), null));
  }

  private static String fields(String run) {
    return "/api/runs/" + run + "/fields?destination=0";
  }

  private static String word(Random random) {
    String word = "keel " + (char) ('a' + random.nextInt(26)) + (char) ('a' + random.nextInt(26));
    return URLEncoder.encode(word + random.nextInt(10), StandardCharsets.UTF_8);
  }

  private void windows(String what, String path, String filter, Random random) {
    int total = send("GET", path + 0 + filter, null).path("total").asInt();
    times(what, () -> send("GET", path + random.nextInt(Math.max(1, total)) + filter, null));
  }

  private void times(String what, Supplier<JsonNode> deed) {
    List<Double> times = new ArrayList<>();
    for (int round = 0; round < ROUNDS; round++) {
      long started = System.nanoTime();
      deed.get();
      times.add((System.nanoTime() - started) / 1e9);
    }
    times.sort(Double::compare);
    System.out.printf(
        Locale.ROOT,
        "%-40s median %6.3f s, 95 of 100 %6.3f s%n",
        what,
        times.get(ROUNDS / 2),
        times.get((int) (ROUNDS * HIGH)));
  }

  private JsonNode once(String what, Supplier<JsonNode> deed) {
    long started = System.nanoTime();
    JsonNode answer = deed.get();
    System.out.printf(Locale.ROOT, "%-40s %6.2f s%n", what, (System.nanoTime() - started) / 1e9);
    return answer;
  }

  private static BodyPublisher text(String json) {
    return BodyPublishers.ofString(json);
  }

  private JsonNode send(String method, String path, BodyPublisher body) {
    boolean isFile = path.startsWith("/api/sources");
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(address + path))
            .header("Content-Type", isFile ? "application/octet-stream" : "application/json")
            .method(method, body == null ? BodyPublishers.noBody() : body);
    for (HttpCookie cookie : cookies.getCookieStore().getCookies()) {
      if (cookie.getName().equals("XSRF-TOKEN")) {
        request.header("X-XSRF-TOKEN", cookie.getValue());
      }
    }
    try {
      var answer = client.send(request.build(), BodyHandlers.ofString());
      if (answer.statusCode() >= 400 && !path.equals("/api/session")) {
        throw new IllegalStateException(path + ": " + answer.body());
      }
      return answer.body().isBlank() ? null : PlanJson.MAPPER.readTree(answer.body());
    } catch (IOException | InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }
}
