package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The lines of rows by their indexes; where lines follow each other only the first is kept. */
final class RowLines {
  private final List<long[]> chunks = new ArrayList<>();
  private int[] firsts = new int[16];
  private int rows;

  /** Adds the rows of the next chunk. */
  void add(long[] lines) {
    if (lines.length == 0) {
      return;
    }
    int number = chunks.size();
    if (number == firsts.length) {
      firsts = Arrays.copyOf(firsts, number * 2);
    }
    firsts[number] = rows;
    boolean following = lines[lines.length - 1] - lines[0] == lines.length - 1;
    chunks.add(following ? new long[] {lines[0]} : lines);
    rows += lines.length;
  }

  /** Number of rows. */
  int rows() {
    return rows;
  }

  /** The line of a row. */
  long line(int index) {
    int at = Arrays.binarySearch(firsts, 0, chunks.size(), index);
    int chunk = at < 0 ? -at - 2 : at;
    long[] lines = chunks.get(chunk);
    int inside = index - firsts[chunk];
    return lines.length == 1 ? lines[0] + inside : lines[inside];
  }

  /** Numbers of rows by index, from a source of some of them, or themselves. */
  static final class Sources {
    private @Nullable List<int[]> chunks;
    private final List<Integer> firsts = new ArrayList<>();
    private int rows;

    /**
     * Adds the rows of the next chunk.
     *
     * @param first index of the chunk's first row among the source's rows
     * @param picked its row of each; null if they follow each other
     */
    void add(int first, int @Nullable [] picked, int count) {
      if (picked == null && chunks == null) {
        rows += count;
        return;
      }
      if (chunks == null) {
        chunks = new ArrayList<>();
      }
      int[] sources = new int[count];
      for (int i = 0; i < count; i++) {
        sources[i] = first + (picked == null ? i : picked[i]);
      }
      chunks.add(sources);
      firsts.add(rows);
      rows += count;
    }

    /** The source's row of a row. */
    int source(int index) {
      if (chunks == null) {
        return index;
      }
      int at = java.util.Collections.binarySearch(firsts, index);
      int chunk = at < 0 ? -at - 2 : at;
      return chunk < 0 ? index : chunks.get(chunk)[index - firsts.get(chunk)];
    }
  }
}
