package org.zestyporter.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import org.junit.jupiter.api.Test;
import org.zestyporter.demo.OfficeFiles;
import tools.jackson.databind.JsonNode;

/** What the command proposes for a file, and what it says of it. */
class DraftCommandTest extends CommandLineTest {
  @Test
  void draftWithoutATableRanksTheTables() {
    Ended ranked = go("draft", file, "--to", url);
    assertThat(ranked.code()).isZero();
    assertThat(ranked.out().lines().findFirst().orElseThrow()).startsWith("vessel ");
    assertThat(ranked.out()).contains("10 columns find a field").contains("--table");
    assertThat(go("draft", file, "--to", url, "--json").json().get(0).path("table").asString())
        .isEqualTo("vessel");
  }

  /** One row of the office's export makes an owner and up to two addresses. */
  @Test
  void draftOffersTheTablesThatBelongToTheFirst() throws IOException {
    Path owners = folder.resolve("owners-export.csv");
    new OfficeFiles(MARINA).owners(owners);
    Ended offered = go("draft", owners, "--to", url, "--table", "owner");
    assertThat(offered.out())
        .contains("Could also fill postal owner_address, of the same row's owner")
        .contains("--children");
    Path plan = folder.resolve("owners.json");
    Ended taken =
        go("draft", owners, "--to", url, "--table", "owner", "--children", "--out", plan, "--json");
    assertThat(taken.json().path("children")).hasSize(2);
    JsonNode destinations = taken.json().path("plan").path("destinations");
    assertThat(destinations).hasSize(3);
    assertThat(destinations.get(1).path("parent").path("destination").asString())
        .isEqualTo("owner");
    // what the file does not say is asked of the person: the addresses' postcodes
    assertThat(go("rehearse", plan, owners, "--to", url).err())
        .contains("postcode is required and nothing fills it yet");
  }

  @Test
  void draftIsToldWhereFieldsPoint() throws IOException, SQLException {
    Path keys = folder.resolve("keys.csv");
    try (Connection marina = DriverManager.getConnection(url);
        Statement statement = marina.createStatement()) {
      statement.execute(
          "CREATE TABLE door_key (id INTEGER PRIMARY KEY, given_to INTEGER NOT NULL,"
              + " tag VARCHAR(9))");
      statement.execute(
          "CREATE TABLE door_key_use (id INTEGER GENERATED ALWAYS AS IDENTITY, used INTEGER,"
              + " door VARCHAR(20) NOT NULL)");
      statement.execute("CREATE TABLE holder (no INTEGER PRIMARY KEY, label VARCHAR(20))");
      statement.execute("INSERT INTO holder VALUES (81, 'Ann'), (82, 'Bert')");
    }
    Files.writeString(keys, "Id;Tag;Given to;Door\n1;T1;Ann;North\n2;T2;Bert;South\n");
    assertThat(go("draft", keys, "--to", url, "--table", "door_key").out())
        .contains("If given_to holds the key of another table, say which: --link given_to=TABLE");
    Path plan = folder.resolve("keys.json");
    Ended drafted =
        go(
            "draft",
            keys,
            "--to",
            url,
            "--table",
            "door_key",
            "--link",
            "given_to=holder",
            "--link",
            "door_key_use.used=door_key(id)",
            "--children",
            "--out",
            plan);
    assertThat(drafted.out()).contains("Also fills door_key_use");
    assertThat(go("run", plan, keys, "--to", url).out()).contains("2 new");
    try (Connection marina = DriverManager.getConnection(url);
        Statement statement = marina.createStatement();
        ResultSet given =
            statement.executeQuery(
                "SELECT LISTAGG(k.tag || k.given_to || u.door, ' ') WITHIN GROUP (ORDER BY k.id)"
                    + " FROM door_key k JOIN door_key_use u ON u.used = k.id")) {
      given.next();
      assertThat(given.getString(1)).isEqualTo("T181North T282South");
    }
    Ended wrong = go("draft", keys, "--to", url, "--table", "door_key", "--link", "tag=holder");
    assertThat(wrong.code()).isEqualTo(2);
    assertThat(wrong.err()).contains("points at holder, but it has no key of one field that tag");
    assertThat(go("draft", keys, "--to", url, "--link", "tag=holder").err())
        .contains("--link says FIELD=TABLE");
  }

  /** A plan that said one decimal sign for all of them would take 1,50 for something else. */
  @Test
  void draftLeavesOpenWhatColumnsWriteDifferently() throws IOException {
    Path kinds = folder.resolve("berths.csv");
    Files.writeString(
        kinds, "Code;Length m;Day rate\nX-1;12.5;1 250,00\nX-2;8.25;99,50\nX-3;9.75;80,00\n");
    Path plan = folder.resolve("berths.json");
    JsonNode drafted =
        go("draft", kinds, "--to", url, "--table", "berth", "--out", plan, "--json").json();
    assertThat(drafted.path("plan").path("reading").path("locale").path("decimal").asString(""))
        .isEmpty();
    JsonNode alike = go("draft", file, "--to", url, "--table", "vessel", "--json").json();
    assertThat(alike.path("plan").path("reading").path("locale").path("decimal").asString())
        .isEqualTo(",");
  }
}
