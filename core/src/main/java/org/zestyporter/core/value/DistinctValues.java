package org.zestyporter.core.value;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The distinct cells of a column with their row counts, in order of first appearance.
 *
 * <p>Bounded: past {@link #LIMIT} distinct values, or once the budget that the columns of a source
 * share is used up, further new ones are only counted, so memory does not grow with the file.
 */
public final class DistinctValues {
  /** Distinct values kept for a column. */
  public static final int LIMIT = 100_000;

  /** Distinct values that every column may keep, however many columns there are. */
  private static final int FLOOR = 200;

  /** Characters of distinct values that the columns of a source keep together. */
  private static final long BUDGET = 12_000_000;

  /** What each kept value costs beside its characters. */
  private static final int OVERHEAD = 40;

  /**
   * What the columns of a source may keep together. It is shared out anew for each chunk of rows,
   * so that columns can be counted by several threads and yet keep the same each time.
   */
  public static final class Budget {
    private long left = BUDGET;

    /** Shares what is left out among columns, after a chunk and before the next. */
    public void share(List<DistinctValues> columns) {
      long open = 0;
      for (DistinctValues column : columns) {
        left -= column.spent;
        column.spent = 0;
        open += column.full ? 0 : 1;
      }
      for (DistinctValues column : columns) {
        column.allowance = open == 0 ? 0 : Math.max(0, left / open);
      }
    }
  }

  /** How often a cell occurs, and where first. */
  public static final class Tally {
    private final long line;
    private final long rows;

    Tally(long rows, long line) {
      this.rows = rows;
      this.line = line;
    }

    /** Line of the first row that holds the cell. */
    public long line() {
      return line;
    }

    /** Number of rows that hold the cell. */
    public long rows() {
      return rows;
    }
  }

  private static final int FIRST = 64;

  /** Bits of a slot that count rows; above them is the place. */
  private static final int ROW_BITS = 40;

  private static final long ROWS = (1L << ROW_BITS) - 1;

  /** One for each kind of cell, so that a number is not the text of it. */
  private static final Hash[] HASHES = hashes();

  /** Characters that it may keep of the chunk at hand, and those that it has kept. */
  private long allowance = BUDGET;

  private long spent;

  /**
   * By open addressing, two to a slot so that they are at hand together: a hash of the cell's kind
   * and text, then its place among the kept above the rows that hold it.
   */
  private long[] slots = new long[FIRST * 2];

  private final List<Cell> cells = new ArrayList<>();
  private long[] lines = new long[FIRST];

  private final Softly<Map<Cell, Tally>> tallies = new Softly<>();

  private long blank;
  private long beyond;
  private boolean full;

  /** Signs of the kept cells once no more are kept; few others share one. */
  private long @Nullable [] signs;

  private static Hash[] hashes() {
    SecureRandom random = new SecureRandom();
    Hash[] all = new Hash[Cell.Kind.values().length];
    for (int i = 0; i < all.length; i++) {
      all[i] = new Hash(random.nextLong());
    }
    return all;
  }

  /**
   * Counts rows of a cell; {@code line} is remembered if the cell is met for the first time.
   *
   * @return false if the cell is not among those kept
   */
  public boolean add(Cell cell, long rows, long line) {
    if (cell.isBlank()) {
      blank += rows;
      return true;
    }
    byte[] text = cell.text().getBytes(StandardCharsets.UTF_8);
    return add(cell.kind(), text, 0, text.length, rows, line);
  }

  /** Counts rows with a blank cell. */
  public void addBlank(long rows) {
    blank += rows;
  }

  /**
   * Counts rows of a cell that is not blank, given by its text in UTF-8.
   *
   * @return false if the cell is not among those kept
   */
  public boolean add(Cell.Kind kind, byte[] bytes, int from, int to, long rows, long line) {
    return add(hash(kind, bytes, from, to), kind, bytes, from, to, rows, line);
  }

  /** By what a cell that is not blank is known here; its text is given in UTF-8. */
  public static long hash(Cell.Kind kind, byte[] bytes, int from, int to) {
    return HASHES[kind.ordinal()].of(bytes, from, to);
  }

  /**
   * Counts rows of many cells at once, as far as the cells are among those kept: what a processor
   * has to fetch for them is fetched for many together. If no more are kept, the rows of the others
   * are counted too.
   *
   * @param hashes by {@link #hash}
   * @param rows rows of each cell; 0 for one that is not to be counted
   * @param other set to true for each cell that is to be counted and is not among those kept
   */
  public void addKept(long[] hashes, int[] rows, boolean[] other) {
    int mask = slots.length - 2;
    long missed = 0;
    for (int i = 0; i < hashes.length; i++) {
      if (rows[i] == 0) {
        continue;
      }
      long hash = hashes[i];
      int at = (int) hash << 1 & mask;
      if (signs == null || !lacks(hash)) {
        while (slots[at] != 0 && slots[at] != hash) {
          at = at + 2 & mask;
        }
        if (slots[at] != 0) {
          slots[at + 1] += rows[i];
          continue;
        }
      }
      other[i] = true;
      missed += rows[i];
    }
    beyond += full ? missed : 0;
    tallies.forget();
  }

  /** True if no more cells are kept: the rows of others are only counted. */
  public boolean isFull() {
    return full;
  }

  private boolean lacks(long hash) {
    return (signs[sign(hash)] >>> hash & 1) == 0;
  }

  /** The same as {@link #add}, of a cell whose {@link #hash} is known. */
  public boolean add(
      long hash, Cell.Kind kind, byte[] bytes, int from, int to, long rows, long line) {
    if (signs != null && lacks(hash)) {
      beyond += rows;
      return false;
    }
    int mask = slots.length - 2;
    int at = (int) hash << 1 & mask;
    for (; slots[at] != 0; at = at + 2 & mask) {
      if (slots[at] == hash) {
        slots[at + 1] += rows;
        tallies.forget();
        return true;
      }
    }
    Cell cell =
        full ? null : new Cell(kind, new String(bytes, from, to - from, StandardCharsets.UTF_8));
    if (cell == null || cells.size() >= LIMIT || !affordable(cell)) {
      if (!full) {
        full = true;
        sign();
      }
      beyond += rows;
      return false;
    }
    int place = cells.size();
    slots[at] = hash;
    slots[at + 1] = (long) place << ROW_BITS | rows;
    if (place == lines.length) {
      lines = Arrays.copyOf(lines, place * 2);
    }
    lines[place] = line;
    cells.add(cell);
    tallies.forget();
    if (cells.size() * 4 > slots.length) {
      grow();
    }
    return true;
  }

  /**
   * Makes the signs, a bit for each kept cell. They take so little room that a processor has them
   * at hand, which it hasn't all the hashes: in a large file nearly every cell is asked for here.
   */
  private void sign() {
    signs = new long[slots.length / 16];
    for (int at = 0; at < slots.length; at += 2) {
      if (slots[at] != 0) {
        signs[sign(slots[at])] |= 1L << slots[at];
      }
    }
  }

  private int sign(long hash) {
    return (int) (hash >>> 32) & signs.length - 1;
  }

  private void grow() {
    long[] old = slots;
    slots = new long[old.length * 2];
    int mask = slots.length - 2;
    for (int i = 0; i < old.length; i += 2) {
      if (old[i] != 0) {
        int at = (int) old[i] << 1 & mask;
        while (slots[at] != 0) {
          at = at + 2 & mask;
        }
        slots[at] = old[i];
        slots[at + 1] = old[i + 1];
      }
    }
  }

  /** The rows that hold each of the kept. */
  private long[] rows() {
    long[] rows = new long[cells.size()];
    for (int at = 0; at < slots.length; at += 2) {
      if (slots[at] != 0) {
        rows[(int) (slots[at + 1] >>> ROW_BITS)] = slots[at + 1] & ROWS;
      }
    }
    return rows;
  }

  private boolean affordable(Cell cell) {
    int costs = cell.text().length() + OVERHEAD;
    if (spent + costs > allowance && (cells.size() >= FLOOR || cell.text().length() >= 2_000)) {
      return false;
    }
    spent += costs;
    return true;
  }

  /** The same, as if one row held another cell. */
  public DistinctValues moved(Cell from, Cell to, long line) {
    DistinctValues copy = new DistinctValues();
    copy.blank = blank - (from.isBlank() ? 1 : 0);
    tallies()
        .forEach(
            (cell, tally) -> {
              long rows = tally.rows - (cell.equals(from) ? 1 : 0);
              if (rows > 0) {
                copy.add(cell, rows, tally.line);
              }
            });
    copy.beyond = beyond;
    copy.add(to, 1, line);
    return copy;
  }

  /** The kept cells with how often they occur. */
  public synchronized Map<Cell, Tally> tallies() {
    return tallies.get(
        () -> {
          Map<Cell, Tally> all = new LinkedHashMap<>(cells.size() * 2);
          each((cell, rows, line) -> all.put(cell, new Tally(rows, line)));
          return all;
        });
  }

  /** Takes a kept cell. */
  @FunctionalInterface
  public interface Each {
    void take(Cell cell, long rows, long line);
  }

  /** Hands over the kept cells, in order of first appearance. */
  public void each(Each each) {
    long[] rows = rows();
    for (int i = 0; i < rows.length; i++) {
      each.take(cells.get(i), rows[i], lines[i]);
    }
  }

  /** Rows with a blank cell. */
  public long blank() {
    return blank;
  }

  /** Rows whose value came after the limit was reached; 0 if all distinct values are here. */
  public long beyond() {
    return beyond;
  }
}
