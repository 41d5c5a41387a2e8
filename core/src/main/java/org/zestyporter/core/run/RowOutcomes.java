package org.zestyporter.core.run;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a rehearsal made of each row in each destination: a byte for each. Counts go on from it once
 * answers have changed what becomes of some rows.
 */
public final class RowOutcomes {
  private static final int FIRST_SIZE = 1 << 12;
  private static final byte UNKNOWN = -1;

  /** Stands for a row that only waits for an answer, which is rejected otherwise. */
  private static final byte WAITS = (byte) Outcome.values().length;

  /** By destination. */
  private final List<Outcomes> of = new ArrayList<>();

  /** Of the rows of one destination, in the order of the file. */
  private static final class Outcomes {
    private byte[] of = new byte[FIRST_SIZE];
    private int size;

    void add(byte outcome) {
      if (size == of.length) {
        of = Arrays.copyOf(of, size * 2);
      }
      of[size++] = outcome;
    }

    Outcomes copy() {
      Outcomes copy = new Outcomes();
      copy.of = Arrays.copyOf(of, Math.max(1, size));
      copy.size = size;
      return copy;
    }
  }

  /**
   * Rows of a destination by what becomes of them, as in its books.
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
        of.add(new Outcomes());
        ledger.begin(layout);
      }

      @Override
      public void append(LedgerChunk chunk) {
        Outcomes own = of.get(chunk.destination());
        for (int entry = 0; entry < chunk.size(); entry++) {
          own.add(outcome(chunk.outcome(entry), chunk.notes()[entry]));
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

  /** Notes what became of the rows of a chunk that are decided. */
  void take(ChunkRows chunk) {
    for (TargetRows rows : chunk.targets()) {
      byte[] own = of.get(rows.target.index).of;
      for (int r = 0; r < rows.count(); r++) {
        if (rows.outcomes[r] != TargetRows.OPEN) {
          own[rows.first + r] = outcome(Outcome.of(rows.outcomes[r]), rows.notes[r]);
        }
      }
    }
  }

  private static byte outcome(Outcome outcome, @Nullable List<LedgerEntry.Note> notes) {
    boolean waits = notes != null && LedgerEntry.isWaiting(outcome, notes);
    return waits ? WAITS : (byte) outcome.ordinal();
  }

  /** The same, to be changed without changing this one. */
  RowOutcomes copy() {
    RowOutcomes copy = new RowOutcomes();
    of.forEach(own -> copy.of.add(own.copy()));
    return copy;
  }

  /** True if it is known of each row of a destination what became of it. */
  boolean isWhole(int destination, long rows) {
    if (destination >= of.size() || of.get(destination).size != rows) {
      return false;
    }
    Outcomes own = of.get(destination);
    for (int row = 0; row < own.size; row++) {
      if (own.of[row] == UNKNOWN) {
        return false;
      }
    }
    return true;
  }

  /** Number of rows in all destinations. */
  public int size() {
    return of.stream().mapToInt(own -> own.size).sum();
  }

  /** Forgets what became of some of a chunk's rows. */
  void forget(ChunkRows chunk, BitSet some) {
    for (TargetRows rows : chunk.targets()) {
      byte[] own = of.get(rows.target.index).of;
      some.stream()
          .forEach(
              row ->
                  Arrays.fill(
                      own, rows.first + rows.from(row), rows.first + rows.to(row), UNKNOWN));
    }
  }

  /** One in so many of a chunk's rows that wait in a destination, the first of them too. */
  BitSet waiting(ChunkRows chunk, int every) {
    BitSet waiting = new BitSet();
    int met = 0;
    for (TargetRows rows : chunk.targets()) {
      byte[] own = of.get(rows.target.index).of;
      for (int r = 0; r < rows.count(); r++) {
        if (own[rows.first + r] == WAITS && met++ % every == 0) {
          waiting.set(rows.rowOf(r));
        }
      }
    }
    return waiting;
  }

  /** By destination. */
  public List<Counts> counts() {
    return of.stream().map(RowOutcomes::counts).toList();
  }

  private static Counts counts(Outcomes own) {
    long[] counts = new long[WAITS + 1];
    for (int row = 0; row < own.size; row++) {
      if (own.of[row] != UNKNOWN) {
        counts[own.of[row]]++;
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
