package org.zestyporter.core.application.jdbc;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.application.Settled;

/** What became of a transaction, also where the server that numbered it has been lost since. */
class PostgresMarkTest {
  private static final PostgresDialect DIALECT = new PostgresDialect();

  private static Databases.Fresh on;

  @BeforeAll
  static void begin() throws SQLException {
    on = Databases.postgres();
    on.execute("CREATE TABLE note (id INTEGER)");
  }

  @AfterAll
  static void end() throws SQLException {
    on.close();
  }

  private static Connection connect() throws SQLException {
    return DriverManager.getConnection(
        on.connection().getMetaData().getURL(), "postgres", "postgres");
  }

  /** The mark of a transaction that has written, and is ended so. */
  private static String ended(boolean commits) throws SQLException {
    try (Connection connection = connect();
        Statement statement = connection.createStatement()) {
      connection.setAutoCommit(false);
      statement.execute("INSERT INTO note VALUES (1)");
      String mark = DIALECT.mark(connection);
      if (commits) {
        connection.commit();
      } else {
        connection.rollback();
      }
      return mark;
    }
  }

  private static Settled settled(String mark) throws SQLException {
    try (Connection connection = connect()) {
      return DIALECT.settled(connection, mark);
    }
  }

  /** The same number, given by a server that was started at another time. */
  private static String before(String mark) {
    return mark.substring(0, mark.indexOf('@')) + "@1700000000.000000";
  }

  @Test
  void theServerTellsOfItsOwnTransactions() throws SQLException {
    assertThat(settled(ended(true))).isEqualTo(Settled.COMMITTED);
    assertThat(settled(ended(false))).isEqualTo(Settled.TAKEN_BACK);
    try (Connection going = connect()) {
      going.setAutoCommit(false);
      assertThat(settled(DIALECT.mark(going))).isEqualTo(Settled.GOING);
    }
  }

  /** A number that was lost is given again: that one of it was committed says nothing. */
  @Test
  void afterALossTheRecordsTell() throws SQLException {
    assertThat(settled(before(ended(true)))).isNull();
    assertThat(settled(before(ended(false)))).isEqualTo(Settled.TAKEN_BACK);
    try (Connection going = connect()) {
      going.setAutoCommit(false);
      assertThat(settled(before(DIALECT.mark(going)))).isEqualTo(Settled.TAKEN_BACK);
    }
    String mark = ended(true);
    // as versions before wrote it
    assertThat(settled(mark.substring(0, mark.indexOf('@')))).isNull();
  }

  @Test
  void aNumberThatWasNeverGivenIsLost() throws SQLException {
    String mark = ended(true);
    long number = Long.parseLong(mark.substring(0, mark.indexOf('@')));
    String later = (number + 1_000_000) + mark.substring(mark.indexOf('@'));
    assertThat(settled(later)).isEqualTo(Settled.TAKEN_BACK);
    assertThat(settled(before(later))).isEqualTo(Settled.TAKEN_BACK);
  }
}
