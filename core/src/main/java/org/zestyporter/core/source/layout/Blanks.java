package org.zestyporter.core.source.layout;

import java.util.BitSet;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.source.cache.SourceCache;

/** Tells which rows of a chunk hold no cell at all, or none that counts. */
final class Blanks {
  private Blanks() {}

  /**
   * @param rows those that are asked about, by their places in the chunk
   */
  static BitSet of(SourceCache cache, int chunk, BitSet rows) {
    return of(cache, chunk, rows, new BitSet());
  }

  /**
   * @param omit columns whose cells don't count
   */
  static BitSet of(SourceCache cache, int chunk, BitSet rows, BitSet omit) {
    for (int c = 0; c < cache.width(chunk); c++) {
      if (!omit.get(c) && cache.isFull(chunk, c)) {
        return new BitSet();
      }
    }
    BitSet blank = (BitSet) rows.clone();
    for (int c = 0; c < cache.width(chunk) && !blank.isEmpty(); c++) {
      if (omit.get(c) || cache.isBlank(chunk, c)) {
        continue;
      }
      ColumnChunk column = cache.column(chunk, c);
      boolean[] blanks = column.blanks();
      for (int r = blank.nextSetBit(0); r >= 0; r = blank.nextSetBit(r + 1)) {
        if (!blanks[column.codes()[r]]) {
          blank.clear(r);
        }
      }
    }
    return blank;
  }
}
