package org.zestyporter.core.match;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.Awaited;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/** A match key made ready to compare rows with records: as the bytes of its prepared parts. */
final class PreparedKey {
  private static final long YEAR_1000 = java.time.LocalDate.of(1000, 1, 1).toEpochDay();
  private static final long YEAR_9999 = java.time.LocalDate.of(9999, 12, 31).toEpochDay();

  private final List<FieldInfo> fields;
  private final int[] indexes;

  /** Places of the key's fields among themselves. */
  private final int[] places;

  /** How each field is compared. */
  private final Comparison[] comparisons;

  private final boolean isLoose;

  PreparedKey(MatchKey key, TableInfo table) {
    this.fields = table.fields(key.fields());
    this.indexes = fields.stream().mapToInt(table.fields()::indexOf).toArray();
    this.places = java.util.stream.IntStream.range(0, indexes.length).toArray();
    this.comparisons =
        key.fields().stream()
            .map(f -> Comparison.ignoring(key.ignoring(f)))
            .toArray(Comparison[]::new);
    this.isLoose = Arrays.stream(comparisons).anyMatch(Comparison::isLoose);
  }

  List<FieldInfo> fields() {
    return fields;
  }

  boolean isLoose() {
    return isLoose;
  }

  /**
   * The values of a row's key, each as its field compares it; empty if no record can have them,
   * since one of them is the key of a record that is not made yet.
   */
  List<Object> values(ValueColumn[] byField, int row) {
    List<Object> values = new ArrayList<>(indexes.length);
    for (int i = 0; i < indexes.length; i++) {
      Object value = byField[indexes[i]].value(row);
      if (isUnmade(value)) {
        return List.of();
      }
      values.add(fields.get(i).storage().canonical(value));
    }
    return values;
  }

  private static boolean isUnmade(@Nullable Object value) {
    return value instanceof Awaited || value instanceof Pending;
  }

  /** True if a field is compared by this key more loosely than by its type. */
  boolean loosens(FieldInfo field) {
    int at = fields.indexOf(field);
    return at >= 0 && comparisons[at].isLoose();
  }

  /** True if two values of one of its fields are the same for this key. */
  boolean same(FieldInfo field, Object a, Object b) {
    int at = fields.indexOf(field);
    String left = prepare(at, a);
    return left != null && left.equals(prepare(at, b));
  }

  private String prepare(int i, Object value) {
    return comparisons[i].prepare(fields.get(i).storage().canonical(value));
  }

