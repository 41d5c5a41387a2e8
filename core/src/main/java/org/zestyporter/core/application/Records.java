package org.zestyporter.core.application;

import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.ValueColumn;

/**
 * Records of a table, by columns. They are found by their primary keys, in the form in which keys
 * are compared.
 *
 * <pre>{@code
 * Records boats = lookups.fetch(boat, keys);
 * int at = boats.at(key);
 * boats.columns()[2].value(at);
 * }</pre>
 */
public final class Records {
  private static final Records NONE = of(new ValueColumn[0], 0);

  private final ValueColumn[] columns;
  private final int count;

  private final KeyIndex places;

  private Records(ValueColumn[] columns, int count, KeyIndex places) {
    this.columns = columns;
    this.count = count;
    this.places = places;
  }

  public static Records none() {
    return NONE;
  }

  /**
   * Records as they were read.
   *
   * @param makers one a field of the table, all of the same length
   */
  public static Records of(TableInfo table, ColumnMaker[] makers) {
    ValueColumn[] columns = new ValueColumn[makers.length];
    for (int f = 0; f < columns.length; f++) {
      columns[f] = makers[f].column();
    }
    KeyIndex places = new KeyIndex();
    places.putAll(table, columns, 0);
    return of(columns, makers.length == 0 ? 0 : makers[0].count(), places);
  }

  /**
   * Records as they are kept elsewhere; they are not found by their keys.
   *
   * @param columns one a field of the table; none if there are none
   */
  public static Records of(ValueColumn[] columns, int count) {
    return of(columns, count, new KeyIndex());
  }

  /**
   * Records as they are kept elsewhere, with their keys.
   *
   * @param places where in the columns each of them is
   */
  public static Records of(ValueColumn[] columns, int count, KeyIndex places) {
    return new Records(columns, count, places);
  }

  /** Takes records one by one, their values in the order of the asked fields. */
  public static Consumer<ValueColumn[]> each(Consumer<Object[]> found) {
    return columns -> {
      for (int at = 0; at < columns[0].rows(); at++) {
        Object[] values = new Object[columns.length];
        for (int f = 0; f < values.length; f++) {
          values[f] = columns[f].value(at);
        }
        found.accept(values);
      }
    };
  }

  public int count() {
    return count;
  }

  /** The columns of the table's fields, in their order; none if there are no records. */
  public ValueColumn[] columns() {
    return columns;
  }

  /** The place of the record of a key; under 0 if it is not among them. */
  public int at(List<Object> key) {
    return places.get(key);
  }

  /** The values of a record by the table's fields. */
  public Object[] values(int at) {
    Object[] values = new Object[columns.length];
    for (int f = 0; f < values.length; f++) {
      values[f] = columns[f].value(at);
    }
    return values;
  }

  /** The values of the record of a key; null if it is not among them. */
  public Object @Nullable [] values(List<Object> key) {
    int at = at(key);
    return at < 0 ? null : values(at);
  }
}
