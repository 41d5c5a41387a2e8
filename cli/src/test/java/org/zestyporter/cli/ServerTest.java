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
      // tables of any name have an address, and the page shows them
      String odd = "marina/tables/Hull%2FRig%2050%25%3B%20a%3Fb%23c";
      assertThat(get(server.address() + "api/connections/" + odd).statusCode()).isEqualTo(401);
      HttpResponse<String> records =
          get(server.address() + "records/" + odd.replace("tables/", "") + "%2Fother.vessel");
      assertThat(records.statusCode()).isEqualTo(200);
      assertThat(records.body())
          .contains("<title>Zesty Porter</title>")
          .doesNotContain("PAGE_NONCE");
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
    assertThat(
            java.nio.file.attribute.PosixFilePermissions.toString(
                Files.getPosixFilePermissions(home)))
        .isEqualTo("rwx------");
  }

  /** Talks to the server as a proxy would, byte by byte. */
  private static String raw(String address, String... lines) throws IOException {
    URI uri = URI.create(address);
    try (java.net.Socket socket = new java.net.Socket("127.0.0.1", uri.getPort())) {
      socket.setSoTimeout(10_000);
      String request = String.join("\r\n", lines) + "\r\nConnection: close\r\n\r\n";
      socket.getOutputStream().write(request.getBytes(java.nio.charset.StandardCharsets.UTF_8));
      return new String(
          socket.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
    }
  }

  @Test
  void behindTlsCookiesAreSecureAndTheBrowserStaysThere() throws Exception {
    Server server = Server.start(home, 0);
    try {
      String address = server.address();
      String secure =
          raw(
              address,
              "GET /api/session HTTP/1.1",
              "Host: localhost",
              "X-Forwarded-Proto: https",
              "X-Forwarded-For: 10.0.0.7");
      assertThat(secure).contains("Strict-Transport-Security").containsPattern("XSRF.*Secure");
      String plain = raw(address, "GET /api/session HTTP/1.1", "Host: localhost");
      assertThat(plain).doesNotContain("Strict-Transport-Security").doesNotContain("; Secure");
      String page = raw(address, "GET / HTTP/1.1", "Host: localhost");
      assertThat(page)
          .contains("Referrer-Policy: no-referrer")
          .contains("base-uri 'none'")
          .contains("form-action 'self'")
          .doesNotContain("unsafe-inline");
      String nonce = page.replaceFirst("(?s).*'nonce-([^']+)'.*", "$1");
      assertThat(page).contains("nonce=\"" + nonce + "\"");
      assertThat(raw(address, "GET / HTTP/1.1", "Host: localhost"))
          .as("another word for each page")
          .doesNotContain(nonce);
    } finally {
      server.stop();
    }
  }

  @Test
  void otherNamesAreNotAnsweredTo() throws Exception {
    Server server = Server.start(home, 0);
    try {
      String told = raw(server.address(), "GET / HTTP/1.1", "Host: elsewhere.example");
      assertThat(told).startsWith("HTTP/1.1 421").contains("porter.hosts");
      assertThat(
              raw(
                  server.address(),
                  "GET /api/plans HTTP/1.1",
                  "Host: localhost",
                  "X-Forwarded-Host: elsewhere.example"))
          .as("nor if a proxy says so")
          .startsWith("HTTP/1.1 421");
      assertThat(raw(server.address(), "GET /api/plans HTTP/1.1", "Host: 127.0.0.1:8080"))
          .startsWith("HTTP/1.1 401");
    } finally {
      server.stop();
    }
    assertThat(Files.readString(home.resolve("security.log"))).contains("host-refused");
  }

  @Test
  void guessingIsToldToWaitAndLogged() throws Exception {
    Server server = Server.start(home, 0);
    try {
      String password = server.firstAccount("admin", "Administrator").orElseThrow();
      assertThat(signIn(server, "wrong")).contains("401");
      for (int i = 0; i < 5; i++) {
        signIn(server, "wrong");
      }
      assertThat(signIn(server, password))
          .startsWith("HTTP/1.1 429")
          .contains("Retry-After:")
          .contains("too many attempts");
      Thread.sleep(2_500);
      String entered = signIn(server, password);
      assertThat(entered).startsWith("HTTP/1.1 200").contains("PORTER_KNOWN=");
      assertThat(entered).containsPattern("PORTER_SESSION=.*HttpOnly").contains("SameSite=Strict");
    } finally {
      server.stop();
    }
    assertThat(Files.readString(home.resolve("security.log")))
        .contains("sign-in-failed who=admin")
        .contains("sign-in-slowed who=admin")
        .contains("sign-in who=admin")
        .doesNotContain("wrong");
  }

  private static String signIn(Server server, String password) throws IOException {
    String first = raw(server.address(), "GET /api/session HTTP/1.1", "Host: localhost");
    String token = first.replaceFirst("(?s).*XSRF-TOKEN=([^;]+);.*", "$1");
    String body = "{\"name\":\"admin\",\"password\":\"" + password + "\"}";
    URI uri = URI.create(server.address());
    try (java.net.Socket socket = new java.net.Socket("127.0.0.1", uri.getPort())) {
      String request =
          "POST /api/session HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n"
              + "Content-Type: application/json\r\nX-XSRF-TOKEN: "
              + token
              + "\r\nCookie: XSRF-TOKEN="
              + token
              + "\r\nContent-Length: "
              + body.length()
              + "\r\n\r\n"
              + body;
      socket.getOutputStream().write(request.getBytes(java.nio.charset.StandardCharsets.UTF_8));
      return new String(
          socket.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
    }
  }

  @Test
  void aStoreOfAnEarlierVersionGetsItsPassword() throws Exception {
    Files.createDirectories(home.resolve("store"));
    String url = "jdbc:h2:file:" + home.resolve("store/porter");
    java.sql.DriverManager.getConnection(url, "porter", "").close();
    Server.start(home, 0).stop();
    assertThatThrownBy(() -> java.sql.DriverManager.getConnection(url, "porter", "").close())
        .isInstanceOf(SQLException.class);
  }

  @Test
  void aDamagedKeyIsSaidSoAndNothingIsTouched() throws Exception {
    Server.start(home, 0).stop();
    Files.write(home.resolve("store.key"), new byte[0]);
    assertThatThrownBy(() -> Server.start(home, 0))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining("store.key")
        .hasMessageContaining("empty");
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
      assertThat(
              java.nio.file.attribute.PosixFilePermissions.toString(
                  Files.getPosixFilePermissions(home.resolve("sign-in.txt"))))
          .isEqualTo("rw-------");
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
