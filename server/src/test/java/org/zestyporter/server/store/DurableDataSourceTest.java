package org.zestyporter.server.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.inOrder;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.mockingDetails;
import static org.mockito.Mockito.when;

import com.zaxxer.hikari.HikariDataSource;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import javax.sql.DataSource;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mockito.InOrder;

/** What a change says once it is answered must be in the file: nothing else outlives a kill. */
class DurableDataSourceTest {
  private static final int CHANGES = 40;
  private static final int WRITERS = 3;

  @TempDir Path folder;

  private Path file;
  private HikariDataSource pool;
  private DurableDataSource store;

  @BeforeEach
  void open() throws SQLException {
    file = folder.resolve("own.mv.db");
    pool = new HikariDataSource();
    pool.setJdbcUrl(DurableDataSource.url(file));
    pool.setUsername("porter");
    pool.setPassword("known");
    store = new DurableDataSource(pool);
    change("CREATE TABLE word (id INTEGER PRIMARY KEY, text VARCHAR)");
    for (int i = 0; i < WRITERS; i++) {
      change("INSERT INTO word VALUES (" + i + ", '')");
    }
  }

  @AfterEach
  void close() {
    pool.close();
  }

  private void change(String sql) throws SQLException {
    try (Connection connection = store.getConnection();
        PreparedStatement change = connection.prepareStatement(sql)) {
      change.execute();
    }
  }

  private boolean holds(String word) throws IOException {
    return Files.readString(file, StandardCharsets.ISO_8859_1).contains(word);
  }

  @Test
  void whatIsAnsweredIsInTheFile() throws Exception {
    ExecutorService writers = Executors.newFixedThreadPool(WRITERS);
    try {
      List<Future<List<String>>> all = new ArrayList<>();
      for (int w = 0; w < WRITERS; w++) {
        int writer = w;
        all.add(writers.submit(() -> lost(writer)));
      }
      for (Future<List<String>> one : all) {
        assertThat(one.get()).isEmpty();
      }
    } finally {
      writers.shutdownNow();
    }
  }

  private List<String> lost(int writer) throws SQLException, IOException {
    List<String> lost = new ArrayList<>();
    for (int i = 0; i < CHANGES; i++) {
      String word = "word-" + writer + "-" + i + "-";
      change("UPDATE word SET text = '" + word + "' WHERE id = " + writer);
      if (!holds(word)) {
        lost.add(word);
      }
    }
    return lost;
  }

  @Test
  void whatATransactionWroteIsInTheFileOnceItIsCommitted() throws Exception {
    try (Connection connection = store.getConnection()) {
      connection.setAutoCommit(false);
      try (PreparedStatement change =
          connection.prepareStatement("UPDATE word SET text = 'together' WHERE id = ?")) {
        for (int i = 0; i < WRITERS; i++) {
          change.setInt(1, i);
          change.executeUpdate();
        }
      }
      connection.commit();
      assertThat(holds("together")).isTrue();
      connection.setAutoCommit(true);
    }
  }

  @Test
  void noThreadOfTheDatabaseHoldsChangesBack() throws Exception {
    try (Connection connection = store.getConnection();
        PreparedStatement query =
            connection.prepareStatement(
                "SELECT setting_value FROM information_schema.settings"
                    + " WHERE setting_name = 'WRITE_DELAY'");
        ResultSet found = query.executeQuery()) {
      assertThat(found.next()).isTrue();
      assertThat(found.getString(1)).isEqualTo("0");
    }
  }

  @Test
  void everyChangeIsForcedToTheDiskBeforeItIsAnswered() throws SQLException {
    assertThat(forced("SELECT text FROM word")).isZero();
    assertThat(forced("UPDATE word SET text = ''")).isEqualTo(1);
    assertThat(forced("SELECT id FROM FINAL TABLE (INSERT INTO word VALUES (9, ''))")).isEqualTo(1);
  }

  private static long forced(String sql) throws SQLException {
    DataSource bare = mock(DataSource.class);
    Connection connection = mock(Connection.class);
    Statement statement = mock(Statement.class);
    when(bare.getConnection()).thenReturn(connection);
    when(connection.getAutoCommit()).thenReturn(true);
    when(connection.createStatement()).thenReturn(statement);
    try (Connection durable = new DurableDataSource(bare).getConnection()) {
      durable.prepareStatement(sql);
    }
    InOrder order = inOrder(connection, statement);
    order.verify(connection).prepareStatement(sql);
    long forced =
        mockingDetails(statement).getInvocations().stream()
            .filter(i -> i.getMethod().getName().equals("execute"))
            .filter(i -> i.getArgument(0).equals("CHECKPOINT SYNC"))
            .count();
    if (forced > 0) {
      order.verify(statement).execute("CHECKPOINT SYNC");
    }
    order.verify(connection).close();
    return forced;
  }
}
