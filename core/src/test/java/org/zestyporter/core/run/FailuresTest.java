package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.time.LocalDateTime;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.application.Settled;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.application.jdbc.Address;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.application.jdbc.Patience;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** What goes wrong with a database has its own sentence, and a run that it happens to ends. */
class FailuresTest {
  private static final RunContext CONTEXT =
      new RunContext("odile", LocalDateTime.of(2026, 11, 25, 9, 0), "things.csv");

  @TempDir Path folder;

  private static final Plan PLAN =
      new Plan(
          "Things",
          null,
          Reading.FIND,
          List.of(
              new Destination(
                  "thing",
                  List.of(
                      Fill.of("nr", Origin.column("nr"), Step.of(StepKind.READ_NUMBER)),
                      Fill.of("name", Origin.column("name"))),
                  List.of(new MatchKey(List.of("nr"), List.of())),
                  null)),
          null);

  private SourceTable things(int rows) throws IOException {
    StringBuilder text = new StringBuilder("nr;name\n");
    for (int i = 1; i <= rows; i++) {
      text.append(i).append(";name ").append(i).append('\n');
    }
    Path file = Files.writeString(folder.resolve("things.csv"), text);
    return SourceReader.open(file, folder.resolve("cells"), Reading.FIND);
  }

  /** Does something once, when the first rows are being written. */
  private static Progress once(Action action) {
    AtomicBoolean done = new AtomicBoolean();
    return (phase, rows, total) -> {
      if (phase == Progress.Phase.WRITING && done.compareAndSet(false, true)) {
        try {
          action.go();
        } catch (Exception e) {
          throw new IllegalStateException(e);
        }
      }
    };
  }

  private interface Action {
    void go() throws Exception;
  }

  private static String code(Throwable thrown) {
    assertThat(thrown).isInstanceOf(PorterException.class).hasMessageMatching("(?s)\\p{Lu}.*\\.");
    return ((PorterException) thrown).code().word();
  }

  @ParameterizedTest
  @CsvSource({
    "jdbc:postgresql://127.0.0.1:1/x,database-port",
    "jdbc:postgresql://no-such-host.invalid:5432/x,database-host",
    "POSTGRES/no_such_database,database-missing",
    "jdbc:h2:mem:nosuchdatabase,database-missing",
    "jdbc:mariadb://127.0.0.1:1/x,database-port",
    "jdbc:mariadb://no-such-host.invalid/x,database-host",
    "MARIA/no_such_database,database-missing",
    "MARIA-AS-ODILE/mysql,database-sign-in",
    "MARIA/mysql?sslMode=verify-full,database-tls"
  })
  void eachWayOfNotBeingReachedHasItsSentence(String url, String expected) throws SQLException {
    try (Databases.Fresh postgres = Databases.postgres();
        Databases.Fresh maria = Databases.maria()) {
      String user = url.contains("ODILE") ? "odile" : url.startsWith("MARIA") ? "root" : "postgres";
      String address =
          url.replace("POSTGRES", server(postgres))
              .replaceFirst("MARIA(-AS-ODILE)?", server(maria));
      String password = user.equals("root") ? "" : user;
      assertThat(code(catchThrowable(() -> Database.connect(address, user, password).tableNames())))
          .isEqualTo(expected);
    }
  }

  private static String server(Databases.Fresh on) throws SQLException {
    return on.connection().getMetaData().getURL().replaceFirst("/[^/]*$", "");
  }

  @Test
  void aWrongPasswordIsSaidSo() throws SQLException {
    String url = "jdbc:h2:mem:guarded;DB_CLOSE_DELAY=-1";
    DriverManager.getConnection(url, "sa", "right").close();
    assertThat(code(catchThrowable(() -> Database.connect(url, "sa", "wrong").tableNames())))
        .isEqualTo("database-sign-in");
  }

  @Test
  void aBackendThatIsEndedLosesTheConnectionAndNothingStays() throws Exception {
    try (Databases.Fresh on = Databases.postgres();
        SourceTable source = things(9_000)) {
      on.execute("CREATE TABLE thing (nr integer PRIMARY KEY, name text)");
      Progress kills =
          once(
              () ->
                  on.execute(
                      "SELECT pg_terminate_backend(pid) FROM pg_stat_activity"
                          + " WHERE pid <> pg_backend_pid() AND xact_start IS NOT NULL"
                          + " AND backend_type = 'client backend'"));
      Throwable thrown =
          catchThrowable(
              () ->
                  new Pipeline(new OpenedPlan(on.database(), source, PLAN, CONTEXT, Shared.NONE))
                      .run("1", Ledger.NONE, kills));
      assertThat(code(thrown)).isIn("database-stopping", "database-lost");
      assertThat(thrown).hasMessageContaining("taken back");
      assertThat(on.one("SELECT COUNT(*) FROM thing")).isEqualTo(0L);
    }
  }