  /**
   * A row's key as a text, by which it is told whether somebody has decided about it.
   *
   * @return null if a part is blank, or the key of a record that is not made yet
   */
  @Nullable String text(ValueColumn[] byField, int row) {
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < indexes.length; i++) {
      ValueColumn column = byField[indexes[i]];
      Object value = column == null ? null : column.value(row);
      if (value == null || isUnmade(value)) {
        return null;
      }
      text.append(prepare(i, value)).append('\0');
    }
    return text.toString();
  }

  /** The same of values as they are written in a plan; null if these are of other fields. */
  @Nullable String text(Map<String, String> values) {
    if (values.size() != indexes.length) {
      return null;
    }
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < indexes.length; i++) {
      String value = values.get(fields.get(i).name());
      if (value == null) {
        return null;
      }
      boolean isNumber =
          switch (fields.get(i).storage().kind()) {
            case NUMBER, REAL, DOUBLE -> true;
            default -> false;
          };
      text.append(isNumber ? value : comparisons[i].prepare(value)).append('\0');
    }
    return text.toString();
  }

  /**
   * Writes the form in which a row is compared.
   *
   * @param byField the columns of the table's fields; null where nothing fills one
   * @return false if a part of the key is blank
   */
  boolean ofRow(ValueColumn[] byField, int row, Utf8 out) {
    return of(byField, indexes, row, out);
  }

  /** The same of columns of the key's fields alone, in their order. */
  boolean ofParts(ValueColumn[] parts, int row, Utf8 out) {
    return of(parts, places, row, out);
  }

  private boolean of(ValueColumn[] columns, int[] at, int row, Utf8 out) {
    out.clear();
    for (int i = 0; i < at.length; i++) {
      ValueColumn column = columns[at[i]];
      if (column == null || column.isBlank(row)) {
        return false;
      }
      int from = out.size();
      part(i, column, row, out);
      end(from, out);
    }
    return true;
  }

  /**
   * Writes the form in which a record is compared.
   *
   * @param byField its values by the table's fields
   */
  boolean ofRecord(Object[] byField, Utf8 out) {
    out.clear();
    for (int i = 0; i < indexes.length; i++) {
      if (!part(i, byField[indexes[i]], out)) {
        return false;
      }
    }
    return true;
  }

  /** The same of the values of the key's fields alone. */
  boolean of(Object[] parts, Utf8 out) {
    out.clear();
    for (int i = 0; i < indexes.length; i++) {
      if (!part(i, parts[i], out)) {
        return false;
      }
    }
    return true;
  }

  private boolean part(int i, Object value, Utf8 out) {
    String prepared = prepare(i, value);
    if (prepared == null) {
      return false;
    }
    int from = out.size();
    unmade(value, out);
    out.put(prepared);
    end(from, out);
    return true;
  }

  /** Tells where a part ends by its length, so that no two keys read alike. */
  private void end(int from, Utf8 out) {
    if (indexes.length > 1) {
      int length = out.size() - from;
      out.put(length).put(length >> 8).put(length >> 16);
    }
  }

  /** Sets what stands for a record that is not made yet apart from all keys of records. */
  private static void unmade(@Nullable Object value, Utf8 out) {
    if (isUnmade(value)) {
      out.put(0);
    }
  }

  /** What {@link #prepare} gives for the value, without making it where it is plain. */
  private void part(int i, ValueColumn column, int row, Utf8 out) {
    Storage.Kind kind = fields.get(i).storage().kind();
    Comparison comparison = comparisons[i];
    if (!comparison.isLoose()) {
      switch (column.form()) {
        case TEXT -> {
          if (kind == Storage.Kind.TEXT) {
            column.text(row, out);
            return;
          }
        }
        case NUMBER -> {
          if (kind == Storage.Kind.NUMBER) {
            number(column.number(row), column.scale(), out);
            return;
          }
        }
        case DATE -> {
          long day = column.number(row);
          if (kind == Storage.Kind.DATE && day >= YEAR_1000 && day <= YEAR_9999) {
            day(day, out);
            return;
          }
        }
        default -> {
          // value by value
        }
      }
    }
    boolean plain =
        kind == Storage.Kind.TEXT
            && column.form() == ValueColumn.Form.TEXT
            && column.prepare(row, comparison, out);
    if (!plain) {
      Object value = column.value(row);
      unmade(value, out);
      out.put(prepare(i, value));
    }
  }

  /** As {@link org.zestyporter.core.value.Values#plain} writes it. */
  private static void number(long unscaled, int scale, Utf8 out) {
    long rest = unscaled;
    int behind = scale;
    while (behind > 0 && rest % 10 == 0) {
      rest /= 10;
      behind--;
    }
    if (behind == 0) {
      out.putDigits(rest);
      return;
    }
    long power = 1;
    for (int i = 0; i < behind; i++) {
      power *= 10;
    }
    if (rest < 0) {
      out.put('-');
      rest = -rest;
    }
    out.putDigits(rest / power).put('.');
    long fraction = rest % power;
    for (long digit = power / 10; digit > 0; digit /= 10) {
      out.put('0' + (int) (fraction / digit % 10));
    }
  }

  private static void day(long epochDay, Utf8 out) {
    LocalDate date = LocalDate.ofEpochDay(epochDay);
    int month = date.getMonthValue();
    int day = date.getDayOfMonth();
    out.putDigits(date.getYear()).put('-').put('0' + month / 10).put('0' + month % 10);
    out.put('-').put('0' + day / 10).put('0' + day % 10);
  }
}
