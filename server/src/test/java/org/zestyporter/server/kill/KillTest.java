package org.zestyporter.server.kill;

import static org.assertj.core.api.Assertions.assertThat;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The server is killed again and again around the commit of a run, or of an undo (SIGKILL).
 * Whatever it says of them after the next start is what stands in the application's table: all of
 * it, or nothing.
 */
class KillTest {
  private static final int KILLS = Integer.getInteger("porter.kills", 10);

  /** How long the database takes to commit, so that kills meet it. */
  private static final int COMMIT_MILLIS = 120;

  private static final String DONE = "done";
  private static final String CUT_OFF = "failed interrupted";
  private static final List<String> ENDS =
      List.of(DONE, CUT_OFF, "undo " + DONE, "undo " + CUT_OFF);

  @TempDir Path home;

  private static Map<Integer, Integer> standing(EmbeddedPostgres postgres) throws SQLException {
    Map<Integer, Integer> standing = new HashMap<>();
    try (Connection connection = postgres.getPostgresDatabase().getConnection();
        Statement statement = connection.createStatement();
        ResultSet found =
            statement.executeQuery("SELECT batch, COUNT(*) FROM thing GROUP BY batch")) {
      while (found.next()) {
        standing.put(found.getInt(1), found.getInt(2));
      }
    }
    return standing;
  }

  @Test
  void whatIsSaidOfARunIsWhatStands() throws Exception {
    Random random = new Random(20261125);
    Map<String, Integer> ends = new LinkedHashMap<>();
    int kills = 0;
    try (EmbeddedPostgres postgres = EmbeddedPostgres.builder().start()) {
      SlowTable.make(postgres, COMMIT_MILLIS, "ROW.nr = 1");
      String url = postgres.getJdbcUrl("postgres", "postgres");
      int batch = 1;
      for (int kill = 0; ; kill++) {
        Process process = KilledServer.start(home, url, batch, false);
        try (BufferedReader out =
            new BufferedReader(
                new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
          compare(told(out), postgres, ends);
          // until each end was seen, which a slow machine takes longer for
          if (kill >= KILLS && ends.keySet().containsAll(ENDS) || kill == 5 * KILLS) {
            break;
          }
          kills = kill + 1;
          // some runs go through undisturbed, then one is cut off somewhere
          int spared = random.nextInt(3);
          for (String line = out.readLine(); line != null; line = out.readLine()) {
            if (line.startsWith("BEGIN ")) {
              batch = Integer.parseInt(line.substring(6)) + 1;
              if (spared-- == 0) {
                Thread.sleep(random.nextInt(COMMIT_MILLIS * 3));
                // it may have begun another one meanwhile, which is read of below
                process.toHandle().destroyForcibly();
              }
            }
          }
        } finally {
          process.destroyForcibly();
          process.waitFor(20, TimeUnit.SECONDS);
        }
      }
    }
    assertThat(ends).containsKeys(ENDS.toArray(String[]::new));
    System.out.println("Killed " + kills + " times: " + ends);
  }

  /** What a server says of a batch: the end of its run, and of the last that took it back. */
  private record Told(String run, String undo) {}

  /** What a server says of the runs that it finds. */
  private static Map<Integer, Told> told(BufferedReader out) throws IOException {
    Map<Integer, Told> told = new LinkedHashMap<>();
    for (String line = out.readLine(); !"TOLD".equals(line); line = out.readLine()) {
      assertThat(line).as("the server ended by itself").isNotNull();
      if (line.startsWith("FOUND ")) {
        String[] words = line.split(" ");
        int batch = Integer.parseInt(words[1].replace(".csv", ""));
        String state = words[3] + (words[4].equals("null") ? "" : " " + words[4]);
        Told before = told.getOrDefault(batch, new Told(null, null));
        boolean undo = words[2].equals("undo");
        assertThat(undo ? before.undo : before.run).as("one of each kind: " + line).isNull();
        told.put(batch, undo ? new Told(before.run, state) : new Told(state, before.undo));
      }
    }
    return told;
  }

  private static void compare(
      Map<Integer, Told> told, EmbeddedPostgres postgres, Map<String, Integer> ends)
      throws SQLException {
    Map<Integer, Integer> standing = standing(postgres);
    ends.clear();
    told.forEach(
        (batch, said) -> {
          ends.merge(said.run, 1, Integer::sum);
          if (said.undo != null) {
            ends.merge("undo " + said.undo, 1, Integer::sum);
            assertThat(said.undo).as("undo of batch " + batch).isIn(DONE, CUT_OFF);
          }
          assertThat(said.run).as("run of batch " + batch).isIn(DONE, CUT_OFF);
          boolean stands = said.run.equals(DONE) && !DONE.equals(said.undo);
          assertThat(standing.getOrDefault(batch, 0))
              .as("records of batch " + batch + ", of which is said " + said)
              .isEqualTo(stands ? KilledServer.ROWS : 0);
        });
    assertThat(told.keySet()).as("every run that stands is known").containsAll(standing.keySet());
  }
}
