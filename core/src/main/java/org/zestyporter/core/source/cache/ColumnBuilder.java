package org.zestyporter.core.source.cache;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.Utf8;

/**
 * Collects the cells of a column of one chunk: a dictionary of cells, and a code for each row.
 *
 * <p>Their texts stand in one array of bytes, so that the parser's thread makes no object for a
 * cell. Where nearly every cell is another one, they are no longer looked for among those before.
 */
final class ColumnBuilder {
  private static final int FIRST_SIZE = 16;
  private static final Cell.Kind[] KINDS = Cell.Kind.values();
  private static final byte TEXT = (byte) Cell.Kind.TEXT.ordinal();
  private static final byte ERROR = (byte) Cell.Kind.ERROR.ordinal();

  /** Cells after which it is told whether they repeat. */
  private static final int TRIED = 128;

  private final Utf8 texts;
  private int[] ends;
  private byte[] kinds;
  private int[] hashes = new int[FIRST_SIZE];
  private int count = 1;
  private int[] table = new int[FIRST_SIZE * 2];
  private int[] codes;
  private int lastCode;
  private int filled;
  private boolean looks = true;

  /**
   * @param before the same column of the chunk before; null if there is none
   */
  ColumnBuilder(@Nullable ColumnBuilder before) {
    texts = new Utf8(before == null ? 256 : before.texts.size() + before.texts.size() / 8 + 64);
    int entries = before == null ? FIRST_SIZE : Math.max(FIRST_SIZE, before.count + 64);
    ends = new int[entries];
    kinds = new byte[entries];
    codes = new int[before == null ? FIRST_SIZE : before.codes.length];
  }

  /** Puts a cell of text; returns the characters that are new here. */
  int text(int row, char[] chars, int from, int to, boolean whole) {
    if (from == to) {
      return 0;
    }
    texts.put(chars, from, to);
    return put(row, whole ? TEXT : ERROR);
  }

  /** Puts a cell; returns the characters that are new here. */
  int cell(int row, Cell cell) {
    String text = cell.text();
    if (text.isEmpty() && cell.kind() == Cell.Kind.TEXT) {
      return 0;
    }
    texts.put(text);
    return put(row, (byte) cell.kind().ordinal());
  }

  /** Puts the cell whose text has just been added. */
  private int put(int row, byte kind) {
    if (row >= codes.length) {
      codes = Arrays.copyOf(codes, Math.max(row + 1, codes.length * 2));
    }
    filled++;
    int from = ends[count - 1];
    int to = texts.size();
    if (!looks) {
      return add(row, kind, 0, from, to);
    }
    if (lastCode != 0 && is(lastCode, kind, from, to)) {
      return known(row, lastCode, from);
    }
    int hash = hash(texts.array(), from, to);
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
    texts.cut(from);
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
    byte[] bytes = texts.array();
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

  /** Writes the column over so many rows: entries with their kinds and texts, then the codes. */
  void encode(int rows, Utf8 out) {
    out.putUnsigned(count);
    byte[] bytes = texts.array();
    for (int code = 0; code < count; code++) {
      int from = code == 0 ? 0 : ends[code - 1];
      out.put(kinds[code]).putUnsigned(ends[code] - from).put(bytes, from, ends[code]);
    }
    boolean narrow = count <= 256;
    for (int row = 0; row < rows; row++) {
      int code = row < codes.length ? codes[row] : 0;
      if (!narrow) {
        out.put(code >>> 8);
      }
      out.put(code);
    }
  }

  /**
   * What is told of the column without reading it: {@link ColumnSigns}.
   *
   * @param rows rows of the chunk
   */
  long signs(int rows, CellSigns signs) {
    byte[] bytes = texts.array();
    long told = filled < rows ? ColumnSigns.BLANK : 0;
    for (int code = 1; code < count; code++) {
      int from = ends[code - 1];
      int to = ends[code];
      // plain signs can't be blanks
      told |= from == to || bytes[from] <= ' ' ? ColumnSigns.BLANK : 0;
      int at = from;
      while (at < to && bytes[at] == ' ') {
        at++;
      }
      if (at < to) {
        told |= ColumnSigns.beginning(bytes[at]) | signs.of(KINDS[kinds[code]], bytes, at, to);
      }
    }
    return told;
  }

  /** True if no cell was put. */
  boolean isBlank() {
    return count == 1;
  }
}
