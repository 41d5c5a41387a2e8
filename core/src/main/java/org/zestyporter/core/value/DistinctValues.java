package org.zestyporter.core.value;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.atomic.AtomicLong;

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

  /** What the columns of a source may keep together; safe for use by several threads. */
  public static final class Budget {
    private final AtomicLong left = new AtomicLong(BUDGET);

    boolean take(int characters) {
      return left.addAndGet(-characters - OVERHEAD) >= 0;
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

  private final Map<Cell, Tally> tallies = new LinkedHashMap<>();
  private final Budget budget;
  private long blank;
  private long beyond;
  private boolean full;

  public DistinctValues(Budget budget) {
    this.budget = budget;
  }

  public DistinctValues() {
    this(new Budget());
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
    Tally tally = tallies.get(cell);
    if (tally == null) {
      if (full || tallies.size() >= LIMIT || !affordable(cell)) {
        full = true;
        beyond += rows;
        return false;
      }
      tally = new Tally(line);
      tallies.put(cell, tally);
    }
    tally.rows += rows;
    return true;
  }

  private boolean affordable(Cell cell) {
    return budget.take(cell.text().length())
        || (tallies.size() < FLOOR && cell.text().length() < 2_000);
  }

  /** The same, as if one row held another cell. */
  public DistinctValues moved(Cell from, Cell to, long line) {
    DistinctValues copy = new DistinctValues();
    copy.blank = blank - (from.isBlank() ? 1 : 0);
    copy.beyond = beyond;
    tallies.forEach(
        (cell, tally) -> {
          Tally own = new Tally(tally.line);
          own.rows = tally.rows - (cell.equals(from) ? 1 : 0);
          if (own.rows > 0) {
            copy.tallies.put(cell, own);
          }
        });
    copy.add(to, 1, line);
    return copy;
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
