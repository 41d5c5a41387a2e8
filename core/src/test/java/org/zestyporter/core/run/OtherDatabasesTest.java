package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.application.jdbc.Address;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.application.jdbc.Patience;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** What MariaDB and SQLite have ways of their own for. */
class OtherDatabasesTest {
  @TempDir Path folder;

  private static String plan(String table, String key, String... fields) {
    StringBuilder fills = new StringBuilder();
    for (String field : fields) {
      fills
          .append(fills.isEmpty() ? "" : ",")
          .append("{\"field\": \"" + field + "\", \"origin\":")
          .append("{\"kind\": \"column\", \"column\": \"" + field + "\"}}");
    }
    return "{\"name\": \"Theirs\", \"destinations\": [{\"table\": \""
        + table
        + "\", \"fills\": ["
        + fills
        + "], \"keys\": ["
        + (key == null ? "" : "{\"fields\": [\"" + key + "\"]}")
        + "]}]}";
  }

  /** A rehearsal, and the run that does the same. */
  private Fates go(Databases.Fresh on, String plan, String file) throws IOException {
    Fates rehearsed = new Fates();
    Runs.rehearse(on, folder, plan, file, rehearsed);
    Fates run = new Fates();
    Runs.run(on, folder, plan, file, run);
    assertThat(run.fates).isEqualTo(rehearsed.fates);
    return run;
  }

  /** Whether the address has its letters as they are or as signs. */
  @ParameterizedTest
  @ValueSource(strings = {"Våra båtar", "V%C3%A5ra%20b%C3%A5tar"})
  void aDatabaseMayHaveAnyName(String written) throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      String url = on.connection().getMetaData().getURL().replaceFirst("[^/]*$", "");
      on.execute(
          "CREATE DATABASE IF NOT EXISTS \"Våra båtar\"",
          "CREATE TABLE IF NOT EXISTS \"Våra båtar\".\"båt\" (nr integer PRIMARY KEY)");
      assertThat(Database.connect(url + written, "root", "").tableNames()).containsExactly("båt");
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void oddNamesAndReservedWordsAreNamesLikeAnyOther(Databases.Fresh on)
      throws SQLException, IOException {
    try (on) {
      on.execute(
          "CREATE TABLE \"Odd 'Name` Ö\" (\"order\" integer PRIMARY KEY,"
              + " \"Select %\" varchar(20), \"a_b\" varchar(20))",
          "CREATE TABLE \"Odd 'Name` X\" (\"order\" integer PRIMARY KEY)");
      String plan = plan("Odd 'Name` Ö", "order", "order", "Select %", "a_b");
      String file = "order;Select %;a_b\n1;x;y\n2;it's;\"q\"\"q\"\n";
      assertThat(go(on, plan, file).fates).containsExactly(row(2, "new"), row(3, "new"));
      assertThat(go(on, plan, file).fates)
          .containsExactly(row(2, "unchanged"), row(3, "unchanged"));
    }
  }

  private static String row(int line, String outcome) {
    return "Odd 'Name` Ö " + line + " " + outcome;
  }

