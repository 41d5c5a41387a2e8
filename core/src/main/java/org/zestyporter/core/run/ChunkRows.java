package org.zestyporter.core.run;

import java.util.BitSet;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The rows of a chunk in all destinations, on their way through. */
final class ChunkRows {
  private final int first;
  private final int count;
  private List<TargetRows> targets;

  /** Rows that are not decided yet. */
  int left;

  /** The rows that are gone through; null for all. What becomes of the others is not asked. */
  @Nullable BitSet taken;

  /**
   * By target, what became of the rows before the run was cut off; null if none was gone through.
   */
  LedgerChunk @Nullable [] past;

  /** True if what became of them is in the ledger for good. */
  boolean isEntered;

  /** By row, true if it is rejected by its own values; null until somebody asks. */
  private volatile boolean @Nullable [] rejected;

  /**
   * @param first index of its first row among the source's rows
   */
  ChunkRows(int first, int count, List<TargetRows> targets) {
    this.first = first;
    this.count = count;
    this.targets = targets;
  }

  int first() {
    return first;
  }

  int count() {
    return count;
  }

  /** True if a row is gone through. */
  boolean takes(int row) {
    return taken == null || taken.get(row);
  }

  /** Index of the row after its last one. */
  int end() {
    return first + count;
  }

  List<TargetRows> targets() {
    return targets;
  }

  /**
   * The rows in the destination of a plan that has just one.
   *
   * @throws IllegalStateException if it has several
   */
  TargetRows only() {
    if (targets.size() != 1) {
      throw new IllegalStateException("The rows go into " + targets.size() + " destinations.");
    }
    return targets.get(0);
  }

  /** True if a row's own values keep it, or a part of it, from being written. */
  boolean isRejected(int row) {
    boolean[] known = rejected;
    if (known == null) {
      known = new boolean[count];
      for (int r = 0; r < count; r++) {
        known[r] = any(r, TargetRows::isRejected);
      }
      rejected = known;
    }
    return known[row];
  }

  /** True if nothing but questions keep a row's records from being written, by its own values. */
  boolean waits(int row) {
    return !any(row, TargetRows::isRejectedForGood);
  }

  @FunctionalInterface
  private interface Test {
    boolean holds(TargetRows rows, int r);
  }

  private boolean any(int row, Test test) {
    for (TargetRows rows : targets) {
      for (int r = rows.from(row); r < rows.to(row); r++) {
        if (test.holds(rows, r)) {
          return true;
        }
      }
    }
    return false;
  }

  long weight() {
    return targets.stream().mapToLong(t -> t.filled.weight() + 4L * t.count()).sum();
  }

  /** Lets go of everything that is done. */
  void forget() {
    targets = List.of();
  }
}
