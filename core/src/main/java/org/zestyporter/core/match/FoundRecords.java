package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.IntConsumer;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.ValueColumn;

/**
 * The primary keys of the records that were found for the keys of rows, by the place that these
 * have in their {@link KeySet}. About 12 bytes a record whose key is a number.
 */
final class FoundRecords {
  private static final int PIECE = 1 << 16;
  private static final int FEW = 16;

  private final List<FieldInfo> keyFields;

  /** The primary keys in the order in which they were noted, and the places they were found for. */
  private final List<ValueColumn[]> pieces = new ArrayList<>();

  private final List<int[]> places = new ArrayList<>();
  private ColumnMaker[] makers = {};
  private int count;

  /** A bit for each place that has a record, and the number of them before each 64. */
  private long[] held = {};

  private int[] ranks = {};

  /** The last record of each such place, by its number. */
  private int[] last = {};

  /** The record before it of the same place; empty while no place has two. */
  private int[] before = {};

  /** The records of places that have many, once they were asked for. */
  private final Map<Integer, List<List<Object>>> several = new ConcurrentHashMap<>();

  FoundRecords(List<FieldInfo> keyFields) {
    this.keyFields = keyFields;
  }

  /**
   * Notes a record.
   *
   * @param columns hold primary keys, from some place on
   * @param at the record's place in them
   */
  void add(int place, ValueColumn[] columns, int from, int at) {
    if (count % PIECE == 0) {
      close();
      makers = new ColumnMaker[keyFields.size()];
      Arrays.setAll(makers, f -> new ColumnMaker());
      places.add(new int[PIECE]);
    }
    for (int i = 0; i < makers.length; i++) {
      put(makers[i], keyFields.get(i), columns[from + i], at);
    }
    places.get(count / PIECE)[count % PIECE] = place;
    count++;
  }

  private void close() {
    if (count > 0) {
      pieces.add(Arrays.stream(makers).map(ColumnMaker::column).toArray(ValueColumn[]::new));
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

  /**
   * Makes the records ready to be asked for; nothing is noted after this.
   *
   * @param size number of places
   */
  void settle(int size) {
    close();
    makers = new ColumnMaker[0];
    held = new long[size / Long.SIZE + 1];
    for (int number = 0; number < count; number++) {
      held[place(number) / Long.SIZE] |= 1L << place(number);
    }
    ranks = new int[held.length];
    int rank = 0;
    for (int i = 0; i < held.length; i++) {
      ranks[i] = rank;
      rank += Long.bitCount(held[i]);
    }
    last = new int[rank];
    Arrays.fill(last, -1);
    for (int number = 0; number < count; number++) {
      int slot = slot(place(number));
      chain(number, last[slot]);
      last[slot] = number;
    }
    places.clear();
  }

  private int place(int number) {
    return places.get(number / PIECE)[number % PIECE];
  }

  private int slot(int place) {
    long lower = (1L << place) - 1;
    return ranks[place / Long.SIZE] + Long.bitCount(held[place / Long.SIZE] & lower);
  }

  private void chain(int number, int other) {
    if (other >= 0) {
      if (before.length == 0) {
        before = new int[count];
        Arrays.fill(before, -1);
      }
      before[number] = other;
    }
  }

  int size() {
    return count;
  }

  boolean isEmpty() {
    return count == 0;
  }

  /** True if a place has any record; none has if it is under 0. */
  boolean has(int place) {
    return place >= 0 && count > 0 && (held[place / Long.SIZE] >>> place & 1) != 0;
  }

  /** The records of a place, in the order in which they were noted; none if it is under 0. */
  List<List<Object>> of(int place) {
    if (!has(place)) {
      return List.of();
    }
    int number = last[slot(place)];
    if (before.length == 0 || before[number] < 0) {
      return List.of(key(number));
    }
    return isMany(number)
        ? several.computeIfAbsent(place, p -> several(last[slot(p)]))
        : several(number);
  }

  /** True if a place has so many records that they should not be gone through for each row. */
  private boolean isMany(int from) {
    int many = 0;
    for (int number = from; number >= 0 && many <= FEW; number = before[number]) {
      many++;
    }
    return many > FEW;
  }

  /** A record and those before it of the same place; an answer may hold one twice. */
  private List<List<Object>> several(int from) {
    Set<List<Object>> all = new LinkedHashSet<>();
    for (int number = from; number >= 0; number = before[number]) {
      all.add(key(number));
    }
    List<List<Object>> inOrder = new ArrayList<>(all);
    Collections.reverse(inOrder);
    return Collections.unmodifiableList(inOrder);
  }

  /** Visits the places that have several records. */
  void several(IntConsumer visitor) {
    if (before.length == 0) {
      return;
    }
    for (int i = 0; i < held.length; i++) {
      for (long bits = held[i]; bits != 0; bits &= bits - 1) {
        int place = i * Long.SIZE + Long.numberOfTrailingZeros(bits);
        if (before[last[slot(place)]] >= 0) {
          visitor.accept(place);
        }
      }
    }
  }

  private List<Object> key(int number) {
    ValueColumn[] columns = pieces.get(number / PIECE);
    int at = number % PIECE;
    if (columns.length == 1) {
      return List.of(columns[0].value(at));
    }
    List<Object> key = new ArrayList<>(columns.length);
    for (ValueColumn column : columns) {
      key.add(column.value(at));
    }
    return List.copyOf(key);
  }
}
