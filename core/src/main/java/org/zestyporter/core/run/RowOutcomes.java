package org.zestyporter.core.run;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a rehearsal made of each row, in a plan with one destination that takes all rows: a byte a
 * row. Counts go on from it once answers have changed what becomes of some rows.
 */
public final class RowOutcomes {
  private static final byte UNKNOWN = -1;

  /** Stands for a row that only waits for an answer, which is rejected otherwise. */
  private static final byte WAITS = (byte) Outcome.values().length;

  private final byte[] of;

  /**
   * @param rows number of rows of the source
   */
  public RowOutcomes(long rows) {
    this.of = new byte[Math.toIntExact(rows)];
    Arrays.fill(of, UNKNOWN);
  }

  private RowOutcomes(byte[] of) {
    this.of = of;
  }

  /**
   * Rows by what becomes of them, as in a destination's books.
   *
   * @param rejected those that wait among them
   * @param waiting rejected rows that only wait for an answer
   */
  public record Counts(
      @JsonProperty("new") long added,
      long changed,
      long unchanged,
      long skipped,
      long rejected,
      long waiting) {}

  /** A ledger that has all handed on to another one, and notes outcomes here. */
  public Ledger beside(Ledger ledger) {
    return new Ledger() {
      @Override
      public void begin(LedgerLayout layout) {
        ledger.begin(layout);
      }

      @Override
      public void append(LedgerChunk chunk) {
        for (int entry = 0; entry < chunk.size(); entry++) {
          take(chunk, entry);
        }
        ledger.append(chunk);
      }

      @Override
      public void made(LedgerChunk chunk) {
        ledger.made(chunk);
      }

      @Override
      public boolean isKept() {
        return true;
      }
    };
  }

  private void take(LedgerChunk chunk, int entry) {
    put((int) chunk.firstRow() + chunk.rows()[entry], chunk.outcome(entry), chunk.notes()[entry]);
  }

  /** Notes what became of the rows of a chunk that are decided. */
  void take(ChunkRows chunk) {
    TargetRows rows = chunk.only();
    for (int r = 0; r < rows.count(); r++) {
      if (rows.outcomes[r] != TargetRows.OPEN) {
        put(chunk.first() + r, Outcome.of(rows.outcomes[r]), rows.notes[r]);
      }
    }
  }

  private void put(int row, Outcome outcome, @Nullable List<LedgerEntry.Note> notes) {
    boolean waits = notes != null && LedgerEntry.isWaiting(outcome, notes);
    of[row] = waits ? WAITS : (byte) outcome.ordinal();
  }

  /** The same, to be changed without changing this one. */
  RowOutcomes copy() {
    return new RowOutcomes(of.clone());
  }

  /** True if it is known what became of each row. */
  boolean isWhole() {
    for (byte one : of) {
      if (one == UNKNOWN) {
        return false;
      }
    }
    return true;
  }

  /** Number of rows. */
  public int size() {
    return of.length;
  }

  /** Forgets what became of rows. */
  void forget(int first, BitSet rows) {
    rows.stream().forEach(row -> of[first + row] = UNKNOWN);
  }

  public Counts counts() {
    long[] counts = new long[WAITS + 1];
    for (byte one : of) {
      if (one != UNKNOWN) {
        counts[one]++;
      }
    }
    return new Counts(
        counts[Outcome.NEW.ordinal()],
        counts[Outcome.CHANGED.ordinal()],
        counts[Outcome.UNCHANGED.ordinal()],
        counts[Outcome.SKIPPED.ordinal()],
        counts[Outcome.REJECTED.ordinal()] + counts[WAITS],
        counts[WAITS]);
  }
}