  @Test
  void aDatabaseFileThatIsTakenAwayIsALostDatabase() throws Exception {
    Path file = folder.resolve("things");
    String url = "jdbc:h2:file:" + file;
    try (Connection keeps = DriverManager.getConnection(url, "sa", "");
        Statement statement = keeps.createStatement();
        SourceTable source = things(9_000)) {
      statement.execute("CREATE TABLE thing (nr integer PRIMARY KEY, name varchar(40))");
      Database database = Database.connect(url, "sa", "");
      Path away = folder.resolve("away");
      Progress takes = once(() -> Files.move(Path.of(file + ".mv.db"), away));
      assertThatThrownBy(
              () ->
                  new Pipeline(new OpenedPlan(database, source, PLAN, CONTEXT, Shared.NONE))
                      .run("1", Ledger.NONE, takes))
          .isInstanceOfSatisfying(
              PorterException.class, e -> assertThat(e.code()).isEqualTo(ErrorCode.DATABASE_LOST))
          .hasMessageContaining("things.mv.db");
      assertThatThrownBy(() -> database.tableNames()).isInstanceOf(PorterException.class);
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"sa", "clerk"})
  void whatIsSaidToBeDoneIsInTheDatabasesFile(String user) throws Exception {
    String url = "jdbc:h2:file:" + folder.resolve("lasting") + ";DATABASE_TO_LOWER=TRUE";
    try (Connection open = DriverManager.getConnection(url, "sa", "");
        Statement statement = open.createStatement();
        SourceTable source = things(200)) {
      statement.execute("CREATE TABLE thing (nr integer PRIMARY KEY, name varchar(100))");
      statement.execute("CREATE USER clerk PASSWORD ''");
      statement.execute("GRANT ALL ON thing TO clerk");
      new Pipeline(
              new OpenedPlan(Database.connect(url, user, ""), source, PLAN, CONTEXT, Shared.NONE))
          .run("1", Ledger.NONE, Progress.NONE);
      // as a kill would leave it, the database still open
      Files.copy(folder.resolve("lasting.mv.db"), folder.resolve("copy.mv.db"));
    }
    try (Connection copy = DriverManager.getConnection(url.replace("lasting", "copy"), "sa", "");
        Statement statement = copy.createStatement();
        ResultSet found = statement.executeQuery("SELECT COUNT(*) FROM thing")) {
      assertThat(found.next()).isTrue();
      assertThat(found.getInt(1)).isEqualTo(200);
    }
  }

  @Test
  @Timeout(30)
  void stoppingWorksWhileTheTableIsLocked() throws Exception {
    try (Databases.Fresh on = Databases.postgres();
        SourceTable source = things(10)) {
      on.execute("CREATE TABLE thing (nr integer PRIMARY KEY, name text)");
      on.connection().setAutoCommit(false);
      on.execute("LOCK TABLE thing IN ACCESS EXCLUSIVE MODE");
      long begun = System.nanoTime();
      assertThatThrownBy(
              () ->
                  new Pipeline(new OpenedPlan(on.database(), source, PLAN, CONTEXT, Shared.NONE))
                      .run("1", Ledger.NONE, Runs.stoppedSoon()))
          .hasMessageContaining("It was stopped. Nothing was written.");
      assertThat(Duration.ofNanos(System.nanoTime() - begun)).isLessThan(Duration.ofSeconds(10));
      on.connection().rollback();
      on.connection().setAutoCommit(true);
      assertThat(on.one("SELECT COUNT(*) FROM thing")).isEqualTo(0L);
    }
  }

