package org.zestyporter.core.match;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.LongMap;

/**
 * Which keys the rows of a source hold, and which of them several rows hold: eight bytes a row.
 *
 * <p>Keys are noted by their hashes, row by row, then settled once. Whoever finds two rows by the
 * same hash compares the keys themselves; see {@link Repeat#isSame}.
 */
final class KeyNotes {
  private static final int PIECE = 1 << 16;

  private static final int PLACE_WEIGHT = 4;
  private static final int KEY_WEIGHT = 7;

  /** With the key itself, and a place in a map. */
  private static final int REPEAT_WEIGHT = 120;

  /** Rows that hold the same key. */
  static final class Repeat {
    private int first = -1;
    private int last;
    private long said;
    private boolean differ;
    private byte @Nullable [] key;

    /** The same rows, of which it is not known whether they say the same. */
    private synchronized Repeat uncompared() {
      Repeat same = new Repeat();
      same.first = first;
      same.last = last;
      same.key = key;
      return same;
    }

    /** Index of the first row that holds it. */
    int first() {
      return first;
    }

    /** Index of the last row that holds it. */
    int last() {
      return last;
    }

    /** Notes what one of these rows says, as a hash that is never 0. */
    void says(long hash) {
      differ |= said != 0 && said != hash;
      said = hash;
    }

    /** True if not all of these rows say the same. */
    boolean differ() {
      return differ;
    }

    /** False if this key has the hash of another one that came before; remembers the first. */
    synchronized boolean isSame(byte[] bytes, int length) {
      if (key == null) {
        key = Arrays.copyOf(bytes, length);
      }
      return Arrays.equals(key, 0, key.length, bytes, 0, length);
    }
  }

  private long[][] byRow = new long[16][];

  private int rows;
  private boolean isSettled;
  private boolean keepsPlaces;
  private int @Nullable [] placeOf;
  private KeySet distinct = KeySet.NONE;
  private LongMap<Repeat> repeats = new LongMap<>();

  /** Where it is not known whether rows with the same key say the same; once settled. */
  KeyNotes uncompared() {
    KeyNotes same = new KeyNotes();
    same.byRow = byRow;
    same.rows = rows;
    same.isSettled = isSettled;
    same.keepsPlaces = keepsPlaces;
    same.placeOf = placeOf;
    same.distinct = distinct;
    same.repeats = repeats.mapped(Repeat::uncompared);
    return same;
  }

  /** Notes the key of the next row; 0 if it has none. */
  void note(long hash) {
    piece()[rows % PIECE] = hash;
    rows++;
  }

  /** That of the next row. */
  private long[] piece() {
    int piece = rows / PIECE;
    if (piece == byRow.length) {
      byRow = Arrays.copyOf(byRow, piece * 2);
    }
    if (byRow[piece] == null) {
      byRow[piece] = new long[PIECE];
    }
    return byRow[piece];
  }

  /**
   * Notes the keys of some rows, whose places may be asked for more than once.
   *
   * @param out true for those that hold none after all
   */
  void note(long[] hashes, boolean[] out) {
    keepsPlaces = true;
    for (int row = 0; row < hashes.length; ) {
      long[] piece = piece();
      int from = rows % PIECE;
      int count = Math.min(hashes.length - row, PIECE - from);
      for (int i = 0; i < count; i++) {
        piece[from + i] = out[row + i] ? 0 : hashes[row + i];
      }
      row += count;
      rows += count;
    }
  }

  /** Makes ready to be asked; nothing is noted after this. */
  void settle() {
    if (isSettled) {
      return;
    }
    isSettled = true;
    int[] places = keepsPlaces ? new int[rows] : null;
    distinct = new KeySet(byRow, rows, hash -> repeats.put(hash, new Repeat()), places);
    placeOf = distinct.isPlaced() ? places : null;
    for (int row = 0; repeats.size() > 0 && row < rows; row++) {
      long hash = byRow[row / PIECE][row % PIECE];
      Repeat repeat = hash == 0 ? null : repeats.get(hash);
      if (repeat != null) {
        if (repeat.first < 0) {
          repeat.first = row;
        }
        repeat.last = row;
      }
    }
    byRow = new long[0][];
  }

  /**
   * Finds the first and the last row that hold some keys; nothing is noted after this.
   *
   * @param wanted takes the indexes of both by the hash of the key
   */
  void locate(LongMap<int[]> wanted) {
    for (int row = 0; wanted.size() > 0 && row < rows; row++) {
      long hash = byRow[row / PIECE][row % PIECE];
      int[] found = hash == 0 ? null : wanted.get(hash);
      if (found != null) {
        found[0] = found[0] < 0 ? row : found[0];
        found[1] = row;
      }
    }
    byRow = new long[0][];
  }

  /**
   * The places of the keys of some rows among the distinct ones; under 0 where there is none.
   *
   * @param first index of the first of them among the noted rows
   * @param hashes their keys; of rows that were left out it is not told whether others have it
   */
  int[] places(int first, long[] hashes) {
    int[] known = placeOf;
    if (known != null) {
      return Arrays.copyOfRange(known, first, first + hashes.length);
    }
    return places(hashes);
  }

  /** The places of some keys among the distinct ones; under 0 where there is none. */
  int[] places(long[] hashes) {
    int[] places = new int[hashes.length];
    distinct.places(hashes, places);
    return places;
  }

  /** The distinct keys that were noted. */
  KeySet distinct() {
    return distinct;
  }

  /** The rows that hold it, if several do; else null. */
  @Nullable Repeat repeat(long hash) {
    return repeats.get(hash);
  }

  /** True if several rows hold the same key. */
  boolean hasRepeats() {
    return repeats.size() > 0;
  }

  /** About how many bytes it takes. */
  long weight() {
    return (long) PLACE_WEIGHT * rows + (long) KEY_WEIGHT * distinct.size() + weightOfRepeats();
  }

  /** The same of what is told of rows with the same key. */
  long weightOfRepeats() {
    return (long) REPEAT_WEIGHT * repeats.size();
  }

  boolean isEmpty() {
    return rows == 0;
  }

  /** Number of rows, with those that hold none. */
  int size() {
    return rows;
  }
}
