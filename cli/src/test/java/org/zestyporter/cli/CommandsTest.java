package org.zestyporter.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.demo.Arrivals;
import tools.jackson.databind.JsonNode;

/** The commands as a shell would see them: what they print and how they end. */
class CommandsTest extends CommandLineTest {
  private static final Arrivals.Facts FACTS = MARINA.arrivals().facts();

  @Test
  void lookTellsHowAFileIsRead() {
    Ended look = go("look", file, "--json", "--rows", 2);
    assertThat(look.code()).isZero();
    JsonNode json = look.json();
    assertThat(json.path("format").asString()).isEqualTo("xlsx");
    assertThat(json.path("sheet").asString()).isEqualTo("Arrivals");
    assertThat(json.path("sheets")).hasSize(2);
    assertThat(json.path("encoding").isNull()).isTrue();
    assertThat(json.path("titleRows").get(0).asInt()).isEqualTo(5);
    assertThat(json.path("rowCount").asInt()).isEqualTo(FACTS.rows());
    assertThat(json.path("rows")).hasSize(2);
    assertThat(json.path("columns").findValuesAsString("type"))
        .containsExactly(
            "text", "text", "text", "decimal", "decimal", "text", "text", "date", "date", "text");
    assertThat(go("look", file, "--sheet", "Lists", "--json").json().path("rowCount").asInt())
        .isPositive();
    assertThat(go("look", file).out()).contains("LOA (ft)").contains("1,204 rows");
  }

  @Test
  void lookReadsEveryFileOfTheOffice() throws IOException {
    MARINA.officeFiles().write(folder);
    JsonNode json = go("look", folder.resolve("owners-export.csv"), "--json").json();
    assertThat(json.path("format").asString()).isEqualTo("delimited");
    assertThat(json.path("encoding").asString()).isEqualTo("windows-1252");
    assertThat(json.path("delimiter").asString()).isEqualTo(";");
    assertThat(json.path("columns").get(5).path("locale").asString()).isEqualTo("de");
    assertThat(json.path("columns").get(5).path("pattern").asString()).isEqualTo("#,##0.00");
    json = go("look", folder.resolve("meter-round-2026.xlsx"), "--json").json();
    assertThat(json.path("firstRow").asInt()).isEqualTo(7);
    assertThat(go("look", folder.resolve("tariffs-spring.ods"), "--json").json().path("sheets"))
        .hasSize(2);
    json =
        go("look", folder.resolve("harbour-app.json"), "--sheet", "vessels.stays", "--json").json();
    assertThat(json.path("format").asString()).isEqualTo("json");
    assertThat(json.path("titleRows")).isEmpty();
    assertThat(json.path("columns").findValuesAsString("name")).contains("owner.email");
    assertThat(go("look", folder.resolve("contracts.tsv")).out())
        .contains("delimiter  tab")
        .contains("2 lines repeat the titles");
  }

  @Test
  void lookTakesAReadingAndNamesTheLinesOfItsWarnings() throws IOException {
    Path ragged = Files.writeString(folder.resolve("ragged.csv"), "a;b\n1;2\n3\n4;5\n");
    JsonNode warning = go("look", ragged, "--json").json().path("warnings").get(0);
    assertThat(warning.path("row").asInt()).isEqualTo(3);
    assertThat(warning.path("code").asString()).isEqualTo("cell-count");
    assertThat(go("look", ragged).out()).contains("! line 3: 1 cell where the titles have 2");
    Path reading =
        Files.writeString(
            folder.resolve("reading.json"),
            "{\"leaveOut\": [{\"column\": \"b\", \"test\": \"blank\"}], \"renamed\": {\"b\":"
                + " \"beam\"}}");
    Ended renamed = go("look", ragged, "--reading", reading, "--json");
    assertThat(renamed.code()).as("the title b still names the column").isZero();
    assertThat(renamed.json().path("rowCount").asInt()).isEqualTo(2);
    assertThat(renamed.json().path("columns").get(1).path("name").asString()).isEqualTo("beam");
  }

  @Test
  void lookSaysWhereItHasNotCountedOn() throws IOException {
    StringBuilder many = new StringBuilder("id,same\n");
    for (int i = 0; i <= DistinctValues.LIMIT; i++) {
      many.append(i).append(",one\n");
    }
    Path file = Files.writeString(folder.resolve("many.csv"), many);
    assertThat(go("look", file).out()).contains(" 100,000+\n").contains(" 1\n");
    JsonNode columns = go("look", file, "--json").json().path("columns");
    assertThat(columns.get(0).path("distinct").asInt()).isEqualTo(DistinctValues.LIMIT);
    assertThat(columns.get(0).path("distinctCapped").asBoolean()).isTrue();
    assertThat(columns.get(1).has("distinctCapped")).isFalse();
  }

