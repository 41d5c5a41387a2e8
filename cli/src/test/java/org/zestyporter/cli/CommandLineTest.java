package org.zestyporter.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.demo.Marina;
import tools.jackson.databind.JsonNode;

/** A marina, its file of arrivals, and the commands as a shell would see them. */
abstract class CommandLineTest {
  static final Marina MARINA = Marina.open();

  @TempDir Path folder;
  String url;
  Connection builder;
  Path file;

  record Ended(int code, String out, String err) {
    JsonNode json() {
      return PlanJson.MAPPER.readTree(out);
    }
  }

  @BeforeEach
  void build() throws SQLException, IOException {
    // commands connect without a user, as an H2 database made without one allows
    url = "jdbc:h2:mem:" + UUID.randomUUID() + ";DB_CLOSE_DELAY=-1;DATABASE_TO_LOWER=TRUE";
    builder = DriverManager.getConnection(url, "", "");
    MARINA.build(builder);
    file = folder.resolve("winter-arrivals.xlsx");
    MARINA.arrivals().writeWorkbook(file);
  }

  @AfterEach
  void close() throws SQLException {
    builder.close();
  }

  Ended go(Object... words) {
    StringWriter out = new StringWriter();
    StringWriter err = new StringWriter();
    List<String> all = new ArrayList<>(List.of(words).stream().map(Object::toString).toList());
    if (words[0].equals("run") || words[0].equals("undo")) {
      all.addAll(List.of("--home", folder.resolve("home").toString()));
    }
    String[] arguments = all.toArray(String[]::new);
    int code = Porter.execute(new PrintWriter(out), new PrintWriter(err), arguments);
    return new Ended(code, out.toString(), err.toString());
  }

  Path draft() {
    Path plan = folder.resolve("plan.json");
    assertThat(go("draft", file, "--to", url, "--table", "vessel", "--out", plan).code()).isZero();
    return plan;
  }

  /** Has the last of lines with the same key kept, about which a draft asks. */
  static void keepLast(Path plan) throws IOException {
    String drafted = Files.readString(plan);
    String answered =
        drafted.replaceFirst("\"onRepeat\"\\s*:\\s*\"ask\"", "\"onRepeat\": \"keep-last\"");
    assertThat(answered).isNotEqualTo(drafted);
    Files.writeString(plan, answered);
  }
}