  /** MariaDB takes wren for WREN where values must be unique, unless it is told not to. */
  @Test
  void capitalsCountInUniqueFieldsAsTheDatabaseTakesThem() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute(
          "CREATE TABLE boat (nr integer PRIMARY KEY, name varchar(20) UNIQUE,"
              + " code varchar(20) COLLATE utf8mb4_bin UNIQUE)",
          "INSERT INTO boat VALUES (1, 'Wren', 'a')");
      assertThat(on.database().table("boat").field("code").ignored()).isEmpty();
      String plan = plan("boat", "nr", "nr", "name", "code");
      Fates fates = go(on, plan, "nr;name;code\n1;WREN;a\n2;wren;b\n3;Auk;A\n4;auk;c\n");
      assertThat(fates.fates)
          .containsExactly("boat 2 changed", "boat 3 rejected", "boat 4 new", "boat 5 rejected");
      assertThat(on.one("SELECT name FROM boat WHERE nr = 1")).isEqualTo("WREN");
    }
  }

  @Test
  void aTriggerOfMariaDbMayGiveTheKeyAndOtherValues() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute(
          "CREATE TABLE part (code varchar(20) PRIMARY KEY, name varchar(20))",
          "CREATE TRIGGER part_code BEFORE INSERT ON part FOR EACH ROW"
              + " SET NEW.code = CONCAT('P-', NEW.name), NEW.name = UPPER(NEW.name)");
      assertThat(on.database().table("part").ownRules()).containsExactly("trigger part_code");
      Fates fates = go(on, plan("part", null, "code", "name"), "code;name\nx;bolt\ny;nut\n");
      assertThat(fates.fates).containsExactly("part 2 new", "part 3 new");
      assertThat(on.one("SELECT GROUP_CONCAT(code ORDER BY code) FROM part"))
          .isEqualTo("P-bolt,P-nut");
      assertThat(fates.entries.get(0).notes().get(0).reason())
          .isEqualTo("the application made it “P-bolt”");
    }
  }

  @Test
  void aTableThatCantTakeAnythingBackIsLeftAlone() throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute("CREATE TABLE old (nr integer PRIMARY KEY) ENGINE = MyISAM");
      assertThatThrownBy(() -> on.database().table("old"))
          .isInstanceOfSatisfying(
              PorterException.class, e -> assertThat(e.code()).isEqualTo(ErrorCode.NO_TRANSACTIONS))
          .hasMessageContaining("kept by MyISAM");
    }
  }

  /** Whatever a record holds that is none of its field's type, it is shown and not lost. */
  @Test
  void whatIsNoValueOfItsTypeDoesNoHarm() throws SQLException, IOException {
    try (Databases.Fresh maria = Databases.maria();
        Databases.Fresh sqlite = Databases.sqlite()) {
      maria.execute(
          "CREATE TABLE thing (nr integer PRIMARY KEY, span time, flag tinyint(1), at date,"
              + " name varchar(9))",
          "SET SESSION sql_mode = ''",
          "INSERT INTO thing VALUES (1, '100:00:00', 7, '0000-00-00', 'a'),"
              + " (2, '-01:00:00', 1, '2024-00-00', 'b')");
      sqlite.execute(
          "CREATE TABLE thing (nr integer PRIMARY KEY, span time, flag boolean, at date,"
              + " name varchar(9))",
          "INSERT INTO thing VALUES (1, 'noon', 7, 'yesterday', 'a'), (2, '12:00', 'y', x'00', 'b')");
      for (Databases.Fresh on : List.of(maria, sqlite)) {
        TableInfo thing = on.database().table("thing");
        List<Object[]> records = on.database().page(thing, null, 0, 9);
        assertThat(records.get(0)[2]).asString().isEqualTo("7");
        assertThat(go(on, plan("thing", "nr", "nr", "name"), "nr;name\n1;c\n2;b\n").fates)
            .containsExactly("thing 2 changed", "thing 3 unchanged");
      }
      assertThat(sqlite.one("SELECT at FROM thing WHERE nr = 1")).isEqualTo("yesterday");
      assertThat(maria.one("SELECT CAST(span AS CHAR) FROM thing WHERE nr = 1"))
          .isEqualTo("100:00:00");
    }
  }

  /** Days are numbers where the records say so. */
  @Test
  void sqliteFieldsAreWhatTheirRecordsHold() throws SQLException {
    try (Databases.Fresh on = Databases.sqlite()) {
      on.execute(
          "CREATE TABLE log (nr integer PRIMARY KEY AUTOINCREMENT, at datetime, done boolean,"
              + " mark text COLLATE NOCASE UNIQUE, boat text REFERENCES boat, depth integer"
              + " CHECK (depth > 0 AND SUBSTR(')', 1) <> '('), kind text CHECK (kind IN ('a', 'b')))",
          "CREATE TABLE boat (reg text PRIMARY KEY)",
          "INSERT INTO log (at, done) VALUES (1700000000, 'Y'), (1700000001, 'N')");
      TableInfo log = on.database().table("log");
      assertThat(log.field("at").typeName()).isEqualTo("datetime, kept as integer");
      assertThat(log.field("done").typeName()).isEqualTo("boolean, kept as text");
      assertThat(log.field("nr").generated()).isTrue();
      assertThat(log.field("mark").ignored()).isNotEmpty();
      assertThat(log.field("boat").link().keyField()).isEqualTo("reg");
      assertThat(log.field("kind").choices()).containsExactly("a", "b");
      assertThat(log.ownRules()).containsExactly("depth > 0 AND SUBSTR(')', 1) <> '('");
    }
  }

  @Test
  void aSqliteDatabaseThatSomebodyElseWritesIntoIsSaidSo() throws SQLException, IOException {
    Path file = folder.resolve("theirs.db");
    try (Connection theirs = DriverManager.getConnection("jdbc:sqlite:" + file);
        Statement statement = theirs.createStatement()) {
      statement.execute("CREATE TABLE thing (nr integer PRIMARY KEY)");
      Database hasty =
          Database.connect(
              Address.parse("jdbc:sqlite:" + file, Address.Rules.ANYWHERE),
              "",
              "",
              new Patience(Duration.ofMillis(300), Duration.ofSeconds(20)));
      TableInfo thing = hasty.table("thing");
      statement.execute("BEGIN IMMEDIATE");
      try (WriteSession session = hasty.begin()) {
        PorterException e =
            catchThrowableOfType(
                PorterException.class, () -> session.claim(List.of(thing), List.of()));
        assertThat(e.code()).isEqualTo(ErrorCode.DATABASE_LOCKED);
      }
      statement.execute("ROLLBACK");
      try (WriteSession session = hasty.begin()) {
        assertThat(session.claim(List.of(thing), List.of())).isTrue();
        Files.move(file, folder.resolve("away.db"));
        assertThatThrownBy(session::commit)
            .isInstanceOfSatisfying(
                PorterException.class,
                e -> assertThat(e.code()).isEqualTo(ErrorCode.DATABASE_LOST));
      }
    }
  }

  /** Two servers that know nothing of each other. */
  @Test
  void tablesOfMariaDbAreClaimedAcrossProcesses() throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute("CREATE TABLE thing (nr integer PRIMARY KEY)");
      String url = on.connection().getMetaData().getURL().replaceFirst("\\?.*", "");
      Database here = Database.connect(url, "root", "");
      Database there = Database.connect(url.replace("localhost", "127.0.0.1"), "root", "");
      TableInfo thing = here.table("thing");
      try (WriteSession one = here.begin();
          WriteSession two = there.begin()) {
        assertThat(one.claim(List.of(thing), List.of())).isTrue();
        assertThat(two.claim(List.of(thing), List.of())).isFalse();
        one.commit();
        one.close();
        assertThat(two.claim(List.of(thing), List.of())).as("after the end").isTrue();
      }
    }
  }

  @Test
  void aConnectionThatMariaDbEndsIsSaidSo() throws SQLException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute("CREATE TABLE thing (nr integer PRIMARY KEY)");
      TableInfo thing = on.database().table("thing");
      FieldInfo nr = thing.field("nr");
      try (WriteSession session = on.database().begin()) {
        assertThat(session.claim(List.of(thing), List.of())).isTrue();
        long id =
            ((Number)
                    on.one(
                        "SELECT id FROM information_schema.processlist WHERE id <> CONNECTION_ID()"
                            + " AND db = DATABASE()"))
                .longValue();
        on.execute("KILL " + id);
        List<WriteSession.Change> one =
            List.of(
                new WriteSession.Change(
                    2,
                    null,
                    List.of(thing.fields().indexOf(nr)),
                    List.of(java.math.BigDecimal.ONE)));
        PorterException e =
            catchThrowableOfType(PorterException.class, () -> session.write(thing, one, false));
        assertThat(e.code())
            .as(String.valueOf(e.getCause()))
            .isIn(ErrorCode.DATABASE_LOST, ErrorCode.DATABASE_STOPPING);
      }
      assertThat(on.one("SELECT COUNT(*) FROM thing")).isEqualTo(0L);
    }
  }
}
