package org.zestyporter.cli;

import java.io.IOException;
import java.net.CookieManager;
import java.net.CookiePolicy;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;

/** Signs in at a demonstration of its own once, as {@link ReadyCommand} uses the commands. */
final class ReadyServerCommand extends Command {
  private Path folder;

  ReadyServerCommand() {
    super("ready-server", "Uses the server once; for the launcher.");
    parameter("FOLDER", word -> folder = path(word));
  }

  @Override
  int call() throws IOException, SQLException {
    try (Demo demo = Demo.start(folder, 0)) {
      CookieManager cookies = new CookieManager(null, CookiePolicy.ACCEPT_ALL);
      HttpClient client = HttpClient.newBuilder().cookieHandler(cookies).build();
      URI start = URI.create(demo.address());
      send(client, HttpRequest.newBuilder(start));
      String token =
          cookies.getCookieStore().getCookies().stream()
              .filter(c -> c.getName().equals("XSRF-TOKEN"))
              .map(HttpCookie::getValue)
              .findFirst()
              .orElse("");
      String told = "{\"name\": \"" + Demo.NAME + "\", \"password\": \"" + demo.password() + "\"}";
      send(
          client,
          HttpRequest.newBuilder(start.resolve("api/session"))
              .header("Content-Type", "application/json")
              .header("X-XSRF-TOKEN", token)
              .POST(BodyPublishers.ofString(told)));
      for (String first :
          List.of("session", "connections", "plans", "runs", "sources", "going-on")) {
        send(client, HttpRequest.newBuilder(start.resolve("api/" + first)));
      }
    }
    return Porter.DONE;
  }

  private static void send(HttpClient client, HttpRequest.Builder request) throws IOException {
    try {
      HttpResponse<Void> answer = client.send(request.build(), BodyHandlers.discarding());
      if (answer.statusCode() >= 400) {
        throw new IllegalStateException(answer.uri() + " answered " + answer.statusCode());
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