  @Test
  void lookRefusesWhatIsNoTableInOneLine() throws IOException {
    Path empty = Files.createFile(folder.resolve("empty.csv"));
    Ended ended = go("look", empty);
    assertThat(ended.code()).isEqualTo(2);
    assertThat(ended.err().strip()).contains("empty").doesNotContain("\n").doesNotContain("at org");
    assertThat(ended.out()).isEmpty();
    assertThat(go("look", folder.resolve("none.csv")).err()).contains("There is no file");
    assertThat(go("look", file, "--sheet", "Nope").code()).isEqualTo(2);
  }

  @Test
  void eachCommandIsUsedOnceForTheLauncher() {
    Ended ended = go("ready", folder);
    assertThat(ended.err()).isEmpty();
    assertThat(ended.code()).isZero();
    assertThat(folder.resolve("plan.json")).exists();
    assertThat(go("--help").out()).doesNotContain("ready");
  }

  @Test
  void theServerIsUsedOnceForTheLauncher() {
    Path demo = folder.resolve("demo");
    Ended ended = go("ready-server", demo);
    assertThat(ended.err()).isEmpty();
    assertThat(ended.code()).isZero();
    assertThat(demo.resolve("files")).isNotEmptyDirectory();
  }

  @Test
  void draftRehearseAndRunGiveTheSameAsTheServer() throws IOException {
    Path plan = draft();
    assertThat(go("rehearse", plan, file, "--to", url).out())
        .contains("24 registration: which of the lines that say different things is right?");
    keepLast(plan);
    Path ledger = folder.resolve("ledger.csv");
    Ended rehearsal = go("rehearse", plan, file, "--to", url, "--json", "--ledger", ledger);
    assertThat(rehearsal.code()).as("some rows are rejected").isEqualTo(1);
    JsonNode vessel = rehearsal.json().path("destinations").get(0);
    assertThat(vessel.path("new").asInt()).isEqualTo(FACTS.added());
    assertThat(vessel.path("changed").asInt()).isEqualTo(FACTS.changed());
    assertThat(vessel.path("rejected").asInt()).isEqualTo(FACTS.rejected());
    assertThat(rehearsal.json().path("balanced").asBoolean()).isTrue();

    List<String> lines = Files.readAllLines(ledger);
    assertThat(lines).hasSize(FACTS.rows() + 1);
    assertThat(lines.get(0))
        .isEqualTo("row,destination,outcome,matched_by,record_key,problem_code,field,reason");
    assertThat(lines).filteredOn(l -> l.contains(",rejected,")).hasSize(FACTS.rejected());
    assertThat(lines)
        .filteredOn(l -> l.contains(",unknown-link,type_id,"))
        .hasSize(FACTS.unknownKinds());

    assertThat(go("rehearse", plan, file, "--to", url).out())
        .contains("22 type_id: what does “Ketch rig” mean?")
        .contains("The books balance.");

    Ended run = go("run", plan, file, "--to", url, "--json");
    assertThat(run.code()).isEqualTo(1);
    assertThat(run.json().path("destinations")).isEqualTo(rehearsal.json().path("destinations"));
    Path back = folder.resolve("back.xlsx");
    Ended again = go("run", plan, file, "--to", url, "--returns", back);
    assertThat(again.out()).contains("0 new, 0 changed").contains("The books balance.");

    // what was rejected goes through the same plan, laid out as the file was
    JsonNode returned = go("rehearse", plan, back, "--to", url, "--json").json();
    assertThat(returned.path("read").asInt()).isEqualTo(FACTS.rejected());
    assertThat(returned.path("destinations").get(0).path("rejected").asInt())
        .isEqualTo(FACTS.rejected());
    assertThat(go("look", back, "--json").json().path("columns").findValuesAsString("name"))
        .contains("Why it was not taken")
        .last()
        .asString()
        .matches("Line of Run \\d{4}-\\d{4}");
  }

