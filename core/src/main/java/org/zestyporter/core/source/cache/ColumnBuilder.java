package org.zestyporter.core.source.cache;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.EightBytes;
import org.zestyporter.core.value.Utf8;

/**
 * Collects the cells of a column of one chunk: a dictionary of cells, and a code for each row.
 *
 * <p>Their texts stand in one array of bytes, so that the parser's thread makes no object for a
 * cell. Where nearly every cell is another one, they are no longer looked for among those before.
 */
final class ColumnBuilder {

  /** Bytes that are copied at once. */
  private static final int STEP = Long.BYTES;

  /** Longer texts are copied in the usual way. */
  private static final int SHORT = 40;

  private static final int FIRST_SIZE = 16;
  private static final Cell.Kind[] KINDS = Cell.Kind.values();
  private static final byte TEXT = (byte) Cell.Kind.TEXT.ordinal();
  private static final byte ERROR = (byte) Cell.Kind.ERROR.ordinal();

  /** Cells after which it is told whether they repeat. */
  private static final int TRIED = 128;

  /** The texts of the entries, one behind the other, with room for {@link #STEP} bytes more. */
  private byte[] texts = new byte[256];

  private int size;
  private int[] ends = new int[FIRST_SIZE];
  private byte[] kinds = new byte[FIRST_SIZE];
  private int[] hashes = new int[FIRST_SIZE];
  private int count = 1;
  private int[] table = new int[FIRST_SIZE * 2];
  private int[] codes = new int[FIRST_SIZE];
  private int lastCode;
  private int filled;
  private int longest;

  /** All kinds of its cells, by their bits: none if all are texts. */
  private byte kindsSeen;

  /** A bit for each byte with which an entry begins; one without text begins with a space. */
  private final long[] firsts = new long[4];

  private boolean looks = true;

  /** Makes it ready for another chunk; its arrays stay as large as they have become. */
  void clear() {
    size = 0;
    Arrays.fill(table, 0);
    Arrays.fill(codes, 0);
    count = 1;
    lastCode = 0;
    filled = 0;
    longest = 0;
    kindsSeen = 0;
    Arrays.fill(firsts, 0);
    looks = true;
  }

  /** Puts a cell of text; returns the bytes that are new here. */
  int text(int row, byte[] bytes, int from, int to, boolean whole) {
    if (from == to) {
      return 0;
    }
    append(bytes, from, to);
    return put(row, whole ? TEXT : ERROR);
  }

  /** Puts a cell; returns the bytes that are new here. */
  int cell(int row, Cell cell) {
    String text = cell.text();
    if (text.isEmpty() && cell.kind() == Cell.Kind.TEXT) {
      return 0;
    }
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    append(bytes, 0, bytes.length);
    return put(row, (byte) cell.kind().ordinal());
  }

  private void append(byte[] bytes, int from, int to) {
    int at = size;
    int end = at + to - from;
    if (end + STEP > texts.length) {
      texts = Arrays.copyOf(texts, Math.max(end + STEP, texts.length * 2));
    }
    size = end;
    if (end - at > SHORT || to + STEP > bytes.length) {
      System.arraycopy(bytes, from, texts, at, to - from);
      return;
    }
    // a few bytes too many do no harm: they are written over by the next text
    byte[] into = texts;
    for (int i = from; i < to; i += STEP, at += STEP) {
      EightBytes.put(into, at, EightBytes.get(bytes, i));
    }
  }

