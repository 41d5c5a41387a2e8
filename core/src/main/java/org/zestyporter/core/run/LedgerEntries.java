package org.zestyporter.core.run;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.stream.IntStream;
import org.zestyporter.core.fill.Awaited;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueColumn;

/** Makes the entries of a ledger from rows. */
final class LedgerEntries {
  private static final LedgerEntry.Note WAITS =
      new LedgerEntry.Note(
          ProblemCode.WAITING,
          null,
          null,
          "waits for a row further on, which the run had not reached",
          false);

  private LedgerEntries() {}

  /**
   * The entries of rows of which some may still be open: these are told to wait. The records of
   * rows that were replayed are those of the ledger before.
   */
  static LedgerChunk soFar(ChunkRows chunk, TargetRows rows) {
    byte[] outcomes = rows.outcomes.clone();
    List<LedgerEntry.Note>[] notes = rows.notes.clone();
    for (int r = 0; r < outcomes.length; r++) {
      if (outcomes[r] == TargetRows.OPEN) {
        outcomes[r] = (byte) Outcome.SKIPPED.ordinal();
        notes[r] = List.of(WAITS);
      }
    }
    LedgerChunk now = of(chunk.first(), rows, outcomes, notes);
    LedgerChunk past = chunk.past == null ? null : chunk.past[rows.target.index];
    return past == null ? now : Replay.merged(now, past);
  }

  /** The entries of decided rows. */
  static LedgerChunk of(int first, TargetRows rows) {
    return of(first, rows, rows.outcomes, rows.notes);
  }

  private static LedgerChunk of(
      int first, TargetRows rows, byte[] outcomes, List<LedgerEntry.Note>[] notes) {
    int count = rows.count();
    long[] lines = new long[count];
    for (int r = 0; r < count; r++) {
      lines[r] = rows.line(r);
    }
    ValueColumn[] after = new ValueColumn[rows.target.fills.size()];
    for (int f = 0; f < after.length; f++) {
      after[f] = after(rows, f);
    }
    BitSet stood = new BitSet(count);
    for (int r = 0; r < count; r++) {
      stood.set(r, rows.before[r] >= 0);
    }
    ValueColumn[] before =
        stood.isEmpty()
            ? new ValueColumn[0]
            : Arrays.stream(rows.found.columns())
                .map(c -> c.pick(rows.before))
                .toArray(ValueColumn[]::new);
    BitSet written = rows.leftRows();
    return new LedgerChunk(
        rows.target.layout,
        first,
        lines,
        rows.rows == null ? IntStream.range(0, count).toArray() : rows.rows,
        rows.parts,
        outcomes,
        rows.matchedBy,
        rows.keys,
        after,
        stood,
        before,
        written,
        written.isEmpty() ? new ValueColumn[0] : rows.left(),
        rows.changed,
        notes);
  }

  /** What a fill gave, with keys in the place of records that were pending. */
  private static ValueColumn after(TargetRows rows, int f) {
    ValueColumn column = rows.filled.column(f).values();
    if (column.form() != ValueColumn.Form.ANY && !rows.isSettledFill(f)) {
      return column;
    }
    Object[] values = new Object[rows.count()];
    for (int r = 0; r < values.length; r++) {
      Object value = rows.value(f, r);
      values[r] = value instanceof Pending pending && pending.key() != null ? pending.key() : value;
      if (values[r] instanceof Pending || values[r] instanceof Awaited) {
        values[r] = values[r].toString();
      }
    }
    return ValueColumn.of(values, null);
  }
}