  /** People are told some of many words; a program is told all. */
  @Test
  void manyWordsOfOneQuestionAreCounted() throws IOException, SQLException {
    try (var statement = builder.createStatement()) {
      statement.execute(
          "CREATE TABLE tag (code VARCHAR(9) PRIMARY KEY,"
              + " type_id INTEGER NOT NULL REFERENCES vessel_type (id))");
    }
    StringBuilder text = new StringBuilder("Code;Type\nT0;Ketch\n");
    for (int i = 0; i < 30; i++) {
      text.append("T1").append(i).append(";Oddity ").append((char) ('A' + i % 14)).append("\n");
    }
    Path odd = folder.resolve("odd.csv");
    Files.writeString(odd, text);
    Path plan = folder.resolve("odd.json");
    go("draft", odd, "--to", url, "--table", "tag", "--out", plan);
    assertThat(go("rehearse", plan, odd, "--to", url).out().lines())
        .filteredOn(line -> line.contains("type_id"))
        .hasSize(11)
        .last()
        .asString()
        .isEqualTo("       8 type_id: the same of 4 more values; --json tells them all");
    assertThat(go("rehearse", plan, odd, "--to", url, "--json").json().path("questions"))
        .hasSize(14);
  }

  @Test
  void whatTheDatabaseRefusesIsSetAside() throws SQLException, IOException {
    try (var statement = builder.createStatement()) {
      statement.execute(
          "ALTER TABLE vessel_type ADD CONSTRAINT whole_words CHECK (SUBSTRING(name FROM 1 FOR 2) NOT IN ('ho', 'ra'))");
    }
    Path kinds = folder.resolve("kinds.csv");
    Files.writeString(kinds, "Code;Name\nHBT;houseboat\nRFT;raft\nBRG;barge\n");
    Path plan = folder.resolve("kinds.json");
    go("draft", kinds, "--to", url, "--table", "vessel_type", "--out", plan);
    Ended all = go("run", plan, kinds, "--to", url);
    assertThat(all.code()).isEqualTo(3);
    assertThat(all.err())
        .contains("The database refused 2 lines. Line 2: ")
        .contains("Line 3: ")
        .contains("With --mode set-aside the others are brought in");
    Ended few = go("run", plan, kinds, "--to", url, "--mode", "set-aside", "--stop-after", 1);
    assertThat(few.code()).isEqualTo(2);
    assertThat(few.err()).contains("More than 1 row was rejected");
    Ended run = go("run", plan, kinds, "--to", url, "--mode", "set-aside");
    assertThat(run.code()).as(run.err()).isEqualTo(1);
    assertThat(run.out()).contains("1 new").contains("2 rejected").contains("refused it");
    assertThat(go("run", plan, kinds, "--to", url, "--mode", "odd").err())
        .contains("There is no mode “odd”");
  }

  @Test
  void cleanFileEndsWithZero() throws IOException {
    Path kinds = folder.resolve("kinds.csv");
    Files.writeString(kinds, "Code;Name\nHBT;houseboat\n");
    Path plan = folder.resolve("kinds.json");
    go("draft", kinds, "--to", url, "--table", "vessel_type", "--out", plan);
    assertThat(go("run", plan, kinds, "--to", url).code()).isZero();
  }

  @Test
  void whatCannotBeUsedEndsWithTwoAndALostDatabaseWithThree() throws IOException {
    Path plan = draft();
    assertThat(go("rehearse", plan, file).err()).contains("--to");
    assertThat(go("rehearse", plan, file, "--to", "jdbc:postgresql://127.0.0.1:1/x").code())
        .isEqualTo(3);
    Path odd = Files.writeString(folder.resolve("odd.json"), "{\"nam\": 1}");
    Ended broken = go("rehearse", odd, file, "--to", url);
    assertThat(broken.code()).isEqualTo(2);
    assertThat(broken.err()).contains("nam");
    assertThat(go("draft", file, "--to", url, "--table", "yacht").err())
        .contains("no table “yacht”");
    assertThat(go("rehearse").code()).isEqualTo(2);
  }

  @Test
  void draftSaysWhatItLeftAndWritesTheReadingItFound() throws IOException {
    Path extra = folder.resolve("kinds.csv");
    Files.writeString(extra, "Kinds of the office\n\nCode;Name;Colour\nHBT;houseboat;red\n");
    Path plan = folder.resolve("left.json");
    Ended drafted =
        go("draft", extra, "--to", url, "--table", "vessel_type", "--out", plan, "--json");
    assertThat(drafted.json().path("columnsLeft").get(0).asString()).isEqualTo("Colour");
    assertThat(drafted.json().path("fieldsLeft").findValuesAsString("field")).contains("id");
    JsonNode reading = PlanJson.MAPPER.readTree(Files.readString(plan)).path("reading");
    assertThat(reading.path("titleRows").get(0).asInt()).isEqualTo(3);
    assertThat(reading.path("delimiter").asString()).isEqualTo(";");
    assertThat(reading.has("lastRow")).as("the next file may be longer").isFalse();
    assertThat(go("draft", extra, "--to", url, "--table", "vessel_type").out())
        .contains("Columns that fill nothing: Colour");
    Path other = folder.resolve("more.csv");
    Files.writeString(
        other, "Kinds of the office\n\nCode;Name;Colour\nHBT;houseboat;red\nRFT;raft;blue\n");
    assertThat(go("run", plan, other, "--to", url).out()).contains("2 new");
  }

