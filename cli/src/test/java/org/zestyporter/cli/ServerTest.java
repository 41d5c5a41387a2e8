package org.zestyporter.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.demo.Marina;

/** The server as serve and demo start it. */
class ServerTest {
  @TempDir Path home;

  private static HttpResponse<String> get(String address) throws IOException, InterruptedException {
    return HttpClient.newHttpClient()
        .send(
            HttpRequest.newBuilder(URI.create(address)).build(),
            HttpResponse.BodyHandlers.ofString());
  }

  @Test
  void ownDataFolderGetsOneFirstPasswordAndKeepsIt() throws Exception {
    Server server = Server.start(home, 0);
    try {
      assertThat(server.firstAccount("admin", "Administrator")).isPresent();
      assertThat(server.firstAccount("admin", "Administrator")).isEmpty();
      HttpResponse<String> page = get(server.address() + "plans/1/fill");
      assertThat(page.statusCode()).isEqualTo(200);
      assertThat(page.body()).contains("<title>Zesty Porter</title>");
      assertThat(get(server.address() + "api/plans").statusCode()).isEqualTo(401);
      assertThat(get(server.address() + "assets/none.js").statusCode()).isEqualTo(404);
    } finally {
      server.stop();
    }
    Server again = Server.start(home, 0);
    try {
      assertThat(again.firstAccount("admin", "Administrator")).isEmpty();
    } finally {
      again.stop();
    }
    assertThat(Files.exists(home.resolve("store/porter.mv.db"))).isTrue();
  }

  @Test
  void portThatIsTakenIsNamed() throws IOException {
    try (ServerSocket taken = new ServerSocket(0, 1, java.net.InetAddress.getByName("127.0.0.1"))) {
      assertThatThrownBy(() -> Server.start(home, taken.getLocalPort()))
          .isInstanceOf(PorterException.class)
          .hasMessageContaining("--port");
    }
  }

  @Test
  void demonstrationHasItsMarinaFilesAndSignIn() throws IOException, SQLException {
    String password;
    try (Demo demo = Demo.start(home, 0)) {
      password = demo.password();
      assertThat(password).hasSize(14);
      assertThat(demo.files().resolve("winter-arrivals.xlsx")).isNotEmptyFile();
      demo.writeLarge(2_000);
      assertThat(Files.readAllLines(demo.files().resolve("arrivals-2000.csv"))).hasSize(2_001);
    }
    try (Demo again = Demo.start(home, 0)) {
      assertThat(again.password()).as("the same folder, the same sign-in").isEqualTo(password);
    }
  }

  @Test
  void marinaIsTheSameOnEveryMachine() throws IOException {
    Path one = home.resolve("one.csv");
    Path two = home.resolve("two.csv");
    Marina.open().arrivals().writeText(one);
    Marina.open().arrivals().writeText(two);
    assertThat(one).hasSameTextualContentAs(two);
    assertThat(Marina.open().arrivals().facts()).isEqualTo(Marina.open().arrivals().facts());
    assertThat(Files.readAllLines(one).get(1)).startsWith("QH-2292;Silver Wren;cutter;50,5;11;");
  }
}
