package org.zestyporter.core.run;

import java.util.BitSet;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueColumn;

/**
 * Takes rows through once more that a run took in before it was cut off: nothing is written, and
 * what became of each is what the ledger says.
 */
final class Replay {
  private static final String REMEDY = "Take back what stands of it, and begin anew.";
  private static final WriteSession.Change NOTHING =
      new WriteSession.Change(0, null, List.of(), List.of());

  private final Standing standing;
  private final List<Target> targets;

  /** By target, the number of the chunk that comes next. */
  private final int[] next;

  /**
   * @throws PorterException with code {@code cant-go-on} if a table has other fields now
   */
  Replay(Standing standing, List<Target> targets) {
    this.standing = standing;
    this.targets = targets;
    this.next = new int[targets.size()];
    for (Target target : targets) {
      if (!standing.ledger().layouts().contains(target.layout)) {
        throw ErrorCode.CANT_GO_ON.error(
            "The fields of "
                + target.table.name()
                + " are others than when the run began, so it can't go on.",
            REMEDY);
      }
    }
    // the linked records that rows made are in the books again
    RunReport report = standing.report();
    targets.get(0).books.created().add(report.created(), report.createdIn());
  }

  /** Lets a chunk know what became of its rows, if they were taken in; chunks come in order. */
  void open(ChunkRows chunk) {
    if (chunk.first() >= standing.rows()) {
      return;
    }
    LedgerChunk[] past = new LedgerChunk[targets.size()];
    boolean isEntered = true;
    for (int t = 0; t < past.length; t++) {
      TargetRows rows = chunk.targets().get(t);
      LedgerLayout layout = targets.get(t).layout;
      if (rows.count() > 0) {
        isEntered &= next[t] < standing.ledger().closed(layout);
        past[t] =
            next[t] < standing.ledger().chunks(layout)
                ? standing.ledger().chunk(layout, next[t]++)
                : null;
        if (past[t] == null
            || past[t].firstRow() != chunk.first()
            || past[t].size() != rows.count()) {
          throw ErrorCode.CANT_GO_ON.error(
              "The rows of the file are not those that the run began with, so it can't go on.",
              REMEDY);
        }
      }
    }
    chunk.past = past;
    chunk.isEntered = isEntered;
  }

  /** True if a row was gone through before the run was cut off, and did not wait then. */
  static boolean isPast(Place place) {
    ChunkRows chunk = place.chunk();
    if (chunk.past == null) {
      return false;
    }
    for (int t = 0; t < chunk.past.length; t++) {
      TargetRows rows = chunk.targets().get(t);
      for (int r = rows.from(place.row()); r < rows.to(place.row()); r++) {
        if (chunk.past[t].isWaiting(r)) {
          return false;
        }
      }
    }
    return true;
  }

  /** Lets a row that was decided anew be as the ledger says. */
  static void take(TargetRows rows, int r, LedgerChunk past, Decider decider, Waiting waiting) {
    boolean stands = isWritten(past.outcomes()[r]);
    if (isWritten(rows.outcomes[r]) && !stands) {
      // the database refused it, or the tables are not what they were
      waiting.forget(rows, r);
      decider.takeBack(
          rows, r, new LedgerEntry.Note(ProblemCode.REFUSED, null, null, "as before", false));
    }
    rows.outcomes[r] = past.outcomes()[r];
    rows.keys[r] = past.keys()[r];
    if (rows.records == null || !stands) {
      return;
    }
    if (past.outcome(r) == Outcome.NEW && (rows.records[r] == null || !rows.records[r].isNew())) {
      rows.records[r] = RowRecord.made(rows, r);
      waiting.know(rows, r);
    }
    if (rows.records[r] != null) {
      rows.records[r].made(rows.keys[r]);
    }
  }

  /**
   * Enters the rows of a chunk into the books, those that were gone through as the ledger tells of
   * them.
   *
   * @return their entries
   */
  static LedgerChunk enter(ChunkRows chunk, TargetRows rows, TargetBooks books) {
    LedgerChunk past = chunk.past[rows.target.index];
    LedgerChunk all = merged(LedgerEntries.of(chunk.first(), rows), past);
    Records left = Records.of(all.left(), all.size());
    boolean isRead = !rows.target.table.primaryKey().isEmpty();
    rows.found = Records.of(all.before(), all.size());
    for (int r = 0; r < rows.count(); r++) {
      rows.before[r] = all.stood().get(r) ? r : -1;
      rows.changed[r] = all.changed()[r];
      if (!past.isWaiting(r)) {
        if (isWritten(rows.outcomes[r])) {
          WriteSession.Change change = Objects.requireNonNullElse(rows.change(r), NOTHING);
          books.written(rows, r, change, isRead ? left : null, all.written().get(r) ? r : -1);
        }
        // what was said then is not said twice
        rows.notes[r] = past.notes()[r];
      }
    }
    books.enter(rows);
    return all;
  }

  /** Entries as they are now, but for those that the ledger told of already. */
  static LedgerChunk merged(LedgerChunk now, LedgerChunk past) {
    int size = now.size();
    byte[] outcomes = new byte[size];
    byte[] matchedBy = new byte[size];
    @SuppressWarnings("unchecked")
    List<Object>[] keys = new List[size];
    int[][] changed = new int[size][];
    @SuppressWarnings("unchecked")
    List<LedgerEntry.Note>[] notes = new List[size];
    BitSet stood = new BitSet(size);
    BitSet written = new BitSet(size);
    LedgerChunk[] from = new LedgerChunk[size];
    for (int e = 0; e < size; e++) {
      from[e] = past.isWaiting(e) ? now : past;
      outcomes[e] = from[e].outcomes()[e];
      matchedBy[e] = from[e].matchedBy()[e];
      keys[e] = from[e].keys()[e];
      changed[e] = from[e].changed()[e];
      notes[e] = from[e].notes()[e];
      stood.set(e, from[e].stood().get(e));
      written.set(e, from[e].written().get(e));
    }
    return new LedgerChunk(
        now.layout(),
        now.firstRow(),
        now.lines(),
        now.rows(),
        now.parts(),
        outcomes,
        matchedBy,
        keys,
        now.after(),
        stood,
        columns(stood, from, LedgerChunk::before),
        written,
        columns(written, from, LedgerChunk::left),
        changed,
        notes);
  }

  private static ValueColumn[] columns(
      BitSet told, LedgerChunk[] from, Function<LedgerChunk, ValueColumn[]> of) {
    int fields = told.isEmpty() ? 0 : of.apply(from[told.nextSetBit(0)]).length;
    ValueColumn[] columns = new ValueColumn[fields];
    for (int f = 0; f < fields; f++) {
      ColumnMaker maker = new ColumnMaker();
      for (int e = 0; e < from.length; e++) {
        maker.put(told.get(e) ? of.apply(from[e])[f].value(e) : null);
      }
      columns[f] = maker.column();
    }
    return columns;
  }

  private static boolean isWritten(byte outcome) {
    return outcome <= Outcome.CHANGED.ordinal();
  }
}