  @Test
  void draftTakesASheetAndAReading() throws IOException {
    Path reading = Files.writeString(folder.resolve("r.json"), "{\"sheet\": \"Lists\"}");
    String named = go("draft", file, "--to", url, "--sheet", "Lists").out();
    assertThat(go("draft", file, "--to", url, "--reading", reading).out()).isEqualTo(named);
    assertThat(named).isNotEqualTo(go("draft", file, "--to", url).out());
  }

  @Test
  void everyMistakeOfAPlanIsNamedAtOnceWithWhatIsMeant() throws IOException {
    Path plan =
        Files.writeString(
            folder.resolve("wrong.json"),
            """
            {"name": "x", "readng": {}, "reading": {"titleRows": "3", "locale": {"decmal": ","}},
             "destinations": [{"table": "vessel", "fills": [
               {"field": "name", "orgin": {}, "origin": {"kind": "colum", "column": 7}},
               {"field": "notes", "origin": {"kind": "fixed"}, "onlyNew": "yes",
                "steps": [{"kind": "trimm"}]}],
               "keys": {"fields": []}}]}""");
    Ended ended = go("rehearse", plan, file, "--to", url);
    assertThat(ended.code()).isEqualTo(2);
    assertThat(ended.err())
        .contains("8 mistakes")
        .contains("At the top: there is no “readng”; probably “reading” is meant")
        .contains("At reading.titleRows: a list in [ ] belongs here, not “3”")
        .contains("At reading.locale: there is no “decmal”; probably “decimal” is meant")
        .contains("At destinations[0].fills[0]: there is no “orgin”; probably “origin” is meant")
        .contains("At destinations[0].fills[0].origin.kind: “colum” is not allowed here; probably")
        .contains("Allowed are column, database, fixed, formula, generated, joined, link")
        .contains("At destinations[0].fills[1].onlyNew: true or false belongs here, not “yes”")
        .contains("At destinations[0].fills[1].steps[0].kind: “trimm” is not allowed here")
        .contains("At destinations[0].keys: a list in [ ] belongs here, not { }")
        .doesNotContain("org.zestyporter");
    Path broken = Files.writeString(folder.resolve("broken.json"), "{\"name\": ");
    assertThat(go("rehearse", broken, file, "--to", url).err()).contains("not written as JSON");
  }

  @Test
  void theLedgerGivesAllReasonsAndIsHarmlessInASpreadsheet() throws IOException {
    Path odd = folder.resolve("odd.csv");
    Files.writeString(odd, "Code;Name;X\n=1+1;=HYPERLINK(1);x\n;;y\n");
    Path plan =
        Files.writeString(
            folder.resolve("odd.json"),
            """
            {"name": "x", "destinations": [{"table": "vessel_type", "fills": [
               {"field": "code", "origin": {"kind": "column", "column": "Code"},
                "whenBlank": "reject"},
               {"field": "name", "origin": {"kind": "column", "column": "Name"},
                "whenBlank": "reject"}]}]}""");
    Path ledger = folder.resolve("odd-ledger.csv");
    Ended rehearsed = go("rehearse", plan, odd, "--to", url, "--ledger", ledger);
    assertThat(rehearsed.err()).isEmpty();
    List<String> lines = Files.readAllLines(ledger);
    assertThat(lines.get(2)).contains("required; required,code; name,");
  }

  @Test
  void onlyAddressesThatAreKnownToBeHarmlessAreTaken() {
    String code = "jdbc:h2:mem:x;INIT=RUNSCRIPT FROM '/tmp/x.sql'";
    Ended refused = go("draft", file, "--to", code, "--table", "vessel");
    assertThat(refused.code()).isEqualTo(2);
    assertThat(refused.err()).contains("INIT").contains("not allowed");
    assertThat(go("draft", file, "--to", "jdbc:oracle:thin:@x", "--table", "vessel").err())
        .contains("jdbc:mariadb:")
        .contains("can be reached");
  }
}
