package org.zestyporter.core.source.cache;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.BitSet;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.Utf8;

/**
 * One column of a chunk of rows: a dictionary of cells and, for each row, which of them it holds.
 *
 * <p>What depends on one column only is computed once for each entry and looked up by code. An
 * entry stands twice where that is cheaper than finding it again. The texts lie in one array; cells
 * are made of them only for who asks.
 */
public final class ColumnChunk {
  private static final Cell.Kind[] KINDS = Cell.Kind.values();

  private final int[] codes;
  private final int entries;
  private Cell @Nullable [] cells;
  private boolean allCells;
  private byte @Nullable [] bytes;
  private int[] starts;
  private int[] ends;
  private final byte @Nullable [] kinds;

  /**
   * @param distinct the entries
   * @param codes one index into {@code distinct} a row
   */
  public ColumnChunk(Cell[] distinct, int[] codes) {
    this.entries = distinct.length;
    this.codes = codes;
    this.cells = distinct;
    this.allCells = true;
    this.kinds = new byte[entries];
    for (int i = 0; i < entries; i++) {
      kinds[i] = (byte) distinct[i].kind().ordinal();
    }
  }

  /**
   * @param bytes holds the texts of the entries in UTF-8
   * @param starts where each begins
   * @param ends where each ends
   * @param kinds the kind of each entry; null if all are texts
   */
  ColumnChunk(byte[] bytes, int[] starts, int[] ends, byte @Nullable [] kinds, int[] codes) {
    this.entries = starts.length;
    this.codes = codes;
    this.bytes = bytes;
    this.starts = starts;
    this.ends = ends;
    this.kinds = kinds;
  }

  /** A column of blank cells. */
  public static ColumnChunk blank(int rows) {
    return new ColumnChunk(new Cell[] {Cell.BLANK}, new int[rows]);
  }

  /** One entry a row, by index. */
  public int[] codes() {
    return codes;
  }

  /** Number of entries. */
  public int entries() {
    return entries;
  }

  public int rows() {
    return codes.length;
  }

  public Cell cell(int row) {
    return entry(codes[row]);
  }

  /** An entry as a cell. */
  public Cell entry(int code) {
    Cell[] made = cells;
    if (made == null) {
      made = new Cell[entries];
      cells = made;
    }
    Cell cell = made[code];
    if (cell == null) {
      cell = make(code);
      made[code] = cell;
    }
    return cell;
  }

  private Cell make(int code) {
    String text =
        new String(bytes, starts[code], ends[code] - starts[code], StandardCharsets.UTF_8);
    Cell.Kind kind = kind(code);
    return text.isEmpty() && kind == Cell.Kind.TEXT ? Cell.BLANK : new Cell(kind, text);
  }

  /** All entries as cells. */
  public Cell[] distinct() {
    if (!allCells) {
      for (int code = 0; code < entries; code++) {
        entry(code);
      }
      allCells = true;
    }
    return cells;
  }

  public Cell.Kind kind(int code) {
    return kinds == null ? Cell.Kind.TEXT : KINDS[kinds[code]];
  }

  /** The array that holds the texts of the entries in UTF-8. */
  public byte[] bytes() {
    if (bytes == null) {
      encode();
    }
    return bytes;
  }

  private synchronized void encode() {
    if (bytes != null) {
      return;
    }
    Utf8 out = new Utf8(entries * 12);
    int[] from = new int[entries];
    int[] to = new int[entries];
    for (int i = 0; i < entries; i++) {
      from[i] = out.size();
      to[i] = out.put(cells[i].text()).size();
    }
    starts = from;
    ends = to;
    bytes = Arrays.copyOf(out.array(), out.size());
  }

  /** Where the texts of the entries begin in {@link #bytes}. */
  public int[] starts() {
    bytes();
    return starts;
  }

  /** Where the texts of the entries end in {@link #bytes}. */
  public int[] ends() {
    bytes();
    return ends;
  }

