package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.KeyStore;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.Base64;
import java.util.List;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.application.jdbc.MariaServer;
import org.zestyporter.core.plan.PlanJson;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Connections that may only read, offer some tables, or trust an authority of their own. */
class ConnectionSettingsTest extends ServerTest {
  private static final String PASSWORD = "changeit";

  @TempDir Path folder;

  private static ObjectNode connection(String name, String url, String user) {
    return PlanJson.MAPPER
        .createObjectNode()
        .put("name", name)
        .put("shownName", "Theirs")
        .put("url", url)
        .put("user", user)
        .put("password", user.equals("sa") ? "" : user);
  }

  private static List<String> names(JsonNode all, String field) {
    return StreamSupport.stream(all.spliterator(), false)
        .map(n -> n.path(field).asString())
        .toList();
  }

  private ObjectNode changed(String marina, ObjectNode settings) throws Exception {
    String url = "jdbc:h2:file:" + HOME.resolve(marina) + ";DATABASE_TO_LOWER=TRUE";
    ObjectNode wanted = connection(marina, url, "sa");
    wanted.set("settings", settings);
    Answer answer = put("/api/connections/" + marina, wanted);
    assertThat(answer.status()).as(answer.body().toString()).isEqualTo(200);
    return (ObjectNode) answer.body();
  }

  @Test
  void nothingIsWrittenThroughOneThatOnlyReads() throws Exception {
    String marina = marina("reading");
    long plan = newPlan(marina, arrivals());
    JsonNode run = finished(post("/api/plans/" + plan + "/runs", "").body().path("id").asLong());
    assertThat(run.path("state").asString()).isEqualTo("done");
    changed(marina, PlanJson.MAPPER.createObjectNode().put("readOnly", true));
    assertThat(get("/api/connections").body().toString()).contains("\"readOnly\":true");

    JsonNode rehearsal =
        finished(post("/api/plans/" + plan + "/rehearsals", "").body().path("id").asLong());
    assertThat(rehearsal.path("state").asString()).as(rehearsal.toString()).isEqualTo("done");
    Answer refused = post("/api/plans/" + plan + "/runs", "");
    assertThat(refused.status()).isEqualTo(409);
    assertThat(refused.code()).isEqualTo("read-only");
    long id = run.path("id").asLong();
    assertThat(get("/api/runs/" + id + "/undo").status()).as("what it would do").isEqualTo(200);
    ObjectNode keep = PlanJson.MAPPER.createObjectNode().put("edited", "keep");
    assertThat(post("/api/runs/" + id + "/undo", keep).code()).isEqualTo("read-only");
  }

  @Test
  void onlySomeTablesAreOffered() throws Exception {
    String marina = marina("some-tables");
    ObjectNode settings = PlanJson.MAPPER.createObjectNode();
    settings.putArray("tables").add("VESSEL*").add("public.pontoon");
    changed(marina, settings);
    assertThat(names(get("/api/connections/" + marina + "/tables").body(), "name"))
        .containsExactly("pontoon", "vessel", "vessel_type");
    Answer owner = get("/api/connections/" + marina + "/tables/owner/records");
    assertThat(owner.code()).isEqualTo("no-such-table");
    assertThat(owner.body().path("detail").asString()).contains("that this connection offers");
    JsonNode fields = get("/api/plans/" + newPlan(marina, arrivals())).body().path("table");
    String text = fields.toString();
    assertThat(text).contains("vessel_type").doesNotContain("\"table\":\"owner\"");
  }

  @Test
  void oddSettingsAreRefused() throws Exception {
    String marina = marina("odd-settings");
    for (String odd :
        List.of(
            "{\"statementSeconds\":0}",
            "{\"lockSeconds\":-1}",
            "{\"atATime\":1}",
            "{\"tables\":[\"\"]}",
            "{\"certificate\":7.5e9999}")) {
      ObjectNode wanted = connection(marina, "jdbc:h2:file:" + HOME.resolve(marina), "sa");
      String body = wanted.toString().replaceFirst("}$", ",\"settings\":" + odd + "}");
      assertThat(put("/api/connections/" + marina, body).status()).as(odd).isIn(400, 422);
    }
    ObjectNode wanted = connection(marina, "jdbc:h2:file:" + HOME.resolve(marina), "sa");
    wanted.putObject("settings").put("certificate", "x");
    Answer unverified = put("/api/connections/" + marina, wanted);
    assertThat(unverified.code()).isEqualTo("certificate");
    assertThat(unverified.body().path("detail").asString()).contains("where TLS verifies");
  }