  /** Puts the cell whose text has just been added. */
  private int put(int row, byte kind) {
    if (row >= codes.length) {
      codes = Arrays.copyOf(codes, Math.max(row + 1, codes.length * 2));
    }
    filled++;
    int from = ends[count - 1];
    int to = size;
    if (!looks) {
      return add(row, kind, 0, from, to);
    }
    if (lastCode != 0 && is(lastCode, kind, from, to)) {
      return known(row, lastCode, from);
    }
    int hash = hash(texts, from, to);
    int slot = spread(hash) & (table.length - 1);
    for (int code = table[slot]; code != 0; code = table[slot]) {
      if (hashes[code] == hash && is(code, kind, from, to)) {
        return known(row, code, from);
      }
      slot = (slot + 1) & (table.length - 1);
    }
    table[slot] = count;
    int added = add(row, kind, hash, from, to);
    looks = filled < TRIED || count * 8L < filled * 7L;
    return added;
  }

  private int known(int row, int code, int from) {
    size = from;
    codes[row] = code;
    lastCode = code;
    return 0;
  }

  private static int hash(byte[] bytes, int from, int to) {
    int hash = to - from;
    for (int i = from; i < to; i++) {
      hash = 31 * hash + bytes[i];
    }
    return hash;
  }

  private boolean is(int code, byte kind, int from, int to) {
    int start = ends[code - 1];
    int end = ends[code];
    byte[] bytes = texts;
    // most others have another length, or begin with another sign
    return end - start == to - from
        && kinds[code] == kind
        && (start == end || bytes[start] == bytes[from])
        && Arrays.equals(bytes, start, end, bytes, from, to);
  }

  private static int spread(int hash) {
    int mixed = hash * 0x9E3779B9;
    return mixed ^ mixed >>> 15;
  }

  private int add(int row, byte kind, int hash, int from, int to) {
    codes[row] = count;
    lastCode = count;
    if (count == ends.length) {
      ends = Arrays.copyOf(ends, count * 2);
      kinds = Arrays.copyOf(kinds, count * 2);
    }
    if (looks) {
      if (count >= hashes.length) {
        hashes = Arrays.copyOf(hashes, count * 2);
      }
      hashes[count] = hash;
    }
    ends[count] = to;
    longest = Math.max(longest, to - from);
    kindsSeen |= kind;
    int first = from == to ? ' ' : texts[from] & 0xFF;
    firsts[first >>> 6] |= 1L << first;
    kinds[count++] = kind;
    if (looks && count * 2 > table.length) {
      grow();
    }
    return to - from;
  }

  private void grow() {
    table = new int[table.length * 4];
    for (int code = 1; code < count; code++) {
      int at = spread(hashes[code]) & (table.length - 1);
      while (table[at] != 0) {
        at = (at + 1) & (table.length - 1);
      }
      table[at] = code;
    }
  }

  /** Writes the column over so many rows. */
  void encode(int rows, Utf8 out) {
    boolean inOrder = count == rows + 1 && filled == rows;
    ColumnBlock.write(
        out, texts, size, ends, kinds, count, codes, rows, kindsSeen == TEXT, inOrder, longest);
  }

  /**
   * What is told of the column without reading it: {@link ColumnSigns}.
   *
   * @param rows rows of the chunk
   */
  long signs(int rows, CellSigns signs) {
    long told = filled < rows ? ColumnSigns.BLANK : 0;
    boolean asks = false;
    for (int first = 0; first < 256; first++) {
      if ((firsts[first >>> 6] >>> first & 1) != 0) {
        // plain signs can't be blanks
        told |= first <= ' ' || first >= 0x80 ? ColumnSigns.BLANK : 0;
        told |= first == ' ' ? 0 : ColumnSigns.beginning(first);
        asks |= first == ' ' || signs.mayBegin(first);
      }
    }
    for (int code = 1; asks && code < count; code++) {
      int from = ends[code - 1];
      int to = ends[code];
      int at = from;
      while (at < to && texts[at] == ' ') {
        at++;
      }
      if (at < to && (at > from || signs.mayBegin(texts[at] & 0xFF))) {
        told |= ColumnSigns.beginning(texts[at]) | signs.of(KINDS[kinds[code]], texts, at, to);
      }
    }
    return told;
  }

  /** True if no cell was put. */
  boolean isBlank() {
    return count == 1;
  }
}
