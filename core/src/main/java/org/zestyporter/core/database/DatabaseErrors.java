package org.zestyporter.core.database;

import java.sql.BatchUpdateException;
import java.sql.SQLException;
import org.zestyporter.core.value.PorterException;

/** Errors of databases in the user's words. */
final class DatabaseErrors {
  private DatabaseErrors() {}

  static PorterException translate(SQLException e) {
    String state = e.getSQLState() == null ? "" : e.getSQLState();
    if (state.startsWith("08") || state.startsWith("57P") || isH2Closed(e)) {
      return new PorterException(
          PorterException.Kind.DATABASE,
          "database-unreachable",
          "The database can't be reached. Nothing half-written was left behind. Check that it is"
              + " running, then try again.",
          e);
    }
    if (state.startsWith("28")) {
      return new PorterException(
          PorterException.Kind.DATABASE,
          "database-sign-in",
          "The database did not accept the user or password of this connection.",
          e);
    }
    if (state.equals("42P01") || state.equals("42S02") || state.equals("42S04")) {
      return new PorterException(
          PorterException.Kind.DATABASE,
          "table-gone",
          "The table is no longer there: it was renamed or removed since it was last looked at.",
          e);
    }
    return new PorterException(
        PorterException.Kind.DATABASE,
        "database-refused",
        "The database refused: " + reason(e) + ".",
        e);
  }

  private static boolean isH2Closed(SQLException e) {
    return switch (e.getErrorCode()) {
      case 90067, 90098, 90121, 90020, 90013, 90146 -> true;
      default -> false;
    };
  }

  /** The first sentence of what the database said, without its statement and codes. */
  static String reason(SQLException e) {
    SQLException cause = e;
    while (cause instanceof BatchUpdateException && cause.getNextException() != null) {
      cause = cause.getNextException();
    }
    String message = cause.getMessage() == null ? "no reason given" : cause.getMessage();
    message = message.replaceFirst("(?s); SQL statement:.*", "").replaceFirst("(?s)^ERROR: ", "");
    message = message.replaceAll("\\s*\\n\\s*(Detail: )?", ": ").strip();
    message = message.length() > 300 ? message.substring(0, 300) + "…" : message;
    return message.endsWith(".") ? message.substring(0, message.length() - 1) : message;
  }
}
