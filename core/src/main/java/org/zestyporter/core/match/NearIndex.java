package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.match.NearParts.Held;
import org.zestyporter.core.match.NearParts.Ready;
import org.zestyporter.core.value.LongIndex;
import org.zestyporter.core.value.Spelling;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/**
 * Values by what is near to them in the fields of a match key; each takes about 250 bytes.
 *
 * <p>They are added, then settled once, and numbered from 0 as they come.
 */
final class NearIndex {
  /** Letters in which texts that are spelt alike may differ: two for each slip. */
  private static final int MOST_LETTERS = 2 * Spelling.MOST_SLIPS;

  private final NearParts parts;
  private final List<Held> held = new ArrayList<>();

  /**
   * Signs with the letters that belong to them, and the numbers of those that have them: as they
   * come, then by the beginnings of the signs.
   */
  private long[] signs = new long[64];

  private long[] letters = new long[64];

  private int[] owners = new int[64];
  private int count;
  private int[] ends = {};
  private int shift;

  NearIndex(NearParts parts) {
    this.parts = parts;
  }

  /** Takes what is near; false if that is enough. */
  @FunctionalInterface
  interface Taker {
    boolean take(int number, double distance);
  }

  /** Values that can be compared, as they are kept and as they are compared. */
  record Given(Held held, Ready ready) {}

  /** Those of a record; null if a part is blank, or there is nothing to compare. */
  @Nullable Given ofParts(ValueColumn[] columns, int at, Utf8 scratch) {
    return given(parts.ofParts(columns, at, scratch));
  }

  /** Those of a row. */
  @Nullable Given ofRow(ValueColumn[] byField, int row, Utf8 scratch) {
    return given(parts.ofRow(byField, row, scratch));
  }

  private @Nullable Given given(@Nullable Held values) {
    Ready ready = values == null ? null : parts.ready(values);
    return ready == null ? null : new Given(values, ready);
  }

  /** Takes the next. */
  void add(Given one) {
    int number = held.size();
    held.add(one.held);
    parts.signs(one.ready, (sign, has) -> put(sign, has, number));
  }

  private void put(long sign, long has, int owner) {
    if (count == signs.length) {
      letters = Arrays.copyOf(letters, count * 2);
      signs = Arrays.copyOf(signs, count * 2);
      owners = Arrays.copyOf(owners, count * 2);
    }
    signs[count] = sign;
    letters[count] = has;
    owners[count++] = owner;
  }

  /** Makes them ready to be found; nothing is added after this. */
  void settle() {
    int bits = Math.max(1, Integer.SIZE - Integer.numberOfLeadingZeros(count));
    shift = Long.SIZE - bits;
    ends = new int[1 << bits];
    for (int i = 0; i < count; i++) {
      ends[(int) (signs[i] >>> shift)]++;
    }
    int before = 0;
    for (int b = 0; b < ends.length; b++) {
      int own = ends[b];
      ends[b] = before;
      before += own;
    }
    long[] sorted = new long[count];
    long[] sortedLetters = new long[count];
    int[] sortedOwners = new int[count];
    for (int i = 0; i < count; i++) {
      int place = ends[(int) (signs[i] >>> shift)]++;
      sorted[place] = signs[i];
      sortedLetters[place] = letters[i];
      sortedOwners[place] = owners[i];
    }
    signs = sorted;
    letters = sortedLetters;
    owners = sortedOwners;
  }

  /** The values that need not agree, such as {@code name Marigolde}. */
  String told(int number) {
    return parts.told(held.get(number));
  }

  /**
   * Finds what is near, each once.
   *
   * @param before number of the first that is not looked at
   */
  void near(Given given, int before, Taker taker) {
    new Search(given.ready, before, taker).go();
  }

  private final class Search {
    private final Ready wanted;
    private final long has;
    private final int before;
    private final Taker taker;
    private final LongIndex seen = new LongIndex();
    private boolean isOver;

    Search(Ready wanted, int before, Taker taker) {
      this.wanted = wanted;
      this.has = parts.letters(wanted);
      this.before = before;
      this.taker = taker;
    }

    void go() {
      parts.wanted(wanted, this::look);
    }

    private void look(long sign) {
      int b = (int) (sign >>> shift);
      // those of a beginning stand in the order in which they were added
      for (int i = b == 0 ? 0 : ends[b - 1]; !isOver && i < ends[b] && owners[i] < before; i++) {
        boolean may = signs[i] == sign && Long.bitCount(has ^ letters[i]) <= MOST_LETTERS;
        if (may && seen.put(owners[i] + 1L, 0) < 0) {
          double distance = parts.distance(wanted, held.get(owners[i]));
          isOver = distance >= 0 && !taker.take(owners[i], distance);
        }
      }
    }
  }
}
