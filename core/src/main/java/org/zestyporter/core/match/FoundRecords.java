package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.LongIndex;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.ValueColumn;

/**
 * The primary keys of the records that were found for the keys of rows, by the hash of these. About
 * 30 bytes a record whose key is a number.
 */
final class FoundRecords {
  private final List<FieldInfo> keyFields;
  private final ColumnMaker[] makers;

  /** The last record of each hash, by its number. */
  private final LongIndex last = new LongIndex();

  /** The record before it of the same hash; empty while no hash has two. */
  private int[] before = {};

  private ValueColumn[] columns = {};

  FoundRecords(List<FieldInfo> keyFields) {
    this.keyFields = keyFields;
    this.makers = new ColumnMaker[keyFields.size()];
    Arrays.setAll(makers, f -> new ColumnMaker());
  }

  /**
   * Notes a record.
   *
   * @param columns hold primary keys, from some place on
   * @param at the record's place in them
   */
  void add(long hashed, ValueColumn[] columns, int from, int at) {
    int number = makers.length == 0 ? 0 : makers[0].count();
    for (int i = 0; i < makers.length; i++) {
      put(makers[i], keyFields.get(i), columns[from + i], at);
    }
    int other = last.put(hashed, number);
    if (other >= 0 && makers.length > 0) {
      chain(number, other);
    }
  }

  private static void put(ColumnMaker maker, FieldInfo field, ValueColumn column, int at) {
    boolean whole = column.form() == ValueColumn.Form.NUMBER && column.scale() == 0;
    if (whole && field.storage().kind() == Storage.Kind.NUMBER && !column.isBlank(at)) {
      maker.number(column.number(at), 0);
    } else {
      maker.put(field.storage().canonical(column.value(at)));
    }
  }

  private void chain(int number, int other) {
    if (before.length <= number) {
      int length = before.length;
      before = Arrays.copyOf(before, Math.max(number + 1, length * 2));
      Arrays.fill(before, length, before.length, -1);
    }
    before[number] = other;
  }

  /** Makes the records ready to be asked for; nothing is noted after this. */
  void settle() {
    columns = new ValueColumn[makers.length];
    Arrays.setAll(columns, f -> makers[f].column());
    Arrays.fill(makers, null);
  }

  boolean isEmpty() {
    return last.size() == 0;
  }

  /** The records of a hash, in the order in which they were noted. */
  List<List<Object>> of(long hashed) {
    int number = last.get(hashed);
    if (number < 0) {
      return List.of();
    }
    if (number >= before.length || before[number] < 0) {
      return List.of(key(number));
    }
    List<List<Object>> all = new ArrayList<>();
    for (; number >= 0; number = number < before.length ? before[number] : -1) {
      List<Object> key = key(number);
      // an answer may hold a record twice
      if (!all.contains(key)) {
        all.add(0, key);
      }
    }
    return all;
  }

  private List<Object> key(int number) {
    if (columns.length == 1) {
      return List.of(columns[0].value(number));
    }
    List<Object> key = new ArrayList<>(columns.length);
    for (ValueColumn column : columns) {
      key.add(column.value(number));
    }
    return List.copyOf(key);
  }
}
