package org.zestyporter.core.application.jdbc;

import java.sql.BatchUpdateException;
import java.sql.SQLException;
import java.util.List;
import org.zestyporter.core.value.PorterException;

/** Errors of databases in the user's words: each way of failing has a sentence of its own. */
final class DatabaseErrors {
  static final String REFUSED = "database-refused";

  private DatabaseErrors() {}

  /**
   * A way of failing.
   *
   * @param states beginnings of SQL states (ISO/IEC 9075, and the product's own classes)
   * @param codes H2's own numbers
   * @param words what the message holds; empty if anything
   */
  private record Failing(
      String code, List<String> states, List<Integer> codes, String words, String sentence) {
    boolean fits(String state, int number, String message) {
      boolean told = states.stream().anyMatch(state::startsWith) || codes.contains(number);
      return told && message.contains(words);
    }
  }

  /** The first that fits counts. */
  private static final List<Failing> FAILINGS =
      List.of(
          new Failing(
              "database-driver",
              List.of("08001"),
              List.of(),
              "No suitable driver",
              "This build has no driver for the database's address."),
          new Failing(
              "database-host",
              List.of("08001", "08004", "08006"),
              List.of(),
              "UnknownHost",
              "Nobody knows the host of the database. Check its name in the address."),
          new Failing(
              "database-port",
              List.of("08001"),
              List.of(),
              "refused",
              "The database can't be reached: nothing answers at its host and port. Check that it"
                  + " is running, then try again."),
          new Failing(
              "database-missing",
              List.of("3D000"),
              List.of(90_013, 90_146),
              "",
              "The server is there, but has no database of this name."),
          new Failing(
              "database-sign-in",
              List.of("28"),
              List.of(),
              "",
              "The database did not accept the user or password of this connection."),
          new Failing(
              "database-full-house",
              List.of("53300"),
              List.of(),
              "",
              "The database takes no more connections at the moment. Try again a little later."),
          new Failing(
              "database-stopping",
              List.of("57P01", "57P02", "57P03"),
              List.of(90_098, 90_121),
              "",
              "The database ended the connection, since it is being shut down or somebody ended"
                  + " it there. What was not committed is taken back."),
          new Failing(
              "database-lost",
              List.of("08003", "08006", "08007"),
              List.of(90_007, 90_067, 90_031),
              "",
              "The connection to the database was lost. What was not committed is taken back."),
          new Failing(
              "database-in-use",
              List.of(),
              List.of(90_020),
              "",
              "Another program has the database file open and shares it with nobody."),
          new Failing(
              "database-unreachable",
              List.of("08"),
              List.of(),
              "",
              "The database can't be reached. Check that it is running, then try again."),
          new Failing(
              "database-locked",
              List.of("55P03", "HYT00"),
              List.of(50_200),
              "",
              "Somebody else has the records or the table locked, and did not let go in time"
                  + " (setting porter.lock-wait). Try again when they are done."),
          new Failing(
              "database-deadlock",
              List.of("40P01", "40001"),
              List.of(),
              "",
              "The database ended this because somebody else and it waited for each other. Try"
                  + " again."),
          new Failing(
              "database-slow",
              List.of("57014"),
              List.of(57_014),
              "",
              "The database took longer than is allowed here (setting porter.statement-time), or"
                  + " the statement was ended there."),
          new Failing(
              "database-disk",
              List.of("53100"),
              List.of(),
              "",
              "The disk of the database is full."),
          new Failing(
              "database-read-only",
              List.of("25006"),
              List.of(90_097),
              "",
              "The database can only be read through this connection."),
          new Failing(
              "database-rights",
              List.of("42501"),
              List.of(90_096),
              "",
              "The user of this connection has no right to do this in the database."),
          new Failing(
              "table-gone",
              List.of("42P01", "42S02", "42S04"),
              List.of(),
              "",
              "The table is no longer there: it was renamed or removed since it was last looked"
                  + " at."));

  static PorterException translate(SQLException e) {
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
    for (Failing failing : FAILINGS) {
      if (failing.fits(state, told.getErrorCode(), message)) {
        return new PorterException(
            PorterException.Kind.DATABASE, failing.code(), failing.sentence(), e);
      }
    }
    return new PorterException(
        PorterException.Kind.DATABASE, REFUSED, "The database refused: " + reason(e) + ".", e);
  }

  private static SQLException root(SQLException e) {
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
    message = message.replaceFirst("(?s); SQL statement:.*", "").replaceFirst("(?s)^ERROR: ", "");
    message = message.replaceAll("\\s*\\n\\s*(Detail: )?", ": ").strip();
    message = message.length() > 300 ? message.substring(0, 300) + "…" : message;
    return message.endsWith(".") ? message.substring(0, message.length() - 1) : message;
  }
}
