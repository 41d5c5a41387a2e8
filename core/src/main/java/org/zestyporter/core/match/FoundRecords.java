package org.zestyporter.core.match;

import java.util.AbstractList;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.RandomAccess;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.IntConsumer;
import org.jspecify.annotations.Nullable;
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

  /** Records that are looked for one by one, before it is told for all where each is. */
  private static final int MOST_SEARCHES = 64;

  private final List<FieldInfo> keyFields;

  /** The primary keys in the order in which they were noted, and the places they were found for. */
  private final List<ValueColumn[]> pieces = new ArrayList<>();

  private final List<int[]> places = new ArrayList<>();
  private ColumnMaker[] makers = {};
  private int count;

  /** A bit for each place that has a record, and for each that has several. */
  private long[] held = {};

  private long[] multi = {};
  private boolean hasSeveral;

  /** Which records each place has; null until anybody asks for more than a few. */
  private volatile @Nullable Chains chains;

  private int searches;

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
    multi = new long[held.length];
    for (int number = 0; number < count; number++) {
      int place = place(number);
      if (has(place)) {
        multi[place / Long.SIZE] |= 1L << place;
        hasSeveral = true;
      }
      held[place / Long.SIZE] |= 1L << place;
    }
  }

  private int place(int number) {
    return places.get(number / PIECE)[number % PIECE];
  }

  /**
   * The last record of each place that has any, and for each record the one before it of the same
   * place, all by their numbers.
   */
  private final class Chains {
    /** How many places before each 64 have a record. */
    private final int[] ranks = new int[held.length];

    private final int[] last;
    private final int @Nullable [] before;

    Chains() {
      int rank = 0;
      for (int i = 0; i < held.length; i++) {
        ranks[i] = rank;
        rank += Long.bitCount(held[i]);
      }
      last = new int[rank];
      Arrays.fill(last, -1);
      before = hasSeveral ? new int[count] : null;
      for (int number = 0; number < count; number++) {
        int slot = slot(place(number));
        if (before != null) {
          before[number] = last[slot];
        }
        last[slot] = number;
      }
    }

    private int slot(int place) {
      long lower = (1L << place) - 1;
      return ranks[place / Long.SIZE] + Long.bitCount(held[place / Long.SIZE] & lower);
    }

    int last(int place) {
      return last[slot(place)];
    }

    int before(int number) {
      return before == null ? -1 : before[number];
    }
  }

  private Chains chains() {
    Chains known = chains;
    return known == null ? chained() : known;
  }

  private synchronized Chains chained() {
    if (chains == null) {
      chains = new Chains();
      places.clear();
    }
    return chains;
  }

  /** The number of the record of a place that has one. */
  private int number(int place) {
    int found = chains == null ? search(place) : -1;
    return found < 0 ? chains().last(place) : found;
  }

  /** Goes through all of them for a few, which is sooner done; under 0 if there were more. */
  private synchronized int search(int place) {
    if (chains == null && searches++ < MOST_SEARCHES) {
      for (int piece = 0; piece < places.size(); piece++) {
        int[] some = places.get(piece);
        int length = Math.min(PIECE, count - piece * PIECE);
        for (int i = 0; i < length; i++) {
          if (some[i] == place) {
            return piece * PIECE + i;
          }
        }
      }
    }
    return -1;
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
    if ((multi[place / Long.SIZE] >>> place & 1) == 0) {
      return new Single(place);
    }
    int last = chains().last(place);
    return isMany(last)
        ? several.computeIfAbsent(place, p -> several(chains().last(p)))
        : several(last);
  }

  /** The only record of a place; most that are told how many there are never ask which. */
  private final class Single extends AbstractList<List<Object>> implements RandomAccess {
    private final int place;
    private @Nullable List<Object> key;

    Single(int place) {
      this.place = place;
    }

    @Override
    public List<Object> get(int index) {
      Objects.checkIndex(index, 1);
      List<Object> known = key;
      if (known == null) {
        known = key(number(place));
        key = known;
      }
      return known;
    }

    @Override
    public int size() {
      return 1;
    }
  }

  /** True if a place has so many records that they should not be gone through for each row. */
  private boolean isMany(int from) {
    Chains known = chains();
    int many = 0;
    for (int number = from; number >= 0 && many <= FEW; number = known.before(number)) {
      many++;
    }
    return many > FEW;
  }

  /** A record and those before it of the same place; an answer may hold one twice. */
  private List<List<Object>> several(int from) {
    Set<List<Object>> all = new LinkedHashSet<>();
    Chains known = chains();
    for (int number = from; number >= 0; number = known.before(number)) {
      all.add(key(number));
    }
    List<List<Object>> inOrder = new ArrayList<>(all);
    Collections.reverse(inOrder);
    return Collections.unmodifiableList(inOrder);
  }

  /** Visits the places that have several records. */
  void several(IntConsumer visitor) {
    for (int i = 0; hasSeveral && i < multi.length; i++) {
      for (long bits = multi[i]; bits != 0; bits &= bits - 1) {
        visitor.accept(i * Long.SIZE + Long.numberOfTrailingZeros(bits));
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
