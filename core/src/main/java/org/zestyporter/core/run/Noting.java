package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.fill.Awaited;
import org.zestyporter.core.fill.Inquiry;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.match.Match;
import org.zestyporter.core.match.RowIndex;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.value.ValueColumn;

/**
 * Goes through all rows once and notes their keys, then has what is known of these looked up:
 * destination by destination, since the keys of one may hold the key of another one's record.
 */
final class Noting {
  private final OpenedPlan opened;
  private final List<Target> targets;
  private final Chunks chunks;
  private final boolean whole;

  Noting(OpenedPlan opened, List<Target> targets, Chunks chunks) {
    this.opened = opened;
    this.targets = targets;
    this.chunks = chunks;
    this.whole = opened.plan().run().rows() == RunSettings.Rows.WHOLE;
  }

  void go(Progress progress) {
    long done = 0;
    for (int i = 0; i < chunks.count(); i++) {
      Pipeline.requireGoing(progress);
      ChunkRows chunk = chunks.next(i);
      boolean[] rejected = whole && targets.size() > 1 ? rejected(chunk) : null;
      for (TargetRows rows : chunk.targets()) {
        note(chunk, rows, rejected);
      }
      chunks.keep(i, chunk);
      done += chunk.count();
      progress.at(Progress.Phase.MATCHING, done, opened.source().rowCount());
    }
    for (Target target : targets) {
      target.made.values().forEach(RowIndex::settle);
      target.farOff.settle();
      if (target.keysNeedParent()) {
        noteWithParents(target, progress);
      }
      List<Inquiry> inquiries = new ArrayList<>(target.matcher.inquiries());
      inquiries.addAll(target.guard.inquiries());
      if (target.matcher.comparesRepeats()) {
        compare(target, progress);
      }
      opened.answer(inquiries);
      opened.answer(target.matcher.further());
    }
  }

  private static boolean[] rejected(ChunkRows chunk) {
    boolean[] rejected = new boolean[chunk.count()];
    for (int row = 0; row < rejected.length; row++) {
      rejected[row] = chunk.isRejected(row);
    }
    return rejected;
  }

  private void note(ChunkRows chunk, TargetRows rows, boolean @Nullable [] rejected) {
    Target target = rows.target;
    boolean now = !target.keysNeedParent();
    long[] lines = new long[rows.count()];
    for (int r = 0; r < lines.length; r++) {
      lines[r] = rows.line(r);
      ValueColumn[] byField = isLeftOut(rows, r, rejected) ? null : rows.byField;
      if (now) {
        target.matcher.note(byField, r);
        target.guard.note(byField, r);
      }
      for (RowIndex index : target.made.values()) {
        index.note(byField, r);
      }
      for (int f : target.awaiting) {
        if (rows.value(f, r) instanceof Awaited awaited) {
          targets.forEach(t -> want(t, awaited));
        }
      }
    }
    target.farOff.note(rows);
    target.lines.add(lines);
    target.sources.add(chunk.first(), rows.rows, rows.count());
  }

  private static boolean isLeftOut(TargetRows rows, int r, boolean @Nullable [] rejected) {
    return rows.isRejected(r) || rejected != null && rejected[rows.rowOf(r)];
  }

  private static void want(Target target, Awaited awaited) {
    RowIndex index = target.made.get(awaited.by());
    if (index != null) {
      index.want(awaited.parts());
    }
  }

  /** Notes keys that hold the key of the parent's record, once that is known. */
  private void noteWithParents(Target target, Progress progress) {
    for (int i = 0; i < chunks.count(); i++) {
      Pipeline.requireGoing(progress);
      ChunkRows chunk = chunks.next(i);
      boolean[] rejected = whole ? rejected(chunk) : null;
      TargetRows rows = chunk.targets().get(target.index);
      rows.byField[target.parent.fieldIndex()] = parents(chunk, rows);
      for (int r = 0; r < rows.count(); r++) {
        ValueColumn[] byField = isLeftOut(rows, r, rejected) ? null : rows.byField;
        target.matcher.note(byField, r);
        target.guard.note(byField, r);
      }
      chunks.keep(i, chunk);
    }
  }

  /** Finds out whether rows with the same key say the same; only where there are such rows. */
  private void compare(Target target, Progress progress) {
    for (int i = 0; i < chunks.count(); i++) {
      Pipeline.requireGoing(progress);
      ChunkRows chunk = chunks.next(i);
      boolean[] rejected = whole && targets.size() > 1 ? rejected(chunk) : null;
      TargetRows rows = chunk.targets().get(target.index);
      if (target.keysNeedParent()) {
        rows.byField[target.parent.fieldIndex()] = parents(chunk, rows);
      }
      for (int r = 0; r < rows.count(); r++) {
        target.matcher.compare(isLeftOut(rows, r, rejected) ? null : rows.byField, r);
      }
      chunks.keep(i, chunk);
    }
  }

  /** Stands for the record that a row will make, by the index of the row. */
  private record Unmade(int index) implements Pending {
    @Override
    public @Nullable Object key() {
      return null;
    }
  }

  /**
   * What tells the parents of rows apart: the key of a record that is there, or what stands for the
   * one that will be made.
   */
  static ValueColumn parents(ChunkRows chunk, TargetRows rows) {
    Target parent = rows.target.parent.target();
    TargetRows above = chunk.targets().get(parent.index);
    Object[] values = new Object[rows.count()];
    for (int r = 0; r < values.length; r++) {
      int p = above.from(rows.rowOf(r));
      if (above.isRejected(p)) {
        continue;
      }
      Match match = parent.matcher.match(above.first + p, above.byField, p);
      if (match.isOne()) {
        values[r] = match.records().get(0).get(0);
      } else if (match.records().isEmpty()) {
        int kept =
            parent.destination.distinct()
                ? match.first()
                : match.repeated() ? match.kept(parent.destination.policies()) : above.first + p;
        values[r] = kept < 0 ? null : new Unmade(kept);
      }
    }
    return ValueColumn.of(values, null);
  }
}
