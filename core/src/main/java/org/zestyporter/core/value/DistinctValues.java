package org.zestyporter.core.value;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.ArrayList;
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
    private long rows;

    Tally(long line) {
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

  /** One for each kind of cell, so that a number is not the text of it. */
  private static final Hash[] HASHES = hashes();

  /** Characters that it may keep of the chunk at hand, and those that it has kept. */
  private long allowance = BUDGET;

  private long spent;

  /** By open addressing: a hash of the cell's kind and text, and its place among the kept. */
  private long[] hashes = new long[FIRST];

  private int[] places = new int[FIRST];
  private final List<Cell> cells = new ArrayList<>();
  private final List<Tally> counts = new ArrayList<>();
  private @Nullable Map<Cell, Tally> tallies;
  private long blank;
  private long beyond;
  private boolean full;

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
    long hash = HASHES[kind.ordinal()].of(bytes, from, to);
    int mask = hashes.length - 1;
    int at = (int) hash & mask;
    for (; hashes[at] != 0; at = at + 1 & mask) {
      if (hashes[at] == hash) {
        counts.get(places[at]).rows += rows;
        return true;
      }
    }
    Cell cell =
        full ? null : new Cell(kind, new String(bytes, from, to - from, StandardCharsets.UTF_8));
    if (cell == null || cells.size() >= LIMIT || !affordable(cell)) {
      full = true;
      beyond += rows;
      return false;
    }
    hashes[at] = hash;
    places[at] = cells.size();
    cells.add(cell);
    Tally tally = new Tally(line);
    tally.rows = rows;
    counts.add(tally);
    tallies = null;
    if (cells.size() * 2 > hashes.length) {
      grow();
    }
    return true;
  }

  private void grow() {
    long[] oldHashes = hashes;
    int[] oldPlaces = places;
    hashes = new long[oldHashes.length * 2];
    places = new int[hashes.length];
    int mask = hashes.length - 1;
    for (int i = 0; i < oldHashes.length; i++) {
      if (oldHashes[i] != 0) {
        int at = (int) oldHashes[i] & mask;
        while (hashes[at] != 0) {
          at = at + 1 & mask;
        }
        hashes[at] = oldHashes[i];
        places[at] = oldPlaces[i];
      }
    }
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
    if (tallies == null) {
      Map<Cell, Tally> all = new LinkedHashMap<>(cells.size() * 2);
      for (int i = 0; i < cells.size(); i++) {
        all.put(cells.get(i), counts.get(i));
      }
      tallies = all;
    }
    return tallies;
  }

  /** Takes a kept cell. */
  @FunctionalInterface
  public interface Each {
    void take(Cell cell, long rows, long line);
  }

  /** Hands over the kept cells, in order of first appearance. */
  public void each(Each each) {
    for (int i = 0; i < cells.size(); i++) {
      each.take(cells.get(i), counts.get(i).rows, counts.get(i).line);
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
