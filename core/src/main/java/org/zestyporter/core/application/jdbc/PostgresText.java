package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/** The text format of {@code COPY}, which takes values of all types. */
final class PostgresText implements PostgresRows {
  private static final LocalDate FIRST_DAY = LocalDate.of(1, 1, 1);
  private static final LocalDate LAST_DAY = LocalDate.of(9_999, 12, 31);

  private final ValueColumn[] columns;

  PostgresText(ValueColumn[] columns) {
    this.columns = columns;
  }

  /** True if all values have a text that the database reads as that very value. */
  static boolean canTell(ValueColumn[] columns, int[] rows) {
    for (ValueColumn column : columns) {
      boolean can =
          switch (column.form()) {
            case NUMBER, TEXT -> true;
            case DATE -> isBetween(column, rows, 1);
            case MOMENT -> isBetween(column, rows, PostgresBinary.MICROS_OF_DAY);
            case ANY -> Arrays.stream(rows).allMatch(row -> canTell(column.value(row)));
          };
      if (!can) {
        return false;
      }
    }
    return true;
  }

  /** True if days or moments, of which there are so many in a day, are of years of four digits. */
  private static boolean isBetween(ValueColumn column, int[] rows, long ofDay) {
    long first = FIRST_DAY.toEpochDay() * ofDay;
    long end = (LAST_DAY.toEpochDay() + 1) * ofDay;
    for (int row : rows) {
      long held = column.number(row);
      if (held != ValueColumn.BLANK && (held < first || held >= end)) {
        return false;
      }
    }
    return true;
  }

  private static boolean canTell(@Nullable Object value) {
    LocalDate day = Values.day(value);
    return day == null || !day.isBefore(FIRST_DAY) && !day.isAfter(LAST_DAY);
  }

  @Override
  public String options() {
    return "";
  }

  @Override
  public void begin(Utf8 out) {
    // nothing comes before
  }

  @Override
  public void row(int row, Utf8 out) {
    for (int f = 0; f < columns.length; f++) {
      if (f > 0) {
        out.put('\t');
      }
      write(columns[f].value(row), out);
    }
    out.put('\n');
  }

  @Override
  public void end(Utf8 out) {
    // nothing comes after
  }

  private static void write(@Nullable Object value, Utf8 out) {
    if (value == null) {
      out.put("\\N");
      return;
    }
    String text = value instanceof BigDecimal number ? number.toPlainString() : value.toString();
    int from = 0;
    for (int i = 0; i < text.length(); i++) {
      String escaped =
          switch (text.charAt(i)) {
            case '\\' -> "\\\\";
            case '\t' -> "\\t";
            case '\n' -> "\\n";
            case '\r' -> "\\r";
            default -> null;
          };
      if (escaped != null) {
        out.put(text.substring(from, i)).put(escaped);
        from = i + 1;
      }
    }
    out.put(from == 0 ? text : text.substring(from));
  }
}
