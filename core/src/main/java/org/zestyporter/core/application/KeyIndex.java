package org.zestyporter.core.application;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.value.LongIndex;
import org.zestyporter.core.value.ValueColumn;

/**
 * A map from primary keys, in the form in which keys are compared, to places from 0 on. 20 bytes a
 * key where these are whole numbers.
 */
public final class KeyIndex {
  /** More digits don't fit into a long. */
  private static final int DIGITS = 18;

  private final LongIndex byNumber = new LongIndex();
  private final Map<List<Object>, Integer> others = new HashMap<>();

  /** Gives the place of a key; under 0 if it has none. */
  public int get(List<Object> key) {
    long number = number(key);
    return number == 0 ? others.getOrDefault(key, -1) : byNumber.get(number);
  }

  /**
   * Gives a key a place.
   *
   * @param place under 0 for none
   * @return the one it had; under 0 if none
   */
  public int put(List<Object> key, int place) {
    long number = number(key);
    if (number != 0) {
      return byNumber.put(number, place);
    }
    Integer before = others.put(key, place);
    return before == null ? -1 : before;
  }

  /** Gives a key a place that is a whole number of up to 18 digits. */
  public int put(long key, int place) {
    return byNumber.put(mixed(key), place);
  }

  /**
   * Gives the primary keys of some records places one after the other.
   *
   * @param records a column for each field of the table
   * @param first the place of the first of them
   */
  public void putAll(TableInfo table, ValueColumn[] records, int first) {
    List<FieldInfo> fields = table.fields(table.primaryKey());
    ValueColumn[] keys =
        fields.stream().map(f -> records[table.fields().indexOf(f)]).toArray(ValueColumn[]::new);
    int count = keys.length == 0 ? 0 : keys[0].rows();
    boolean areNumbers = keys.length == 1 && isWhole(keys[0]);
    for (int at = 0; at < count; at++) {
      if (areNumbers) {
        put(keys[0].number(at), first + at);
        continue;
      }
      List<Object> parts = new ArrayList<>(keys.length);
      for (int i = 0; i < keys.length; i++) {
        parts.add(fields.get(i).storage().canonical(keys[i].value(at)));
      }
      put(parts, first + at);
    }
  }

  private static boolean isWhole(ValueColumn column) {
    return column.form() == ValueColumn.Form.NUMBER && column.scale() == 0;
  }

  /** True for a key that is a whole number which fits into a long. */
  public static boolean isWhole(List<Object> key) {
    return key.size() == 1
        && key.get(0) instanceof BigDecimal number
        && number.scale() <= 0
        && number.precision() - number.scale() <= DIGITS;
  }

  /** The number that a key is, as it is held; 0 if it is something else. */
  private static long number(List<Object> key) {
    return isWhole(key) ? mixed(((BigDecimal) key.get(0)).longValue()) : 0;
  }

  /** Sets 0 aside, which the map can't hold; no number of 18 digits comes near. */
  private static long mixed(long number) {
    return number == 0 ? Long.MAX_VALUE : number;
  }
}
