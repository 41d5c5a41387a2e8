package org.zestyporter.core.application.jdbc;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.ValueColumn.Form;

/**
 * The binary format of {@code COPY}, which the database need not parse: each value is its length in
 * bytes and what the receive function of its type takes, numbers with the highest byte first.
 */
final class PostgresBinary implements PostgresRows {
  private static final byte[] SIGNATURE =
      "PGCOPY\n\u00ff\r\n\0".getBytes(StandardCharsets.ISO_8859_1);

  /** Days and microseconds are counted from here. */
  private static final LocalDate EPOCH = LocalDate.of(2000, 1, 1);

  static final long MICROS_OF_DAY = 86_400_000_000L;

  /** A digit of a number is four of ours. */
  private static final int DIGITS = 4;

  private static final long BASE = 10_000;
  private static final long[] POWERS = powers();
  private static final int NEGATIVE = 0x4000;

  private final ValueColumn[] columns;
  private final Put[] puts;
  private final boolean[] withBlanks;

  private PostgresBinary(ValueColumn[] columns, Put[] puts) {
    this.columns = columns;
    this.puts = puts;
    this.withBlanks = new boolean[columns.length];
    for (int f = 0; f < columns.length; f++) {
      withBlanks[f] = columns[f].hasBlanks();
    }
  }

  /** Writes the value of a row that is not blank, its length first. */
  @FunctionalInterface
  private interface Put {
    void put(ValueColumn column, int row, Utf8 out);
  }

  private static long[] powers() {
    long[] powers = new long[19];
    powers[0] = 1;
    for (int i = 1; i < powers.length; i++) {
      powers[i] = powers[i - 1] * 10;
    }
    return powers;
  }

  /** The format for some fields; null if values of any of them can't be written so. */
  static @Nullable PostgresBinary of(List<FieldInfo> fields, ValueColumn[] columns, int[] rows) {
    Put[] puts = new Put[columns.length];
    for (int f = 0; f < puts.length; f++) {
      puts[f] = put(fields.get(f), columns[f], rows);
      if (puts[f] == null) {
        return null;
      }
    }
    return new PostgresBinary(columns, puts);
  }

  private static @Nullable Put put(FieldInfo field, ValueColumn column, int[] rows) {
    // the types' names are those that the database writes; a domain has another
    String type = field.typeName().replaceFirst("\\(.*\\)", "");
    if (column.form() == Form.ANY) {
      return type.equals("boolean")
          ? (c, row, out) -> out.putBytes(1, 4).put(Boolean.TRUE.equals(c.value(row)) ? 1 : 0)
          : areBlank(column, rows) ? (c, row, out) -> {} : null;
    }
    return switch (type) {
      case "smallint" -> whole(column, rows, 2);
      case "integer" -> whole(column, rows, 4);
      case "bigint" -> whole(column, rows, 8);
      case "numeric" -> column.form() == Form.NUMBER ? PostgresBinary::number : null;
      case "text", "character varying", "character" ->
          column.form() == Form.TEXT ? PostgresBinary::text : null;
      case "uuid" -> column.form() == Form.TEXT ? PostgresBinary::uuid : null;
      case "date" -> column.form() == Form.DATE ? PostgresBinary::date : null;
      case "timestamp without time zone" ->
          column.form() == Form.MOMENT ? PostgresBinary::moment : null;
      default -> null;
    };
  }

  private static boolean areBlank(ValueColumn column, int[] rows) {
    for (int row : rows) {
      if (!column.isBlank(row)) {
        return false;
      }
    }
    return true;
  }

  /** A whole number of so many bytes, if all of them fit. */
  private static @Nullable Put whole(ValueColumn column, int[] rows, int bytes) {
    if (column.form() != Form.NUMBER || column.scale() != 0) {
      return null;
    }
    long most = bytes == 8 ? Long.MAX_VALUE : (1L << bytes * 8 - 1) - 1;
    for (int row : rows) {
      long number = column.number(row);
      if (number != ValueColumn.BLANK && (number > most || number < -most - 1)) {
        return null;
      }
    }
    return (c, row, out) -> out.putBytes(bytes, 4).putBytes(c.number(row), bytes);
  }

  /** Number of digits, place of the first, sign, digits after the point, digits. */
  private static void number(ValueColumn column, int row, Utf8 out) {
    int scale = column.scale();
    long number = column.number(row);
    long rest = Math.abs(number);
    long whole = rest / POWERS[scale];
    long part = rest % POWERS[scale];
    int before = 0;
    for (long w = whole; w > 0; w /= BASE) {
      before++;
    }
    int after = part == 0 ? 0 : (scale + DIGITS - 1) / DIGITS;
    out.putBytes(8 + 2L * (before + after), 4);
    out.putBytes(before + after, 2).putBytes(before - 1, 2);
    out.putBytes(number < 0 ? NEGATIVE : 0, 2).putBytes(scale, 2);
    for (int i = before - 1; i >= 0; i--) {
      out.putBytes(whole / POWERS[i * DIGITS] % BASE, 2);
    }
    for (int i = 1; i <= after; i++) {
      int left = scale - i * DIGITS;
      long digits =
          left >= 0 ? part / POWERS[left] % BASE : part % POWERS[DIGITS + left] * POWERS[-left];
      out.putBytes(digits, 2);
    }
  }

  private static void text(ValueColumn column, int row, Utf8 out) {
    out.putBytes(column.textLength(row), 4);
    column.text(row, out);
  }

  private static void uuid(ValueColumn column, int row, Utf8 out) {
    UUID uuid = UUID.fromString((String) column.value(row));
    out.putBytes(16, 4);
    out.putBytes(uuid.getMostSignificantBits(), 8).putBytes(uuid.getLeastSignificantBits(), 8);
  }

  private static void date(ValueColumn column, int row, Utf8 out) {
    out.putBytes(4, 4).putBytes(column.number(row) - EPOCH.toEpochDay(), 4);
  }

  private static void moment(ValueColumn column, int row, Utf8 out) {
    long micros = column.number(row) - EPOCH.toEpochDay() * MICROS_OF_DAY;
    out.putBytes(8, 4).putBytes(micros, 8);
  }

  @Override
  public String options() {
    return " (FORMAT binary)";
  }

  @Override
  public void begin(Utf8 out) {
    // no flags, and no more to say
    out.put(SIGNATURE, 0, SIGNATURE.length).putBytes(0, 4).putBytes(0, 4);
  }

  @Override
  public void row(int row, Utf8 out) {
    out.putBytes(columns.length, 2);
    for (int f = 0; f < columns.length; f++) {
      if (withBlanks[f] && columns[f].isBlank(row)) {
        out.putBytes(-1, 4);
      } else {
        puts[f].put(columns[f], row, out);
      }
    }
  }

  @Override
  public void end(Utf8 out) {
    out.putBytes(-1, 2);
  }
}
