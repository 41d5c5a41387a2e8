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
    private final int first;
    private int last;
    private byte @Nullable [] key;

    Repeat(int first) {
      this.first = first;
      this.last = first;
    }

    /** Index of the first row that holds it. */
    int first() {
      return first;
    }

    /** Index of the last row that holds it. */
    int last() {
      return last;
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

  /** The distinct hashes, in order, and where those that begin with the same bits start. */
  private long[] sorted = new long[0];

  private int[] starts = new int[2];
  private int bits;
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

  /** Sorts what was noted; nothing is noted after this. */
  void settle() {
    sorted = all();
    Arrays.sort(sorted);
    boolean any = false;
    for (int i = 1; i < sorted.length; i++) {
      if (sorted[i] == sorted[i - 1] && repeats.get(sorted[i]) == null) {
        repeats.put(sorted[i], new Repeat(-1));
        any = true;
      }
    }
    if (any) {
      sorted = distinct(sorted);
    }
    begin();
    for (int row = 0; any && row < rows; row++) {
      long hash = byRow[row / PIECE][row % PIECE];
      Repeat repeat = hash == 0 ? null : repeats.get(hash);
      if (repeat != null) {
        if (repeat.first < 0) {
          repeats.put(hash, new Repeat(row));
        } else {
          repeat.last = row;
        }
      }
    }
    byRow = new long[0][];
  }

  private static long[] distinct(long[] sorted) {
    int count = 1;
    for (int i = 1; i < sorted.length; i++) {
      if (sorted[i] != sorted[i - 1]) {
        sorted[count++] = sorted[i];
      }
    }
    return Arrays.copyOf(sorted, count);
  }

  /** Notes where hashes start, a few for each beginning: they are spread evenly. */
  private void begin() {
    bits = Math.max(1, 30 - Integer.numberOfLeadingZeros(Math.max(1, sorted.length)));
    starts = new int[(1 << bits) + 1];
    int at = 0;
    for (int beginning = 0; beginning < 1 << bits; beginning++) {
      starts[beginning] = at;
      while (at < sorted.length && beginning(sorted[at]) == beginning) {
        at++;
      }
    }
    starts[1 << bits] = sorted.length;
  }

  private int beginning(long hash) {
    return (int) ((hash ^ Long.MIN_VALUE) >>> 64 - bits);
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

  private long[] all() {
    long[] all = new long[rows];
    int count = 0;
    for (int row = 0; row < rows; row++) {
      long hash = byRow[row / PIECE][row % PIECE];
      if (hash != 0) {
        all[count++] = hash;
      }
    }
    return count == rows ? all : Arrays.copyOf(all, count);
  }

  /** True if any row holds it. */
  boolean holds(long hash) {
    if (sorted.length == 0) {
      return false;
    }
    int beginning = beginning(hash);
    for (int i = starts[beginning]; i < starts[beginning + 1]; i++) {
      if (sorted[i] == hash) {
        return true;
      }
    }
    return false;
  }

  /** The rows that hold it, if several do; else null. */
  @Nullable Repeat repeat(long hash) {
    return repeats.get(hash);
  }

  boolean isEmpty() {
    return rows == 0;
  }
}
