package org.zestyporter.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HexFormat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.plan.PlanJson;
import tools.jackson.databind.JsonNode;

/** No address of a database runs code, touches files or leads anywhere but to a database. */
class AddressesTest extends ServerTest {

  private Answer add(String url, String user, String password) throws Exception {
    return post(
        "/api/connections",
        PlanJson.MAPPER
            .createObjectNode()
            .put("name", "c" + System.nanoTime() % 1_000_000_000)
            .put("shownName", "Theirs")
            .put("url", url)
            .put("user", user)
            .put("password", password));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "jdbc:h2:mem:a;INIT=CREATE ALIAS EX AS 'void e() throws Exception {}'\\;CALL EX()",
        "jdbc:h2:mem:a;init=RUNSCRIPT FROM 'http://127.0.0.1/x.sql'",
        "jdbc:h2:mem:a",
        "jdbc:h2:HOME/ok; INIT = RUNSCRIPT FROM '/x'",
        "jdbc:h2:file:HOME/ok;TRACE_LEVEL_FILE=4",
        "jdbc:h2:file:HOME/ok;CACHE_TYPE=TQ",
        "jdbc:h2:file:HOME/ok;CIPHER=AES",
        "jdbc:h2:file:HOME/ok;AUTO_SERVER=TRUE",
        "jdbc:h2:file:HOME/ok;DATABASE_EVENT_LISTENER='java.lang.Object'",
        "jdbc:h2:file:HOME/ok;MODE=regular;MODE=regular",
        "jdbc:h2:file:HOME/ok;MODE=x'y",
        "jdbc:h2:file:HOME/ok;\\;INIT=x",
        "jdbc:h2:tcp://127.0.0.1/x",
        "jdbc:h2:ssl://127.0.0.1/x",
        "jdbc:h2:zip:HOME/a.zip!/x",
        "jdbc:h2:nio:HOME/ok",
        "jdbc:h2:split:nio:HOME/ok",
        "jdbc:h2:file:/etc/passwd",
        "jdbc:h2:file:HOME/../../etc/x",
        "jdbc:h2:file:relative/x",
        "jdbc:h2:~/x",
        "jdbc:h2:",
        "jdbc:h2:file:HOME/not-there",
        "jdbc:postgresql://127.0.0.1/x?socketFactory=org.example.Factory&socketFactoryArg=x",
        "jdbc:postgresql://127.0.0.1/x?sslfactory=org.example.Factory",
        "jdbc:postgresql://127.0.0.1/x?SSLFACTORY=org.example.Factory",
        "jdbc:postgresql://127.0.0.1/x?loggerLevel=TRACE&loggerFile=/tmp/x",
        "jdbc:postgresql://127.0.0.1/x?sslrootcert=/etc/passwd",
        "jdbc:postgresql://127.0.0.1/x?sslpasswordcallback=a.B",
        "jdbc:postgresql://127.0.0.1/x?authenticationPluginClassName=a.B",
        "jdbc:postgresql://127.0.0.1/x?jaasApplicationName=x",
        "jdbc:postgresql://127.0.0.1/x?options=-c%20session_preload_libraries=x",
        "jdbc:postgresql://127.0.0.1/x?service=x",
        "jdbc:postgresql://127.0.0.1/x?password=y",
        "jdbc:postgresql://127.0.0.1,db.example/x",
        "jdbc:postgresql://127.0.0.1/x?ssl=true&ssl=false",
        "jdbc:postgresql://127.0.0.1/x?ssl=maybe",
        "jdbc:postgresql://user@127.0.0.1/x",
        "jdbc:postgresql:?service=x",
        "jdbc:postgresql://127.0.0.1/x;INIT=y",
        "jdbc:oracle:thin:@127.0.0.1/x",
        "jdbc:mariadb://127.0.0.1/x?allowLocalInfile=true",
        "jdbc:mariadb://127.0.0.1/x?permitRedirect=true",
        "jdbc:mariadb://127.0.0.1/x%3FallowLocalInfile=true",
        "jdbc:mariadb://127.0.0.1/x?user=y%26permitRedirect=true",
        "jdbc:mariadb://127.0.0.1/x?serverSslCert=/etc/passwd",
        "jdbc:mariadb://127.0.0.1/x?socketFactory=org.example.Factory",
        "jdbc:mariadb://127.0.0.1/x?localSocket=/tmp/x",
        "jdbc:mariadb://127.0.0.1/x?pipe=x",
        "jdbc:mariadb://127.0.0.1/x?credentialType=x",
        "jdbc:mariadb://127.0.0.1/x?sessionVariables=x=1",
        "jdbc:mariadb://127.0.0.1/x?initSql=DROP%20TABLE%20x",
        "jdbc:mariadb://127.0.0.1/x?sslMode=perhaps",
        "jdbc:mariadb:replication://127.0.0.1,db.example/x",
        "jdbc:mariadb://127.0.0.1,db.example/x",
        "jdbc:mariadb://address=(host=127.0.0.1)/x",
        "jdbc:mariadb://127.0.0.1/",
        "jdbc:mysql://127.0.0.1/x?autoDeserialize=true",
        "jdbc:mysql://127.0.0.1/x?allowUrlInLocalInfile=true",
        "jdbc:sqlite::resource:http://127.0.0.1/x",
        "jdbc:sqlite::memory:",
        "jdbc:sqlite:",
        "jdbc:sqlite:file:HOME/ok.db?vfs=x",
        "jdbc:sqlite:HOME/ok.db?enable_load_extension=true",
        "jdbc:sqlite:/etc/passwd",
        "jdbc:sqlite:HOME/../../etc/hostname",
        "jdbc:sqlite:relative.db",
        "jdbc:sqlite:HOME",
        "jdbc:sqlite:HOME/not-there.db",
        "jdbc:h2:file:HOME/ok\nINIT=x",
        "http://127.0.0.1/",
        "x"
      })
  void whatIsNotOnTheListIsRefusedBeforeADriverSeesIt(String url) throws Exception {
    Path home = HOME.toRealPath();
    Answer answer = add(url.replace("HOME", home.toString()), "sa", "");
    assertThat(answer.status()).as(answer.body().toString()).isEqualTo(422);
    assertThat(answer.code()).isIn("address", "unknown-database");
    assertThat(answer.body().path("detail").asString()).endsWith(".");
  }

  @Test
  void ourOwnStoreIsNoConnectionByWhateverWay() throws Exception {
    get("/api/connections");
    Path store = HOME.resolve("store/porter.mv.db");
    assertThat(store).exists();
    Path hard = HOME.resolve("hard.mv.db");
    Path soft = HOME.resolve("soft.mv.db");
    Files.deleteIfExists(hard);
    Files.deleteIfExists(soft);
    Files.createLink(hard, store);
    Files.createSymbolicLink(soft, store);
    Path folder = HOME.resolve("door");
    Files.deleteIfExists(folder);
    Files.createSymbolicLink(folder, HOME.resolve("store"));
    byte[] key = Files.readAllBytes(HOME.resolve("store.key"));
    for (String path : new String[] {"store/porter", "hard", "soft", "door/porter"}) {
      for (String password : new String[] {"", HexFormat.of().formatHex(key)}) {
        Answer answer = add("jdbc:h2:file:" + HOME.resolve(path), "porter", password);
        assertThat(answer.status()).as(path).isEqualTo(422);
        assertThat(answer.code()).isEqualTo("address");
      }
    }
    Path outside = Files.createTempDirectory("outside");
    Files.createSymbolicLink(outside.resolve("x.mv.db"), store);
    Path out = HOME.resolve("out");
    Files.deleteIfExists(out);
    Files.createSymbolicLink(out, outside);
    assertThat(add("jdbc:h2:file:" + HOME.resolve("out/x"), "sa", "").status()).isEqualTo(422);
  }

  private static tools.jackson.databind.node.ObjectNode connection(String url, String password) {
    return PlanJson.MAPPER
        .createObjectNode()
        .put("shownName", "Their own")
        .put("url", url)
        .put("user", "sa")
        .put("password", password);
  }

  /** It is tried first, and a password that was kept goes only where it was kept for. */
  @Test
  void aConnectionIsTriedAndChanged() throws Exception {
    String name = marina("changing");
    String url = "";
    for (JsonNode kept : get("/api/connections").body()) {
      url = kept.path("name").asString().equals(name) ? kept.path("url").asString() : url;
    }
    Answer tried = post("/api/connections/try", connection(url, null).put("name", name));
    assertThat(tried.body().path("database").asString()).startsWith("H2 2.");
    assertThat(tried.body().path("tables").asInt()).isEqualTo(10);
    String other = url + ";LOCK_TIMEOUT=500";
    Answer changed = put("/api/connections/" + name, connection(other, null));
    assertThat(changed.status()).as(changed.body().toString()).isEqualTo(200);
    assertThat(changed.body().path("shownName").asString()).isEqualTo("Their own");
    assertThat(get("/api/connections/" + name + "/tables").body().size()).isEqualTo(10);

    Path sqlite = HOME.resolve("theirs.db");
    Files.deleteIfExists(sqlite);
    Files.createFile(sqlite);
    String elsewhere = "jdbc:sqlite:" + sqlite.toRealPath();
    Answer refused = put("/api/connections/" + name, connection(elsewhere, null));
    assertThat(refused.code()).isEqualTo("password-needed");
    assertThat(put("/api/connections/" + name, connection(elsewhere, "")).status()).isEqualTo(200);
    assertThat(get("/api/connections/" + name + "/tables").body().size()).isZero();
    assertThat(put("/api/connections/none", connection(elsewhere, "")).status()).isEqualTo(404);
    assertThat(put("/api/connections/" + name, connection("jdbc:h2:mem:x", "")).status())
        .isEqualTo(422);
  }

  @Test
  void whatIsKeptIsForItsOwnerOnly() throws Exception {
    post("/api/session", "{\"name\": \"nobody\", \"password\": \"none\"}");
    for (String file : new String[] {"store.key", "secret.key", "token.key", "security.log"}) {
      assertThat(Files.getPosixFilePermissions(HOME.resolve(file)))
          .as(file)
          .isEqualTo(java.nio.file.attribute.PosixFilePermissions.fromString("rw-------"));
    }
    for (String folder : new String[] {"", "store"}) {
      assertThat(Files.getPosixFilePermissions(HOME.resolve(folder)))
          .as(folder)
          .isEqualTo(java.nio.file.attribute.PosixFilePermissions.fromString("rwx------"));
    }
    assertThat(Files.getPosixFilePermissions(HOME.resolve("store/porter.mv.db")))
        .isEqualTo(java.nio.file.attribute.PosixFilePermissions.fromString("rw-------"));
  }

  @Test
  void aDatabaseInAnAllowedFolderIsReachedAndCanBeForgotten() throws Exception {
    String name = marina("reached");
    assertThat(get("/api/connections/" + name + "/tables").body().size()).isEqualTo(10);
    assertThat(get("/api/connections/" + name + "/deletion").body().path("affected")).isEmpty();
    assertThat(
            send(org.springframework.test.web.servlet.request.MockMvcRequestBuilders.delete(
                    "/api/connections/" + name))
                .status())
        .isEqualTo(204);
    assertThat(get("/api/connections/" + name + "/tables").status()).isEqualTo(404);
    assertThat(Files.readString(HOME.resolve("security.log")))
        .contains("connection-added who=odile")
        .contains("connection-deleted who=odile");
  }
}
