package org.zestyporter.core.source;

import java.util.Arrays;
import org.zestyporter.core.value.Cell;

/**
 * Collects the cells of a column of one chunk: its distinct cells, and a code for each row.
 *
 * <p>Their characters stand in one array, so that the parser's thread makes no object for a cell.
 */
final class ColumnBuilder {
  private static final int FIRST_SIZE = 16;
  private static final Cell.Kind[] KINDS = Cell.Kind.values();
  private static final byte TEXT = (byte) Cell.Kind.TEXT.ordinal();
  private static final byte ERROR = (byte) Cell.Kind.ERROR.ordinal();
  private static final int SAMPLED = 6;

  private char[] characters = new char[64];
  private int[] ends = new int[FIRST_SIZE];
  private byte[] kinds = new byte[FIRST_SIZE];
  private int[] hashes = new int[FIRST_SIZE];
  private int count = 1;
  private int[] table = new int[FIRST_SIZE * 2];
  private int[] codes = new int[FIRST_SIZE];
  private int lastCode;

  /** Puts a cell of text; returns the characters that are new here. */
  int text(int row, char[] chars, int from, int to, boolean whole) {
    return from == to ? 0 : put(row, whole ? TEXT : ERROR, chars, from, to);
  }

  /** Puts a cell; returns the characters that are new here. */
  int cell(int row, Cell cell) {
    String text = cell.text();
    if (text.isEmpty() && cell.kind() == Cell.Kind.TEXT) {
      return 0;
    }
    return put(row, (byte) cell.kind().ordinal(), text.toCharArray(), 0, text.length());
  }

  /**
   * A hash of the length and of some characters at both ends and in the middle: equal beginnings
   * are usual, and cells can be long.
   */
  private static int hash(char[] chars, int from, int to) {
    int length = to - from;
    int hash = length;
    int head = Math.min(length, SAMPLED);
    for (int i = from; i < from + head; i++) {
      hash = 31 * hash + chars[i];
    }
    if (length > SAMPLED) {
      for (int i = Math.max(from + SAMPLED, to - SAMPLED); i < to; i++) {
        hash = 31 * hash + chars[i];
      }
      hash = 31 * hash + chars[from + length / 2];
    }
    return hash;
  }

  private int put(int row, byte ordinal, char[] chars, int from, int to) {
    if (row >= codes.length) {
      codes = Arrays.copyOf(codes, Math.max(row + 1, codes.length * 2));
    }
    if (lastCode != 0
        && kinds[lastCode] == ordinal
        && Arrays.equals(characters, ends[lastCode - 1], ends[lastCode], chars, from, to)) {
      codes[row] = lastCode;
      return 0;
    }
    int hash = hash(chars, from, to);
    int slot = spread(hash) & (table.length - 1);
    for (int code = table[slot]; code != 0; code = table[slot]) {
      if (is(code, ordinal, hash, chars, from, to)) {
        codes[row] = code;
        lastCode = code;
        return 0;
      }
      slot = (slot + 1) & (table.length - 1);
    }
    table[slot] = count;
    codes[row] = count;
    lastCode = count;
    add(ordinal, hash, chars, from, to);
    return to - from;
  }

  private boolean is(int code, byte kind, int hash, char[] chars, int from, int to) {
    return hashes[code] == hash
        && kinds[code] == kind
        && Arrays.equals(characters, ends[code - 1], ends[code], chars, from, to);
  }

  private static int spread(int hash) {
    int mixed = hash * 0x9E3779B9;
    return mixed ^ mixed >>> 15;
  }

  private void add(byte kind, int hash, char[] chars, int from, int to) {
    if (count == ends.length) {
      ends = Arrays.copyOf(ends, count * 2);
      kinds = Arrays.copyOf(kinds, count * 2);
      hashes = Arrays.copyOf(hashes, count * 2);
    }
    int start = ends[count - 1];
    int end = start + to - from;
    if (end > characters.length) {
      characters = Arrays.copyOf(characters, Math.max(end, characters.length * 2));
    }
    System.arraycopy(chars, from, characters, start, to - from);
    ends[count] = end;
    kinds[count] = kind;
    hashes[count++] = hash;
    if (count * 2 > table.length) {
      table = new int[table.length * 4];
      for (int code = 1; code < count; code++) {
        int at = spread(hashes[code]) & (table.length - 1);
        while (table[at] != 0) {
          at = (at + 1) & (table.length - 1);
        }
        table[at] = code;
      }
    }
  }

  /** The column over so many rows. */
  ColumnChunk build(int rows) {
    Cell[] distinct = new Cell[count];
    distinct[0] = Cell.BLANK;
    for (int code = 1; code < count; code++) {
      String text = new String(characters, ends[code - 1], ends[code] - ends[code - 1]);
      distinct[code] = new Cell(KINDS[kinds[code]], text);
    }
    return new ColumnChunk(distinct, Arrays.copyOf(codes, rows));
  }

  /** True if no cell was put. */
  boolean isBlank() {
    return count == 1;
  }
}
