package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.clearInvocations;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.spy;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.source.SourceTable;

/** What one draft has come to know is there for the next. */
class KnownRecordsTest {
  @TempDir Path folder;

  @Test
  void tablesAreReadOnceAndNeverToTheirEnd() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE TABLE mason (id INTEGER PRIMARY KEY, mail VARCHAR(40) UNIQUE)",
          "CREATE TABLE wall (id INTEGER PRIMARY KEY, mason_id INTEGER REFERENCES mason (id),"
              + " built_on DATE)",
          "INSERT INTO mason VALUES (1, 'a@post.example'), (2, 'b@post.example')");
      Application application = spy(on.database());
      KnownRecords known = new KnownRecords(application);
      for (int i = 0; i < 3; i++) {
        try (SourceTable source =
            PlanDraftTest.file(folder, "Id;Who;Built", "1;a@post.example;2020-01-02")) {
          assertThat(new PlanDraft(known, source, List.of()).rank().get(0).destination().table())
              .isEqualTo("wall");
        }
      }
      // once for what its records are like, once for what they are called by
      verify(application, times(2)).page(named("mason"), any(), anyLong(), anyInt());
      verify(application, never()).look(any(), any());
    }
  }

  /** What was looked at before the first file is not looked at for it. */
  @Test
  void anAcquaintanceSparesTheFirstDraftTheReading() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE TABLE mason (id INTEGER PRIMARY KEY, mail VARCHAR(40) UNIQUE)",
          "CREATE TABLE wall (id INTEGER PRIMARY KEY, mason_id INTEGER REFERENCES mason (id),"
              + " built_on DATE, remark VARCHAR(900))",
          "INSERT INTO mason VALUES (1, 'a@post.example'), (2, NULL)",
          "INSERT INTO wall VALUES (1, 1, DATE '2020-01-02', 'a \"tab\"\there"
              + "x".repeat(500)
              + "'), (2, NULL, NULL, NULL)");
      Application application = spy(on.database());
      KnownRecords known = new KnownRecords(application);
      Acquaintance.make(known, () -> true);
      clearInvocations(application);
      try (SourceTable source =
          PlanDraftTest.file(folder, "Id;Who;Built", "1;a@post.example;2020-01-02")) {
        assertThat(new PlanDraft(known, source, List.of()).rank().get(0).columnsUsed())
            .isEqualTo(3);
      }
      verify(application, never()).page(any(), any(), anyLong(), anyInt());
    }
  }

  @Test
  void anAcquaintanceEndsWhenItIsToldTo() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute("CREATE TABLE wall (id INTEGER PRIMARY KEY)");
      Application application = spy(on.database());
      Acquaintance.make(new KnownRecords(application), () -> false);
      verify(application, never()).page(any(), any(), anyLong(), anyInt());
    }
  }

  @Test
  void aFieldThatIsNewIsSeen() throws SQLException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute("CREATE TABLE wall (id INTEGER PRIMARY KEY)");
      KnownRecords known = new KnownRecords(on.database());
      assertThat(known.sketches(on.database().table("wall"))).hasSize(1);
      on.execute("ALTER TABLE wall ADD COLUMN height INTEGER");
      on.database().forget();
      assertThat(known.sketches(on.database().table("wall"))).hasSize(2);
    }
  }

  private static TableInfo named(String name) {
    return org.mockito.ArgumentMatchers.argThat(t -> t != null && t.name().equals(name));
  }
}
