package org.zestyporter.core.application.jdbc;

import java.io.InputStream;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/**
 * Records as {@code LOAD DATA} takes them (MariaDB's documentation): a line each, values between
 * tabs, {@code \N} for a blank. They are made while they are read.
 */
final class MariaText extends InputStream {
  /** Bytes that are made ready at once. */
  private static final int PIECE = 1 << 14;

  private static final LocalDate EPOCH = LocalDate.EPOCH;
  private static final long MICROS_OF_SECOND = 1_000_000;
  private static final int SECONDS_OF_DAY = 86_400;

  private final ValueColumn[] columns;
  private final int[] rows;
  private final Utf8 ready = new Utf8(PIECE * 2);
  private int given;
  private int next;

  MariaText(ValueColumn[] columns, int[] rows) {
    this.columns = columns;
    this.rows = rows;
  }

  /** True if all values have a text that the database reads as that very value. */
  static boolean canTell(List<FieldInfo> fields, ValueColumn[] columns, int[] rows) {
    for (int f = 0; f < columns.length; f++) {
      if (!canTell(fields.get(f), columns[f], rows)) {
        return false;
      }
    }
    return columns.length > 0 && PostgresText.canTell(columns, rows);
  }

  private static boolean canTell(FieldInfo field, ValueColumn column, int[] rows) {
    boolean can =
        switch (field.storage().kind()) {
          // a year of one or two digits would be another as a text
          case NUMBER -> !field.typeName().startsWith("year");
          case TEXT, PADDED, DATE, MOMENT, DOUBLE -> true;
          case BOOLEAN -> field.typeName().startsWith("tinyint");
          default -> false;
        };
    if (can && column.form() == ValueColumn.Form.ANY) {
      for (int row : rows) {
        can &= text(column.value(row)) != null;
      }
    }
    return can;
  }

  /** A value in letters that mean nothing else; null if it has none. */
  private static @Nullable String text(@Nullable Object value) {
    if (value == null) {
      return "\\N";
    }
    if (value instanceof Boolean truth) {
      return truth ? "1" : "0";
    }
    if (value instanceof BigDecimal number) {
      return number.toPlainString();
    }
    return value instanceof LocalDate || value instanceof LocalDateTime ? value.toString() : null;
  }

  @Override
  public int read() {
    byte[] one = new byte[1];
    return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
  }

  @Override
  public int read(byte[] into, int from, int most) {
    if (given == ready.size()) {
      given = 0;
      ready.clear();
      while (next < rows.length && ready.size() < PIECE) {
        write(rows[next++]);
      }
      if (ready.size() == 0) {
        return -1;
      }
    }
    int count = Math.min(most, ready.size() - given);
    System.arraycopy(ready.array(), given, into, from, count);
    given += count;
    return count;
  }

  private void write(int row) {
    for (int f = 0; f < columns.length; f++) {
      if (f > 0) {
        ready.put('\t');
      }
      write(columns[f], row);
    }
    ready.put('\n');
  }

  private void write(ValueColumn column, int row) {
    if (column.form() == ValueColumn.Form.ANY || column.isBlank(row)) {
      ready.put(text(column.value(row)));
      return;
    }
    switch (column.form()) {
      case NUMBER -> ready.putDecimal(column.number(row), column.scale());
      case DATE -> day(column.number(row));
      case MOMENT -> moment(column.number(row));
      default -> text(column, row);
    }
  }

  private void day(long day) {
    LocalDate date = EPOCH.plusDays(day);
    padded(date.getYear(), 4);
    ready.put('-');
    padded(date.getMonthValue(), 2);
    ready.put('-');
    padded(date.getDayOfMonth(), 2);
  }

  private void moment(long micros) {
    long seconds = Math.floorDiv(micros, MICROS_OF_SECOND);
    day(Math.floorDiv(seconds, SECONDS_OF_DAY));
    long ofDay = Math.floorMod(seconds, SECONDS_OF_DAY);
    ready.put(' ');
    padded(ofDay / 3600, 2);
    ready.put(':');
    padded(ofDay / 60 % 60, 2);
    ready.put(':');
    padded(ofDay % 60, 2);
    ready.put('.');
    padded(Math.floorMod(micros, MICROS_OF_SECOND), 6);
  }

  private void padded(long number, int digits) {
    for (long least = 10, i = 1; i < digits; i++, least *= 10) {
      if (number < least) {
        ready.put('0');
      }
    }
    ready.putDigits(number);
  }

  private void text(ValueColumn column, int row) {
    int from = ready.size();
    column.text(row, ready);
    int at = from;
    while (at < ready.size() && escaped(ready.array()[at]) == 0) {
      at++;
    }
    if (at < ready.size()) {
      byte[] plain = Arrays.copyOfRange(ready.array(), at, ready.size());
      ready.cut(at);
      for (byte b : plain) {
        int letter = escaped(b);
        if (letter != 0) {
          ready.put('\\');
        }
        ready.put(letter != 0 ? letter : b);
      }
    }
  }

  /** What follows the backslash that stands for a byte; 0 if it stands for itself. */
  private static int escaped(byte b) {
    return switch (b) {
      case '\t' -> 't';
      case '\n' -> 'n';
      case '\\' -> '\\';
      case 0 -> '0';
      default -> 0;
    };
  }
}