  /** The first byte of an entry's text that is no space; -1 if there is none. */
  public int first(int code) {
    byte[] in = bytes();
    for (int at = starts[code]; at < ends[code]; at++) {
      if (in[at] != ' ') {
        return in[at] & 0xFF;
      }
    }
    return -1;
  }

  /** True for each entry that is blank. */
  public boolean[] blanks() {
    boolean[] blank = new boolean[entries];
    for (int d = 0; d < blank.length; d++) {
      blank[d] = isBlank(d);
    }
    return blank;
  }

  /** True if an entry is blank. */
  public boolean isBlank(int code) {
    if (bytes != null) {
      int start = starts[code];
      int end = ends[code];
      if (start == end) {
        return kind(code) == Cell.Kind.TEXT;
      }
      // plain signs can't be blanks
      if (bytes[start] > ' ') {
        return false;
      }
    }
    return entry(code).isBlank();
  }

  /** The same entries in other rows. */
  public ColumnChunk select(int[] rows) {
    int[] picked = new int[rows.length];
    for (int i = 0; i < rows.length; i++) {
      picked[i] = codes[rows[i]];
    }
    return withCodes(picked);
  }

  /** The same in which only some rows hold anything, with the entries of these. */
  public ColumnChunk only(BitSet rows) {
    byte[] in = bytes();
    int most = rows.cardinality() + 1;
    // few entries that many rows share stand once
    int[] known = entries < most ? new int[entries] : null;
    Utf8 texts = new Utf8(most * 12);
    int[] to = new int[most];
    byte[] other = kinds == null ? null : new byte[most];
    int[] only = new int[codes.length];
    // the first is blank
    int count = 1;
    for (int row = rows.nextSetBit(0); row >= 0; row = rows.nextSetBit(row + 1)) {
      int code = codes[row];
      if (known != null && known[code] > 0) {
        only[row] = known[code];
        continue;
      }
      to[count] = texts.put(in, starts[code], ends[code]).size();
      if (other != null) {
        other[count] = kinds[code];
      }
      if (known != null) {
        known[code] = count;
      }
      only[row] = count++;
    }
    int[] from = new int[count];
    System.arraycopy(to, 0, from, 1, count - 1);
    return new ColumnChunk(
        Arrays.copyOf(texts.array(), texts.size()),
        from,
        Arrays.copyOf(to, count),
        other == null ? null : Arrays.copyOf(other, count),
        only);
  }

  /** Bytes of an entry's text. */
  public int length(int code) {
    bytes();
    return ends[code] - starts[code];
  }

  /** The same with some entries blank. */
  public ColumnChunk withBlank(boolean[] blank) {
    bytes();
    int[] from = starts.clone();
    int[] to = ends.clone();
    byte[] other = kinds == null ? null : kinds.clone();
    for (int code = 0; code < entries; code++) {
      if (blank[code]) {
        to[code] = from[code];
        if (other != null) {
          other[code] = (byte) Cell.Kind.TEXT.ordinal();
        }
      }
    }
    return new ColumnChunk(bytes, from, to, other, codes);
  }

  private ColumnChunk withCodes(int[] other) {
    return bytes == null
        ? new ColumnChunk(cells, other)
        : new ColumnChunk(bytes, starts, ends, kinds, other);
  }

  /** The same for somebody who may ask for cells, of which nothing stays here. */
  ColumnChunk own() {
    return withCodes(codes);
  }

  /** About how many bytes of memory one takes that was read, without cells. */
  long weight() {
    return 4L * codes.length + 9L * entries + (bytes == null ? 0 : bytes.length);
  }

  @Override
  public boolean equals(Object other) {
    if (!(other instanceof ColumnChunk c) || c.rows() != rows()) {
      return false;
    }
    for (int row = 0; row < codes.length; row++) {
      if (!cell(row).equals(c.cell(row))) {
        return false;
      }
    }
    return true;
  }

  @Override
  public int hashCode() {
    int hash = 7;
    for (int row = 0; row < codes.length; row++) {
      hash = 31 * hash + cell(row).hashCode();
    }
    return hash;
  }

  @Override
  public String toString() {
    return codes.length + " rows, " + entries + " entries";
  }
}