  @Test
  @Timeout(30)
  void aLockThatNobodyLetsGoIsSaidSo() throws Exception {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute("CREATE TABLE thing (nr integer PRIMARY KEY, name text)");
      String url = on.connection().getMetaData().getURL();
      String schema = on.connection().getSchema();
      Database hasty =
          Database.connect(
              Address.parse(
                  url.replaceFirst("\\?.*", "") + "?currentSchema=" + schema,
                  Address.Rules.ANYWHERE),
              "postgres",
              "postgres",
              new Patience(Duration.ofMillis(400), Duration.ofSeconds(20)));
      TableInfo thing = hasty.table("thing");
      on.connection().setAutoCommit(false);
      on.execute("LOCK TABLE thing IN ACCESS EXCLUSIVE MODE");
      assertThat(code(catchThrowable(() -> hasty.count(thing)))).isEqualTo("database-locked");
      on.connection().rollback();
    }
  }

  @Test
  void aSchemaIsFoundAsItIsWritten() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      String own = on.connection().getSchema();
      String odd = "Liburu, \"Zahar\" " + own.substring(0, 9);
      on.execute(
          "CREATE SCHEMA \"" + odd.replace("\"", "\"\"") + "\"",
          "CREATE SCHEMA \"X" + own + "\"",
          "CREATE TABLE \"X" + own + "\".\"Liburu bat\" (nr integer PRIMARY KEY)",
          "CREATE TABLE \"" + odd.replace("\"", "\"\"") + "\".apala (nr integer PRIMARY KEY)");
      String url = on.connection().getMetaData().getURL().replaceFirst("\\?.*", "");
      assertThat(at(url, "X" + own).ownTableNames()).containsExactly("Liburu bat");
      assertThat(at(url, "nowhere,X" + own + " , " + own).ownTableNames())
          .containsExactly("Liburu bat");
      assertThat(at(url, "\"" + odd.replace("\"", "\"\"") + "\"").ownTableNames())
          .containsExactly("apala");
      assertThat(at(url, own).ownTableNames()).isEmpty();
      assertThatThrownBy(() -> at(url, "x" + own).tableNames())
          .hasMessageContaining("The database has no schema “x" + own + "”");
      for (String nonsense : List.of(",", "a,,b", "\"a", "a\"b", "\"a\"b")) {
        assertThatThrownBy(() -> at(url, nonsense))
            .hasMessageContaining("The setting currentSchema can't be “" + nonsense + "”");
      }
    }
  }

  private static Database at(String url, String schema) {
    String told = URLEncoder.encode(schema, StandardCharsets.UTF_8);
    return Database.connect(url + "?currentSchema=" + told, "postgres", "postgres");
  }

  /** Two servers that know nothing of each other: what is claimed is claimed in the database. */
  @Test
  void tablesAreClaimedAcrossProcesses() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute(
          "CREATE TABLE thing (nr integer PRIMARY KEY)",
          "CREATE TABLE town (id integer PRIMARY KEY)");
      String url = on.connection().getMetaData().getURL().replaceFirst("\\?.*", "");
      String schema = "?currentSchema=" + on.connection().getSchema();
      // another name of the same host, so that nothing is shared inside this process
      Database here = Database.connect(url + schema, "postgres", "postgres");
      Database there =
          Database.connect(
              (url.contains("localhost")
                      ? url.replace("localhost", "127.0.0.1")
                      : url.replace("127.0.0.1", "localhost"))
                  + schema,
              "postgres",
              "postgres");
      TableInfo thing = here.table("thing");
      TableInfo town = here.table("town");
      try (WriteSession one = here.begin();
          WriteSession two = there.begin()) {
        assertThat(one.claim(List.of(thing), List.of(town))).isTrue();
        assertThat(two.claim(List.of(thing), List.of())).isFalse();
        assertThat(two.claim(List.of(town), List.of())).as("it is looked up in").isFalse();
        one.commit();
        assertThat(two.claim(List.of(thing), List.of(town))).as("between two batches").isFalse();
        one.close();
        assertThat(two.claim(List.of(thing), List.of(town))).as("after the end").isTrue();
      }
      try (WriteSession one = here.begin();
          WriteSession two = there.begin()) {
        assertThat(one.claim(List.of(thing), List.of(town))).isTrue();
        assertThat(two.claim(List.of(), List.of(town))).as("both only look up").isTrue();
      }
    }
  }

  /** What a run's end was is found in the database, by its mark or by its records. */
  @Test
  void aTransactionIsSettledByItsMark() throws Exception {
    try (Databases.Fresh on = Databases.postgres();
        SourceTable source = things(3)) {
      on.execute("CREATE TABLE thing (nr integer PRIMARY KEY, name text)");
      String[] marks = new String[2];
      Ledger commits = marking(marks, 0, false);
      new Pipeline(new OpenedPlan(on.database(), source, PLAN, CONTEXT, Shared.NONE))
          .run("1", commits, Progress.NONE);
      on.execute("DELETE FROM thing");
      assertThatThrownBy(
              () ->
                  new Pipeline(new OpenedPlan(on.database(), source, PLAN, CONTEXT, Shared.NONE))
                      .run("2", marking(marks, 1, true), Progress.NONE))
          .hasMessage("cut off");
      Settlement settlement = new Settlement(on.database());
      assertThat(settlement.byMark(marks[0])).isEqualTo(Settled.COMMITTED);
      assertThat(settlement.byMark(marks[1])).isEqualTo(Settled.TAKEN_BACK);
      assertThat(settlement.byMark(null)).isNull();
    }
  }

  private static Ledger marking(String[] marks, int at, boolean cutsOff) {
    return new Ledger() {
      @Override
      public void begin(LedgerLayout layout) {
        // only the mark is wanted
      }

      @Override
      public void append(LedgerChunk chunk) {
        // only the mark is wanted
      }

      @Override
      public void beforeCommit(Batch batch, RunReport report, String mark) {
        marks[at] = mark;
        if (cutsOff) {
          throw new IllegalStateException("cut off");
        }
      }
    };
  }
}
