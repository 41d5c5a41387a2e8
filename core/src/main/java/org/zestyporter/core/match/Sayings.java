package org.zestyporter.core.match;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.Awaited;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/**
 * Writes what rows say in some fields as bytes: the same for the same values, in whatever form a
 * chunk holds them.
 */
final class Sayings {
  /** More digits than a whole number of 64 bits has for certain. */
  private static final int LONG_DIGITS = 19;

  private static final int BLANK = 0;
  private static final int NUMBER = 1;
  private static final int TEXT = 2;
  private static final int UNMADE = 3;

  private final List<FieldInfo> fields;
  private final int[] indexes;

  Sayings(List<FieldInfo> fields, TableInfo table) {
    this.fields = fields;
    this.indexes = fields.stream().mapToInt(table.fields()::indexOf).toArray();
  }

  List<String> fields() {
    return fields.stream().map(FieldInfo::name).toList();
  }

  /**
   * Writes all that a row says.
   *
   * @param byField the columns of the table's fields; null where nothing fills one
   */
  void write(ValueColumn[] byField, int row, Utf8 out) {
    out.clear();
    for (int i = 0; i < indexes.length; i++) {
      ValueColumn column = byField[indexes[i]];
      int from = out.size();
      if (column == null || column.isBlank(row)) {
        out.put(BLANK);
      } else {
        value(fields.get(i).storage(), column, row, out);
      }
      out.putBytes(out.size() - from, Integer.BYTES);
    }
  }

  private static void value(Storage storage, ValueColumn column, int row, Utf8 out) {
    Storage.Kind kind = storage.kind();
    if (column.form() == ValueColumn.Form.NUMBER && kind == Storage.Kind.NUMBER) {
      number(column.number(row), column.scale(), out);
    } else if (column.form() == ValueColumn.Form.DATE && kind == Storage.Kind.DATE) {
      number(column.number(row), 0, out);
    } else if (column.form() == ValueColumn.Form.TEXT && kind == Storage.Kind.TEXT) {
      out.put(TEXT);
      column.text(row, out);
    } else {
      value(storage, column.value(row), out);
    }
  }

  private static void value(Storage storage, @Nullable Object value, Utf8 out) {
    if (value instanceof Awaited || value instanceof Pending) {
      out.put(UNMADE).put(value.toString());
      return;
    }
    Object held = storage.canonical(value);
    BigDecimal number = held instanceof BigDecimal any ? any.stripTrailingZeros() : null;
    if (number != null && number.scale() >= 0 && number.precision() < LONG_DIGITS) {
      number(number.unscaledValue().longValue(), number.scale(), out);
    } else if (number != null && number.scale() < 0 && isLong(number)) {
      number(number.longValue(), 0, out);
    } else if (held instanceof LocalDate day) {
      number(day.toEpochDay(), 0, out);
    } else {
      out.put(TEXT).put(String.valueOf(number == null ? held : number));
    }
  }

  private static boolean isLong(BigDecimal number) {
    return number.precision() - number.scale() < LONG_DIGITS;
  }

  private static void number(long unscaled, int scale, Utf8 out) {
    long rest = unscaled;
    int behind = scale;
    while (behind > 0 && rest % 10 == 0) {
      rest /= 10;
      behind--;
    }
    out.put(NUMBER).put(behind).putBytes(rest, Long.BYTES);
  }
}
