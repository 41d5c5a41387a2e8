package org.zestyporter.server.kill;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.application.jdbc.MariaServer;

/**
 * The server and the database are killed at random moments of runs in batches (SIGKILL). After each
 * start a run that was cut off goes on; what it says of itself is what stands, and at its end every
 * row is there once.
 */
class BatchKillTest {
  private static final int KILLS = Integer.getInteger("porter.kills", 10);

  /** A run of five batches takes about this long. */
  private static final int RUN_MILLIS = 2_500;

  /** How long the database takes to commit a batch, so that kills meet it. */
  private static final int COMMIT_MILLIS = 60;

  @TempDir Path home;
  @TempDir Path data;

  private KillableDatabase database;
  private int cutOff;
  private int done;

  @Test
  void everyRowIsThereOnceInPostgres() throws Exception {
    everyRowIsThereOnce(new KillableDatabase.Postgres(data), KILLS);
  }

  /** It tells nothing of its transactions: what was being committed is settled by the records. */
  @Test
  void everyRowIsThereOnceInMariaDb() throws Exception {
    assumeTrue(MariaServer.isWanted(), "without MariaDB");
    everyRowIsThereOnce(new KillableDatabase.Maria(), KILLS / 3);
  }

  private void everyRowIsThereOnce(KillableDatabase killed, int kills) throws Exception {
    database = killed;
    Random random = new Random(20261126);
    database.begin();
    database.makeTable(COMMIT_MILLIS);
    int ofDatabase = 0;
    try {
      for (int kill = 0; kill < kills; kill++) {
        try (Killed server = new Killed()) {
          server.goOn();
          if (kill == 0) {
            // one is sure to be met between its batches, however slow the machine
            untilSomeBatchStands();
            continue;
          }
          Thread.sleep(random.nextInt(RUN_MILLIS));
          if (kill % 2 == 1) {
            ofDatabase++;
            database.kill();
            Thread.sleep(random.nextInt(400));
            database.begin();
            Thread.sleep(random.nextInt(RUN_MILLIS));
          }
        }
      }
      try (Killed server = new Killed()) {
        server.goOn();
        server.until("ENDED done");
      }
      // what came through is told by the next one
      new Killed().close();
    } finally {
      database.close();
    }
    System.out.println(
        "Killed "
            + kills
            + " times, the database "
            + ofDatabase
            + " times: cut off "
            + cutOff
            + ", done "
            + done);
    assertThat(cutOff).as("runs that were found cut off between batches").isPositive();
    assertThat(done).as("runs that were done at last").isPositive();
  }

  /** Waits until records of a run stand of which more are to come. */
  private void untilSomeBatchStands() throws SQLException, InterruptedException {
    for (int i = 0; i < 6_000; i++) {
      try (Connection connection = database.connect();
          Statement statement = connection.createStatement();
          ResultSet count = statement.executeQuery("SELECT COUNT(*) FROM thing")) {
        count.next();
        if (count.getLong(1) % KilledServer.BATCH_ROWS != 0) {
          return;
        }
      }
      Thread.sleep(10);
    }
    throw new AssertionError("no batch came to stand within a minute");
  }

  /** A server whose word about the runs that it found was held against what stands. */
  private final class Killed implements AutoCloseable {
    private final Process process;
    private final BufferedReader out;

    Killed() throws IOException, SQLException {
      process = KilledServer.start(home, database.url(), 0, true);
      out =
          new BufferedReader(
              new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
      try {
        told(out);
      } catch (IOException | SQLException | RuntimeException | Error e) {
        // a server that is left behind would keep the tests from ending
        process.destroyForcibly();
        throw e;
      }
    }

    /** Lets it make runs, or go on with the one that was cut off. */
    void goOn() throws IOException {
      process.getOutputStream().write('\n');
      process.getOutputStream().flush();
      until("BEGIN");
    }

    void until(String wanted) throws IOException {
      for (String line = out.readLine(); !wanted.equals(line); line = out.readLine()) {
        assertThat(line).as("the server ended by itself").isNotNull();
      }
    }

    @Override
    public void close() throws IOException, InterruptedException {
      process.destroyForcibly();
      process.waitFor(20, TimeUnit.SECONDS);
      out.close();
    }
  }

  /** Compares what a server says of the runs that it finds with what stands. */
  private void told(BufferedReader out) throws IOException, SQLException {
    done = 0;
    for (String line = out.readLine(); !"TOLD".equals(line); line = out.readLine()) {
      assertThat(line).as("the server ended by itself").isNotNull();
      if (!line.startsWith("FOUND ")) {
        continue;
      }
      String[] words = line.split(" ");
      assertThat(words[3]).as("settled: " + line).isNotIn("going", "committing");
      int file = Integer.parseInt(words[1].replace(".csv", ""));
      long rows =
          switch (words[3]) {
            case "done" -> KilledServer.BATCH_ROWS;
            case "interrupted" -> Long.parseLong(words[5]);
            default -> 0;
          };
      done += words[3].equals("done") ? 1 : 0;
      cutOff += words[3].equals("interrupted") ? 1 : 0;
      if (words[3].equals("failed")) {
        // another run of the same file may have come through
        assertThat(words[4]).as(line).matches("interrupted|database-.*");
        continue;
      }
      try (Connection connection = database.connect();
          Statement statement = connection.createStatement();
          ResultSet found =
              statement.executeQuery(
                  "SELECT COUNT(*), COUNT(DISTINCT nr), COALESCE(MAX(nr), 0),"
                      + " COALESCE(SUM(CASE WHEN name <> CONCAT('name ', MOD(nr * 31, 997))"
                      + " THEN 1 ELSE 0 END), 0)"
                      + " FROM thing WHERE batch = "
                      + file)) {
        found.next();
        assertThat(found.getLong(1)).as("records of " + line).isEqualTo(rows);
        assertThat(found.getLong(2)).as("different ones of " + line).isEqualTo(rows);
        assertThat(found.getLong(3)).as("last one of " + line).isEqualTo(rows);
        assertThat(found.getLong(4)).as("odd ones of " + line).isZero();
      }
    }
  }
}