  /** A key and a certificate for this machine that vouches for itself. */
  private String certificate() throws Exception {
    Path store = folder.resolve("keys.p12");
    Files.deleteIfExists(store);
    Process made =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "keytool").toString(),
                "-genkeypair",
                "-alias",
                "db",
                "-keyalg",
                "RSA",
                "-dname",
                "CN=localhost",
                "-ext",
                "san=dns:localhost,ip:127.0.0.1",
                "-storetype",
                "PKCS12",
                "-keystore",
                store.toString(),
                "-storepass",
                PASSWORD)
            .inheritIO()
            .start();
    assertThat(made.waitFor()).isZero();
    KeyStore keys = KeyStore.getInstance("PKCS12");
    try (InputStream in = Files.newInputStream(store)) {
      keys.load(in, PASSWORD.toCharArray());
    }
    pem("db.key", "PRIVATE KEY", keys.getKey("db", PASSWORD.toCharArray()).getEncoded());
    return pem("db.crt", "CERTIFICATE", keys.getCertificate("db").getEncoded());
  }

  private String pem(String name, String kind, byte[] bytes) throws IOException {
    String text =
        "-----BEGIN "
            + kind
            + "-----\n"
            + Base64.getMimeEncoder(64, "\n".getBytes()).encodeToString(bytes)
            + "\n-----END "
            + kind
            + "-----\n";
    Path file = Files.writeString(folder.resolve(name), text);
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
    return text;
  }

  @Test
  void anAuthorityOfOnesOwnIsTrusted() throws Exception {
    String other = certificate();
    String certificate = certificate();
    try (EmbeddedPostgres postgres =
        EmbeddedPostgres.builder()
            .setServerConfig("ssl", "on")
            .setServerConfig("ssl_cert_file", folder.resolve("db.crt").toString())
            .setServerConfig("ssl_key_file", folder.resolve("db.key").toString())
            .start()) {
      String url =
          "jdbc:postgresql://localhost:" + postgres.getPort() + "/postgres?sslmode=verify-full";
      isTrusted(connection("vouched", url, "postgres"), certificate, other);
    }
  }

  @Test
  void anAuthorityOfOnesOwnIsTrustedByMariaDb() throws Exception {
    if (!MariaServer.isWanted()) {
      return;
    }
    String other = certificate();
    String certificate = certificate();
    try (MariaServer maria =
        MariaServer.start(
            "--ssl-cert=" + folder.resolve("db.crt"), "--ssl-key=" + folder.resolve("db.key"))) {
      try (Connection root = DriverManager.getConnection(maria.url("mysql"), "root", "");
          Statement statement = root.createStatement()) {
        statement.execute("CREATE DATABASE harbour");
        statement.execute("GRANT ALL ON harbour.* TO 'skipper'@'%' IDENTIFIED BY 'skipper'");
        statement.execute("CREATE USER 'sa'@'%'");
        statement.execute("GRANT ALL ON harbour.* TO 'sa'@'%'");
      }
      String url = maria.url("harbour") + "?sslMode=verify-full";
      isTrusted(connection("vouched-too", url, "skipper"), certificate, other);
      // without a password the driver says it in other words
      assertThat(post("/api/connections", connection("unknown", url, "sa")).code())
          .isEqualTo("database-tls");
    }
  }

  /** A connection is made to a server that a certificate vouches for, and to no other. */
  private void isTrusted(ObjectNode wanted, String certificate, String other) throws Exception {
    Answer unknown = post("/api/connections", wanted);
    assertThat(unknown.status()).as(unknown.body().toString()).isEqualTo(502);
    assertThat(unknown.code()).as(unknown.body().toString()).isEqualTo("database-tls");

    wanted.putObject("settings").put("certificate", other);
    assertThat(post("/api/connections", wanted).code()).isEqualTo("database-tls");

    wanted.putObject("settings").put("certificate", "no certificate");
    assertThat(post("/api/connections", wanted).code()).isEqualTo("certificate");

    wanted.putObject("settings").put("certificate", certificate);
    Answer kept = post("/api/connections", wanted);
    assertThat(kept.status()).as(kept.body().toString()).isEqualTo(201);
    // by the pool too
    String name = wanted.path("name").asString();
    assertThat(get("/api/connections/" + name + "/tables").status()).isEqualTo(200);
  }
}
