package org.zestyporter.core.application.jdbc;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import org.postgresql.PGStatement;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.value.ColumnMaker;

/**
 * Reads values of records from the bytes that PostgreSQL sends for them in its text format, without
 * an object for each.
 */
final class PostgresValues {
  private static final int MOST_DIGITS = 18;

  private PostgresValues() {}

  /** Has the values of a query sent as texts, also when it is asked again and again. */
  static void asTexts(PreparedStatement query) throws SQLException {
    query.unwrap(PGStatement.class).setPrepareThreshold(0);
  }

  static void read(ResultSet found, int column, FieldInfo field, ColumnMaker into)
      throws SQLException {
    boolean plain =
        switch (field.storage().kind()) {
          case TEXT, CASELESS -> text(found.getBytes(column), into, false);
          case PADDED -> text(found.getBytes(column), into, true);
          case NUMBER -> number(found.getBytes(column), into);
          case DATE -> date(found.getBytes(column), into);
          default -> false;
        };
    if (!plain) {
      into.put(Fields.read(found, column, field));
    }
  }

  private static boolean text(byte[] sent, ColumnMaker into, boolean padded) {
    if (sent == null) {
      into.blank();
      return true;
    }
    int end = sent.length;
    while (padded && end > 0 && sent[end - 1] == ' ') {
      end--;
    }
    into.text(sent, 0, end);
    return true;
  }

  /** A number of up to 18 digits; what is longer, or is called a number and is none, is left. */
  private static boolean number(byte[] sent, ColumnMaker into) {
    if (sent == null) {
      into.blank();
      return true;
    }
    int from = sent[0] == '-' ? 1 : 0;
    int point = -1;
    long number = 0;
    for (int i = from; i < sent.length; i++) {
      int digit = sent[i] - '0';
      if (sent[i] == '.' && point < 0) {
        point = i;
      } else if (digit >= 0 && digit <= 9) {
        number = number * 10 + digit;
      } else {
        return false;
      }
      if (i - from > MOST_DIGITS) {
        return false;
      }
    }
    if (sent.length - from - (point < 0 ? 0 : 1) > MOST_DIGITS) {
      return false;
    }
    into.number(from == 1 ? -number : number, point < 0 ? 0 : sent.length - point - 1);
    return true;
  }

  /** A day as ISO 8601 writes it, of the years 1 to 9999; any other is left. */
  private static boolean date(byte[] sent, ColumnMaker into) {
    if (sent == null) {
      into.blank();
      return true;
    }
    if (sent.length != 10 || sent[4] != '-' || sent[7] != '-') {
      return false;
    }
    int year = digits(sent, 0, 4);
    int month = digits(sent, 5, 7);
    int day = digits(sent, 8, 10);
    if (year < 0 || month < 0 || day < 0) {
      return false;
    }
    into.date(java.time.LocalDate.of(year, month, day).toEpochDay());
    return true;
  }

  private static int digits(byte[] sent, int from, int to) {
    int number = 0;
    for (int i = from; i < to; i++) {
      int digit = sent[i] - '0';
      if (digit < 0 || digit > 9) {
        return -1;
      }
      number = number * 10 + digit;
    }
    return number;
  }
}
