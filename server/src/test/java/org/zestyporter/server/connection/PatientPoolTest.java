package org.zestyporter.server.connection;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.concurrent.CountDownLatch;
import javax.sql.DataSource;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** Who gets no connection hears why, and no later than needed. */
@Timeout(20)
class PatientPoolTest {
  private static final int STEP = 250;

  private final DataSource database = mock();
  private final Connection connection = mock();

  @BeforeEach
  void answer() throws SQLException {
    when(connection.isValid(anyInt())).thenReturn(true);
  }

  /** It would wait for minutes where waiting helps. */
  private PatientPool pool(int steps) {
    return new PatientPool(database, 1, false, null, STEP, steps);
  }

  @Test
  void whatNoWaitingHelpsAgainstIsToldSoon() throws SQLException {
    when(database.getConnection()).thenThrow(new SQLException("refused", "08001"));
    try (PatientPool pool = pool(1_000)) {
      assertThatThrownBy(pool::lend).isInstanceOf(SQLException.class).hasMessage("refused");
    }
  }

  @Test
  void whatWasRefusedAWhileAgoIsNoReason() throws SQLException {
    when(database.getConnection())
        .thenThrow(new SQLException("refused", "08001"))
        .thenReturn(connection);
    try (PatientPool pool = pool(1_000);
        Connection lent = pool.lend()) {
      assertThat(lent.isValid(1)).isTrue();
    }
  }

  @Test
  void aFullHouseIsWaitedFor() throws SQLException {
    SQLException full = new SQLException("Too many connections", "08004", 1040);
    when(database.getConnection()).thenThrow(full, full, full).thenReturn(connection);
    try (PatientPool pool = pool(1_000);
        Connection lent = pool.lend()) {
      assertThat(lent.isValid(1)).isTrue();
    }
  }

  @Test
  void waitingEndsInTheWordsOfTheDatabase() throws SQLException {
    when(database.getConnection()).thenThrow(new SQLException("starting up", "57P03"));
    try (PatientPool pool = pool(3)) {
      assertThatThrownBy(pool::lend).hasMessage("starting up");
    }
  }

  @Test
  void whatIsLentToOthersIsNotCalledUnreachable() throws SQLException {
    when(database.getConnection()).thenReturn(connection);
    try (PatientPool pool = pool(2);
        Connection lent = pool.lend()) {
      assertThatThrownBy(pool::lend)
          .hasMessage("All connections to the database are in use")
          .extracting(e -> ((SQLException) e).getSQLState())
          .isEqualTo("53300");
      assertThat(lent.isClosed()).isFalse();
    }
  }

  @Test
  void aDatabaseThatHangsIsCalledUnreachable() throws SQLException {
    CountDownLatch never = new CountDownLatch(1);
    when(database.getConnection())
        .thenAnswer(
            call -> {
              never.await();
              return connection;
            });
    try (PatientPool pool = pool(2)) {
      assertThatThrownBy(pool::lend)
          .hasMessage("The database does not answer")
          .extracting(e -> ((SQLException) e).getSQLState())
          .isEqualTo("08001");
      never.countDown();
    }
  }
}
