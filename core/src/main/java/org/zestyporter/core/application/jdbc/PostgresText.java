package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/** The text format of {@code COPY}, which takes values of all types. */
final class PostgresText implements PostgresRows {
  private static final int LAST_YEAR = 9_999;

  private final ValueColumn[] columns;

  PostgresText(ValueColumn[] columns) {
    this.columns = columns;
  }

  /** True if all values have a text that the database reads as that very value. */
  static boolean canTell(ValueColumn[] columns, int[] rows) {
    for (ValueColumn column : columns) {
      if (column.form() == ValueColumn.Form.NUMBER || column.form() == ValueColumn.Form.TEXT) {
        continue;
      }
      for (int row : rows) {
        if (!canTell(column.value(row))) {
          return false;
        }
      }
    }
    return true;
  }

  private static boolean canTell(@Nullable Object value) {
    int year = 1;
    if (value instanceof LocalDate day) {
      year = day.getYear();
    } else if (value instanceof LocalDateTime moment) {
      year = moment.getYear();
    } else if (value instanceof OffsetDateTime moment) {
      year = moment.getYear();
    }
    return year >= 1 && year <= LAST_YEAR;
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
