package org.zestyporter.core.application.jdbc;

import static org.zestyporter.core.value.ErrorCode.*;

import java.nio.file.Path;
import java.sql.BatchUpdateException;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * The errors of one database in the user's words: each way of failing has a sentence of its own.
 *
 * <p>What the standard's SQL states tell (ISO/IEC 9075-2, table 38) is the same for all; a dialect
 * says before that what its database tells in ways of its own.
 */
final class DatabaseErrors {

  /**
   * A way of failing.
   *
   * @param states beginnings of SQL states
   * @param numbers the database's own numbers
   * @param words what the message holds besides, in small letters; empty if anything
   * @param sentence what happened
   */
  record Failing(
      ErrorCode code, Set<String> states, Set<Integer> numbers, String words, String sentence) {

    /** What SQL states tell. */
    static Failing states(ErrorCode code, String sentence, String... states) {
      return new Failing(code, Set.of(states), Set.of(), "", sentence);
    }

    /** What the database's own numbers tell. */
    static Failing numbers(ErrorCode code, String sentence, Integer... numbers) {
      return new Failing(code, Set.of(), Set.of(numbers), "", sentence);
    }

    /** The same, if its message also holds some words. */
    Failing saying(String some) {
      return new Failing(code, states, numbers, some, sentence);
    }

    boolean fits(String state, int number, String message) {
      boolean told = states.stream().anyMatch(state::startsWith) || numbers.contains(number);
      return told && message.toLowerCase(Locale.ROOT).contains(words);
    }
  }

  static final String ENDED =
      "The database ended the connection, since it is being shut down or somebody ended it there."
          + " What was not committed is taken back.";
  static final String LOST =
      "The connection to the database was lost. What was not committed is taken back.";
  static final String MISSING = "The server is there, but has no database of this name.";
  static final String FULL_HOUSE = "The database takes no more connections at the moment.";
  static final String SIGN_IN =
      "The database did not accept the user or password of this connection.";
  static final String TLS =
      "The database and this connection can't agree on TLS: the server does not offer it, or its"
          + " certificate can't be verified.";
  static final String DISK = "The disk of the database is full.";
  static final String LOCKED =
      "Somebody else has the records or the table locked, and did not let go in time (setting"
          + " porter.lock-wait).";
  static final String DEADLOCK =
      "The database ended this because somebody else and it waited for each other.";
  static final String GONE =
      "The table is no longer there: it was renamed or removed since it was last looked at.";
  static final String SLOW =
      "The database took longer than is allowed here (setting porter.statement-time), or the"
          + " statement was ended there.";
  static final String READ_ONLY = "The database can only be read through this connection.";
  static final String RIGHTS =
      "The user of this connection has no right to do this in the database.";

  /** What is the same for all; the first that fits counts. */
  private static final List<Failing> COMMON =
      List.of(
          Failing.states(
                  DATABASE_DRIVER, "This build has no driver for the database's address.", "08001")
              .saying("no suitable driver"),
          Failing.states(DATABASE_HOST, "Nobody knows the host of the database.", "08")
              .saying("unknownhost"),
          Failing.states(
                  DATABASE_PORT,
                  "The database can't be reached: nothing answers at its host and port.",
                  "08001",
                  "08000")
              .saying("refused"),
          Failing.states(DATABASE_TLS, TLS, "08").saying("ssl"),
          Failing.states(DATABASE_SIGN_IN, SIGN_IN, "28"),
          Failing.states(DATABASE_LOST, LOST, "08003", "08006", "08007"),
          Failing.states(DATABASE_UNREACHABLE, "The database can't be reached.", "08"),
          Failing.states(DATABASE_DEADLOCK, DEADLOCK, "40001"),
          Failing.states(TABLE_GONE, GONE, "42S02", "42S04"));

  private final List<Failing> failings;

  /**
   * @param own what the database tells in ways of its own
   */
  DatabaseErrors(List<Failing> own) {
    failings = new ArrayList<>(own);
    failings.addAll(COMMON);
  }

  /** The error as a person is told it. */
  PorterException translate(SQLException e) {
    SQLException told = root(e);
    String state = told.getSQLState() == null ? "" : told.getSQLState();
    String message = String.valueOf(told.getMessage());
    if (told.getCause() != null) {
      message += " " + told.getCause();
    }
    if (state.isEmpty() && message.contains("onnection is closed")) {
      // what a pool says of a connection that broke under it
      state = "08003";
    }
    for (Failing failing : failings) {
      if (failing.fits(state, told.getErrorCode(), message)) {
        return failing.code().error(failing.sentence(), e);
      }
    }
    return DATABASE_REFUSED.error("The database refused: " + reason(e) + ".", e);
  }

  /** What is thrown once a database's file was taken away. */
  static PorterException fileGone(Path file) {
    return DATABASE_LOST.error(
        "The database's file "
            + file.getFileName()
            + " is no longer there: what was written since it was taken away is lost with it.",
        "Put it back, then try again.");
  }

  /** What was thrown at first. */
  static SQLException root(SQLException e) {
    SQLException cause = e;
    while (cause instanceof BatchUpdateException && cause.getNextException() != null) {
      cause = cause.getNextException();
    }
    return cause;
  }

  /** The first sentence of what the database said, without its statement and codes. */
  static String reason(SQLException e) {
    SQLException cause = root(e);
    String message = cause.getMessage() == null ? "no reason given" : cause.getMessage();
    message = message.replaceFirst("(?s); SQL statement:.*", "");
    message = message.replaceFirst("(?s)^(ERROR: |\\(conn=\\d+\\) )", "");
    message = message.replaceFirst("(?s)^\\[SQLITE_\\w+]\\s+[^(]*\\((.*)\\)$", "$1");
    message = message.replaceAll("\\s*\\n\\s*(Detail: )?", ": ").strip();
    message = message.length() > 300 ? message.substring(0, 300) + "…" : message;
    return message.endsWith(".") ? message.substring(0, message.length() - 1) : message;
  }
}
