package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/**
 * The rows of a source by what is near to them in the fields of a match key, so that of two new
 * records that are much alike the later is asked about.
 */
final class NearRows {
  /** Rows that can be compared with each other; of files with more none are. */
  static final int MOST = 300_000;

  /** Rows that are told for another one, and looked at to find those most alike. */
  private static final int TOLD = 8;

  private static final int LOOKED_AT = 40;

  private final NearParts parts;
  private final int most;
  private @Nullable NearIndex index;
  private int[] rows = new int[64];

  /** The keys of each row, by which it may be known to be the same. */
  private final List<long[]> keys = new ArrayList<>();

  NearRows(NearParts parts) {
    this(parts, MOST);
  }

  /**
   * @param most rows that are compared
   */
  NearRows(NearParts parts, int most) {
    this.parts = parts;
    this.most = most;
    this.index = new NearIndex(parts);
  }

  /**
   * What is near to a row.
   *
   * @param rows indexes among the noted rows, that of the one most alike first
   * @param told what the most alike says, such as {@code name Marigolde}
   */
  record Near(List<Integer> rows, String told) {
    static final Near NONE = new Near(List.of(), "");
  }

  private record Found(int number, double distance) {}

  /**
   * Notes the next row.
   *
   * @param row its index among the noted rows
   * @param own its keys as hashes; 0 where one is blank
   */
  void add(int row, long[] own, ValueColumn[] byField, int at, Utf8 scratch) {
    NearIndex.Given one = index == null ? null : index.ofRow(byField, at, scratch);
    if (one == null) {
      return;
    }
    int number = keys.size();
    if (number == most) {
      index = null;
      keys.clear();
      return;
    }
    if (number == rows.length) {
      rows = Arrays.copyOf(rows, number * 2);
    }
    rows[number] = row;
    keys.add(own);
    index.add(one);
  }

  /** Makes the rows ready to be found; nothing is noted after this. */
  void settle() {
    if (index != null) {
      index.settle();
    }
  }

  /** False if the rows are too many to be compared with each other. */
  boolean areCompared() {
    return index != null;
  }

  /**
   * The rows before a row that are near to it, but not known to be the same by another key.
   *
   * @param row its index among the noted rows
   * @param own its keys as hashes
   */
  Near before(int row, long[] own, ValueColumn[] byField, int at, Utf8 scratch) {
    int before = index == null ? 0 : earlier(row);
    NearIndex.Given given = before == 0 ? null : index.ofRow(byField, at, scratch);
    if (given == null) {
      return Near.NONE;
    }
    List<Found> found = new ArrayList<>();
    index.near(
        given,
        before,
        (number, distance) -> {
          if (!sharesAny(keys.get(number), own)) {
            found.add(new Found(number, distance));
          }
          return found.size() < LOOKED_AT;
        });
    if (found.isEmpty()) {
      return Near.NONE;
    }
    found.sort(Comparator.comparingDouble(Found::distance).thenComparing(Found::number));
    return new Near(
        found.stream().limit(TOLD).map(f -> rows[f.number()]).toList(),
        index.told(found.get(0).number()));
  }

  /** How many were noted before a row. */
  private int earlier(int row) {
    int place = Arrays.binarySearch(rows, 0, keys.size(), row);
    return place < 0 ? -place - 1 : place;
  }

  private static boolean sharesAny(long[] a, long[] b) {
    for (int k = 0; k < a.length; k++) {
      if (a[k] != 0 && a[k] == b[k]) {
        return true;
      }
    }
    return false;
  }
}
