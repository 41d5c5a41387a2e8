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

  /** Rows that hold the same key. */
  static final class Repeat {
    private int first = -1;
    private int last;
    private long said;
    private boolean differ;
    private byte @Nullable [] key;

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
  private KeySet distinct = KeySet.NONE;
  private final LongMap<Repeat> repeats = new LongMap<>();

  /** Notes the key of the next row; 0 if it has none. */
  void note(long hash) {
    int piece = rows / PIECE;
    if (piece == byRow.length) {
      byRow = Arrays.copyOf(byRow, piece * 2);
    }
    if (byRow[piece] == null) {
      byRow[piece] = new long[PIECE];
    }
    byRow[piece][rows % PIECE] = hash;
    rows++;
  }

  /** Makes ready to be asked; nothing is noted after this. */
  void settle() {
    distinct = new KeySet(byRow, rows, hash -> repeats.put(hash, new Repeat()));
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

  boolean isEmpty() {
    return rows == 0;
  }
}
