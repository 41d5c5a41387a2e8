package org.zestyporter.core.source.cache;

import java.util.Arrays;
import org.zestyporter.core.value.Utf8;

/**
 * How a column of a chunk is written: the number of its entries, signs of what is left out, then
 * the kind of each entry, the length of each, their texts one behind the other, and the code of
 * each row. Entry 0 is blank.
 */
final class ColumnBlock {
  /** All entries are texts: there are no kinds. */
  private static final int TEXTS = 1;

  /** Each row has an entry of its own, in the order of the rows: there are no codes. */
  private static final int IN_ORDER = 2;

  /** A text has more than 255 bytes: lengths take four bytes instead of one. */
  private static final int LONG = 4;

  /** The codes of a full chunk whose entries are in order. */
  private static final int[] ORDER = order(SourceCache.CHUNK_ROWS);

  private ColumnBlock() {}

  private static int[] order(int rows) {
    int[] codes = new int[rows];
    Arrays.setAll(codes, row -> row + 1);
    return codes;
  }

  /** Codes take one byte, or two where there are more entries than one can tell apart. */
  private static boolean isNarrow(int entries) {
    return entries <= 256;
  }

  /**
   * Writes a column.
   *
   * @param size bytes of all texts
   * @param ends where the text of each entry ends, and the next begins
   * @param rows rows of the chunk; those behind the codes are blank
   * @param texts true if all entries are texts
   * @param inOrder true if each row has an entry of its own
   * @param longest bytes of the longest text
   */
  static void write(
      Utf8 out,
      byte[] bytes,
      int size,
      int[] ends,
      byte[] kinds,
      int entries,
      int[] codes,
      int rows,
      boolean texts,
      boolean inOrder,
      int longest) {
    boolean wide = longest > 255;
    out.putBytes(entries, 4);
    out.put((texts ? TEXTS : 0) | (inOrder ? IN_ORDER : 0) | (wide ? LONG : 0));
    if (!texts) {
      out.put(kinds, 0, entries);
    }
    for (int code = 0; code < entries; code++) {
      int length = code == 0 ? 0 : ends[code] - ends[code - 1];
      if (wide) {
        out.putBytes(length, 4);
      } else {
        out.put(length);
      }
    }
    out.put(bytes, 0, size);
    if (!inOrder) {
      int width = isNarrow(entries) ? 1 : 2;
      for (int row = 0; row < rows; row++) {
        out.putBytes(row < codes.length ? codes[row] : 0, width);
      }
    }
  }

  /** Reads a column of so many rows. */
  static ColumnChunk read(byte[] bytes, int rows) {
    int entries = number(bytes, 0, 4);
    int at = 4;
    int signs = bytes[at++];
    byte[] kinds = null;
    if ((signs & TEXTS) == 0) {
      kinds = Arrays.copyOfRange(bytes, at, at + entries);
      at += entries;
    }
    boolean wide = (signs & LONG) != 0;
    int text = at + (wide ? 4 : 1) * entries;
    int[] starts = new int[entries];
    int[] ends = new int[entries];
    for (int code = 0; code < entries; code++) {
      starts[code] = text;
      text += wide ? number(bytes, at + 4 * code, 4) : bytes[at + code] & 0xFF;
      ends[code] = text;
    }
    return new ColumnChunk(bytes, starts, ends, kinds, codes(bytes, text, entries, rows, signs));
  }

  private static int[] codes(byte[] bytes, int from, int entries, int rows, int signs) {
    if ((signs & IN_ORDER) != 0) {
      return rows == ORDER.length ? ORDER : Arrays.copyOf(ORDER, rows);
    }
    int[] codes = new int[rows];
    for (int row = 0; row < rows; row++) {
      codes[row] = isNarrow(entries) ? bytes[from + row] & 0xFF : number(bytes, from + 2 * row, 2);
    }
    return codes;
  }

  private static int number(byte[] bytes, int at, int length) {
    int number = 0;
    for (int i = at; i < at + length; i++) {
      number = number << 8 | bytes[i] & 0xFF;
    }
    return number;
  }
}
