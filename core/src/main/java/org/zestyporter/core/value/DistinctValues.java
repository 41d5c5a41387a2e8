package org.zestyporter.core.value;

import java.util.LinkedHashMap;
import java.util.Map;

/**
 * The distinct cells of a column with their row counts, in order of first appearance.
 *
 * <p>Bounded: past {@link #LIMIT} distinct values further new ones are only counted, so memory does
 * not grow with the file.
 */
public final class DistinctValues {
  /** Distinct values kept for a column. */
  public static final int LIMIT = 100_000;

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

  private final Map<Cell, Tally> tallies = new LinkedHashMap<>();
  private long blank;
  private long beyond;

  /** Counts rows of a cell; {@code line} is remembered if the cell is met for the first time. */
  public void add(Cell cell, long rows, long line) {
    if (cell.isBlank()) {
      blank += rows;
      return;
    }
    Tally tally = tallies.get(cell);
    if (tally == null) {
      if (tallies.size() >= LIMIT) {
        beyond += rows;
        return;
      }
      tally = new Tally(line);
      tallies.put(cell, tally);
    }
    tally.rows += rows;
  }

  public Map<Cell, Tally> tallies() {
    return tallies;
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
