package org.zestyporter.core.application;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.WriteSession.Change;
import org.zestyporter.core.value.ValueColumn;

/**
 * Records to insert, by columns. A blank in a field that has a default is left to the application.
 *
 * @param columns one a field of the table; null where nothing is given
 * @param rows the row of the columns that each record is
 * @param lines line of the row that each record comes from, for messages
 */
public record NewRecords(
    TableInfo table, @Nullable ValueColumn[] columns, int[] rows, long[] lines) {

  /**
   * Records that were described one by one.
   *
   * @param changes all with the same fields
   */
  public static NewRecords of(TableInfo table, List<Change> changes) {
    ValueColumn[] columns = new ValueColumn[table.fields().size()];
    List<Integer> fields = changes.get(0).fields();
    for (int f = 0; f < fields.size(); f++) {
      Object[] values = new Object[changes.size()];
      for (int i = 0; i < values.length; i++) {
        values[i] = changes.get(i).values().get(f);
      }
      columns[fields.get(f)] = ValueColumn.of(values, null);
    }
    return new NewRecords(
        table,
        columns,
        IntStream.range(0, changes.size()).toArray(),
        changes.stream().mapToLong(Change::line).toArray());
  }

  public int count() {
    return rows.length;
  }

  /** The fields that are given values, in the table's order. */
  public List<FieldInfo> fields() {
    return IntStream.range(0, columns.length)
        .filter(f -> columns[f] != null)
        .mapToObj(table.fields()::get)
        .toList();
  }

  /** Their columns, in the same order. */
  public ValueColumn[] given() {
    return Arrays.stream(columns).filter(c -> c != null).toArray(ValueColumn[]::new);
  }

  /** Places of records that leave the same fields to the application. */
  public Collection<int[]> alike() {
    int[] open = open();
    if (open.length == 0) {
      return List.of(IntStream.range(0, rows.length).toArray());
    }
    Map<BitSet, BitSet> groups = new LinkedHashMap<>();
    for (int i = 0; i < rows.length; i++) {
      groups.computeIfAbsent(left(open, i), l -> new BitSet()).set(i);
    }
    return groups.values().stream().map(g -> g.stream().toArray()).toList();
  }

  /** The same, in their order: only neighbours stand together. */
  public Collection<int[]> neighbours() {
    int[] open = open();
    List<int[]> groups = new ArrayList<>();
    for (int from = 0; from < rows.length; ) {
      BitSet left = left(open, from);
      int to = from + 1;
      while (to < rows.length && left(open, to).equals(left)) {
        to++;
      }
      groups.add(IntStream.range(from, to).toArray());
      from = to;
    }
    return groups;
  }

  /** The fields that any record leaves to the application, as places in the table. */
  private int[] open() {
    return IntStream.range(0, columns.length)
        .filter(
            f -> columns[f] != null && table.fields().get(f).mayBeLeft() && columns[f].hasBlanks())
        .toArray();
  }

  /** Those of them that a record leaves. */
  private BitSet left(int[] open, int place) {
    BitSet left = new BitSet();
    for (int f : open) {
      left.set(f, columns[f].isBlank(rows[place]));
    }
    return left;
  }

  /** True if the application gives the records keys, in the order in which it gets them. */
  public boolean areNumbered() {
    return table.fields(table.primaryKey()).stream()
        .anyMatch(key -> columns[table.fields().indexOf(key)] == null);
  }

  /**
   * Some of the records, which leave the same fields to the application: these are not given.
   *
   * @param places by {@link #alike} or {@link #neighbours}
   */
  public NewRecords some(int[] places) {
    int[] open = open();
    if (open.length == 0 && places.length == rows.length) {
      return this;
    }
    ValueColumn[] given = columns.clone();
    left(open, places[0]).stream().forEach(f -> given[f] = null);
    return new NewRecords(
        table,
        given,
        Arrays.stream(places).map(i -> rows[i]).toArray(),
        Arrays.stream(places).mapToLong(i -> lines[i]).toArray());
  }

  /** The records described one by one. */
  public List<Change> changes() {
    List<Integer> fields =
        IntStream.range(0, columns.length).filter(f -> columns[f] != null).boxed().toList();
    List<Change> changes = new ArrayList<>(rows.length);
    for (int i = 0; i < rows.length; i++) {
      List<Object> values = new ArrayList<>(fields.size());
      for (int f : fields) {
        values.add(columns[f].value(rows[i]));
      }
      changes.add(new Change(lines[i], null, fields, values));
    }
    return changes;
  }
}
