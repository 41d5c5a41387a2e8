package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.fill.Awaited;
import org.zestyporter.core.fill.Inquiry;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.match.Match;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.match.RowIndex;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.value.ValueColumn;

/**
 * Goes through all rows once and notes their keys, then has what is known of these looked up:
 * destination by destination, since the keys of one may hold the key of another one's record.
 */
final class Noting {
  private static final int[] NONE = {};

  private final OpenedPlan opened;
  private final List<Target> targets;

  /** Those whose rows are noted, in order. */
  private final List<Target> noted;

  private final ChunkSource chunks;
  private final boolean whole;

  /** True if nobody asks what becomes of the rows, but only which records they speak of. */
  private final boolean onlyMatches;

  /** By chunk, the rows that are noted; null for all. */
  private final @Nullable List<BitSet> only;

  /**
   * By destination and chunk, the keys of all rows; null if they are not known before, of all
   * destinations or of one whose keys hold the parent's record.
   */
  private final @Nullable List<@Nullable List<Hashed>> known;

  /** By destination whose keys hold the parent's record, those of all rows, where they are kept. */
  private final Map<Integer, List<Hashed>> withParents = new HashMap<>();

  /** By destination and chunk, the rows that are not noted; only where all are hashed. */
  private final List<List<boolean[]>> leftOut = new ArrayList<>();

  Noting(OpenedPlan opened, List<Target> targets, ChunkSource chunks, boolean onlyMatches) {
    this(opened, targets, targets, chunks, onlyMatches, null, null);
  }

  /**
   * Only of the matches of one destination, and of those that its records belong to; which records
   * links await is not noted.
   *
   * @param known by destination and chunk, the keys of all rows; null for a destination whose keys
   *     hold the parent's record
   */
  Noting(
      OpenedPlan opened,
      List<Target> targets,
      Target of,
      ChunkSource chunks,
      List<@Nullable List<Hashed>> known) {
    this(opened, targets, of.withAbove(), chunks, true, null, known);
  }

  /**
   * @param only by chunk, the rows of the source that are noted: those of which somebody asks, and
   *     all that have a key, a unique value or a linked record in common with one of them; numbers
   *     that are far off are known already
   * @param known by destination and chunk, the keys of all rows; null for a destination whose keys
   *     hold the parent's record
   */
  Noting(
      OpenedPlan opened,
      List<Target> targets,
      ChunkSource chunks,
      List<BitSet> only,
      List<@Nullable List<Hashed>> known) {
    this(opened, targets, targets, chunks, false, only, known);
  }

  private Noting(
      OpenedPlan opened,
      List<Target> targets,
      List<Target> noted,
      ChunkSource chunks,
      boolean onlyMatches,
      @Nullable List<BitSet> only,
      @Nullable List<@Nullable List<Hashed>> known) {
    this.known = known;
    targets.forEach(t -> leftOut.add(new ArrayList<>()));
    this.only = only;
    this.opened = opened;
    this.targets = targets;
    this.noted = noted;
    this.chunks = chunks;
    this.onlyMatches = onlyMatches;
    this.whole = opened.plan().run().rows() == RunSettings.Rows.WHOLE;
  }

  void go(Progress progress) {
    long rows = opened.source().rowCount();
    long[] done = {0};
    chunks.each(
        progress,
        this::hashed,
        (number, chunk, hashed) -> {
          note(number, chunk, hashed);
          done[0] += chunk.count();
          progress.at(Progress.Phase.MATCHING, done[0], rows);
        });
    for (Target target : noted) {
      target.made.values().forEach(RowIndex::settle);
      if (!onlyMatches && only == null) {
        target.farOff.settle();
      }
      if (target.keysNeedParent()) {
        noteWithParents(target, progress);
      }
      if (isKnown(target)) {
        ask(target);
      }
      List<Inquiry> inquiries = new ArrayList<>(target.matcher.inquiries());
      if (!onlyMatches) {
        inquiries.addAll(target.guard.inquiries());
      }
      if (target.matcher.comparesRepeats()) {
        compare(target, progress);
      }
      opened.answer(inquiries);
      opened.answer(target.matcher.further());
    }
  }

  /** The keys of a chunk's rows, and the values of theirs that must be unique. */
  record Hashed(Matcher.Hashes keys, List<Matcher.Hashes> guarded) {

    /** Of all rows, on any thread. */
    static Hashed of(TargetRows rows, boolean onlyKeys) {
      return new Hashed(
          rows.target.matcher.hashes(rows.byField, rows.count()),
          onlyKeys ? List.of() : rows.target.guard.hashesOf(rows.byField, rows.count()));
    }
  }

  /** The rows of a chunk that are noted; null for all. */
  private @Nullable BitSet only(int number) {
    return only == null ? null : only.get(number);
  }

  /**
   * The keys of a chunk's rows; null if they are not known.
   *
   * @param known by destination and chunk
   */
  static Matcher.@Nullable Hashes keys(
      @Nullable List<@Nullable List<Hashed>> known, Target target, int number) {
    List<Hashed> own = known == null ? null : known.get(target.index);
    return own == null ? null : own.get(number).keys();
  }

  /** True if the keys of all rows of a destination are known. */
  private boolean isKnown(Target target) {
    return known != null && known.get(target.index) != null;
  }

  /** These of a chunk, by target, null where they can't be told yet; numbers are counted. */
  private List<@Nullable Hashed> hashed(int number, ChunkRows chunk) {
    List<Hashed> all = new ArrayList<>();
    for (Target target : targets) {
      if (known != null) {
        List<Hashed> own = known.get(target.index);
        all.add(own == null ? null : own.get(number));
      } else {
        TargetRows rows = chunk.targets().get(target.index);
        if (!onlyMatches) {
          target.farOff.note(rows.filled);
        }
        all.add(target.keysNeedParent() ? null : Hashed.of(rows, onlyMatches));
      }
    }
    return all;
  }

  private void note(int number, ChunkRows chunk, List<@Nullable Hashed> hashed) {
    BitSet some = only(number);
    for (Target target : noted) {
      int t = target.index;
      note(chunk, chunk.targets().get(t), hashed.get(t), some);
    }
    chunks.keep(number, chunk);
  }

  private void note(
      ChunkRows chunk, TargetRows rows, @Nullable Hashed hashed, @Nullable BitSet noted) {
    Target target = rows.target;
    long[] lines = new long[rows.count()];
    boolean[] out = new boolean[lines.length];
    boolean isLinked = !onlyMatches || known == null;
    List<RowIndex> indexes = isLinked ? List.copyOf(target.made.values()) : List.of();
    int[] awaiting = isLinked ? target.awaiting : NONE;
    for (int r = 0; r < lines.length; r++) {
      lines[r] = rows.line(r);
      out[r] = !isNoted(rows, r, noted) || isLeftOut(chunk, rows, r);
      ValueColumn[] byField = out[r] ? null : rows.byField;
      if (hashed != null && known == null) {
        target.matcher.note(hashed.keys, byField, r);
        target.guard.note(hashed.guarded, byField, r);
      }
      boolean waits = !indexes.isEmpty() && out[r] && waits(chunk, rows, r, noted);
      for (int i = 0; i < indexes.size(); i++) {
        if (waits) {
          indexes.get(i).noteWaiting(rows.byField, r);
        } else {
          indexes.get(i).note(byField, r);
        }
      }
      for (int f : isNoted(rows, r, noted) ? awaiting : NONE) {
        if (rows.value(f, r) instanceof Awaited awaited) {
          targets.forEach(t -> want(t, awaited));
        }
      }
    }
    if (isKnown(target)) {
      target.matcher.note(hashed.keys, out);
      target.guard.note(hashed.guarded, out);
      leftOut.get(target.index).add(out);
    }
    target.lines.add(lines);
    target.sources.add(chunk.first(), rows.rows, rows.count());
  }

  /** Asks for the records of rows that were noted all at once, where their keys are few. */
  private void ask(Target target) {
    boolean asks = target.matcher.asksByValue();
    asks |= !onlyMatches && target.guard.asksByValue();
    for (int i = 0; asks && i < chunks.count(); i++) {
      TargetRows rows = chunks.next(i).targets().get(target.index);
      Hashed hashed = known.get(target.index).get(i);
      for (int r = 0; r < rows.count(); r++) {
        if (!leftOut.get(target.index).get(i)[r]) {
          target.matcher.ask(rows.first + r, hashed.keys, rows.byField, r);
          target.guard.ask(rows.first + r, hashed.guarded, rows.byField, r);
        }
      }
    }
  }

  private static boolean isNoted(TargetRows rows, int r, @Nullable BitSet only) {
    return only == null || only.get(rows.rowOf(r));
  }

  /** True if it can't be written by its own values, or by those of others that go with it. */
  private boolean isLeftOut(ChunkRows chunk, TargetRows rows, int r) {
    boolean isTogether = whole && targets.size() > 1;
    return rows.isRejected(r) || isTogether && chunk.isRejected(rows.rowOf(r));
  }

  /** True if nothing but questions keep a row from being written, with all that goes with it. */
  private boolean waits(ChunkRows chunk, TargetRows rows, int r, @Nullable BitSet only) {
    return isNoted(rows, r, only)
        && (whole ? chunk.waits(rows.rowOf(r)) : !rows.isRejectedForGood(r));
  }

  private static void want(Target target, Awaited awaited) {
    RowIndex index = target.made.get(awaited.by());
    if (index != null) {
      index.want(awaited.parts());
    }
  }

  /**
   * By destination and chunk, the keys of all rows as they were noted; null if they are not kept.
   */
  List<@Nullable List<Hashed>> hashed() {
    return targets.stream()
        .map(t -> isKnown(t) ? known.get(t.index) : withParents.get(t.index))
        .toList();
  }

  /** Notes keys that hold the key of the parent's record, once that is known. */
  private void noteWithParents(Target target, Progress progress) {
    List<Hashed> all = new ArrayList<>();
    chunks.each(
        progress,
        (number, chunk) -> {
          TargetRows rows = chunk.targets().get(target.index);
          addParents(number, chunk, rows);
          return only == null ? Hashed.of(rows, onlyMatches) : null;
        },
        (number, chunk, hashed) -> {
          noteWithParents(chunk, target, hashed, only(number));
          if (known != null) {
            all.add(hashed);
          }
          chunks.keep(number, chunk);
        });
    if (known != null && only == null) {
      withParents.put(target.index, all);
    }
  }

  /**
   * @param hashed the keys of all rows; null if not all are noted
   */
  private void noteWithParents(
      ChunkRows chunk, Target target, @Nullable Hashed hashed, @Nullable BitSet some) {
    TargetRows rows = chunk.targets().get(target.index);
    for (int r = 0; r < rows.count(); r++) {
      boolean isOut = !isNoted(rows, r, some) || isLeftOut(chunk, rows, r);
      ValueColumn[] byField = isOut ? null : rows.byField;
      if (hashed == null) {
        target.matcher.note(byField, r);
      } else {
        target.matcher.note(hashed.keys, byField, r);
      }
      if (!onlyMatches && hashed == null) {
        target.guard.note(byField, r);
      } else if (!onlyMatches) {
        target.guard.note(hashed.guarded, byField, r);
      }
    }
  }

  /** Has rows hold what tells their parents apart. */
  private void addParents(int number, ChunkRows chunk, TargetRows rows) {
    addParents(chunk, rows, only(number), keys(known, rows.target.parent.target(), number));
  }

  /**
   * Has rows hold what tells their parents apart, if they don't yet.
   *
   * @param only the chunk's rows for which that is wanted; null for all
   * @param above the keys of all of the chunk's rows above; null if they are not known
   */
  static void addParents(
      ChunkRows chunk, TargetRows rows, @Nullable BitSet only, Matcher.@Nullable Hashes above) {
    if (!rows.holdParents) {
      rows.byField[rows.target.parent.fieldIndex()] = parents(chunk, rows, only, above);
      rows.holdParents = true;
    }
  }

  /** Finds out whether rows with the same key say the same; only where there are such rows. */
  private void compare(Target target, Progress progress) {
    chunks.each(
        progress,
        (number, chunk) -> repeated(target, number, chunk),
        (number, chunk, repeated) -> {
          repeated.at.stream().forEach(r -> target.matcher.compare(repeated.said.byField, r));
          chunks.keep(number, chunk);
        });
  }

  /** Rows whose keys others have too, with what they say. */
  private record Repeated(TargetRows said, BitSet at) {}

  private Repeated repeated(Target target, int number, ChunkRows chunk) {
    BitSet some = only(number);
    TargetRows rows = chunk.targets().get(target.index);
    if (target.keysNeedParent()) {
      addParents(number, chunk, rows);
    }
    Matcher.Hashes hashes = keys(known, target, number);
    BitSet at = new BitSet();
    BitSet source = new BitSet();
    for (int r = 0; r < rows.count(); r++) {
      if (isNoted(rows, r, some)
          && !isLeftOut(chunk, rows, r)
          && target.matcher.mayDiffer(hashes, rows.byField, r)) {
        at.set(r);
        source.set(rows.rowOf(r));
      }
    }
    if (at.isEmpty() || chunks.isWhole()) {
      return new Repeated(rows, at);
    }
    TargetRows said = chunks.whole(number, source).targets().get(target.index);
    if (target.keysNeedParent()) {
      int parent = target.parent.fieldIndex();
      said.byField[parent] = rows.byField[parent];
    }
    return new Repeated(said, at);
  }

  /** Stands for the record that a row will make, by the index of the row. */
  private record Unmade(int index) implements Pending {
    @Override
    public @Nullable Object key() {
      return null;
    }

    /** It is told apart by this wherever keys are compared. */
    @Override
    public String toString() {
      return "of row " + index;
    }
  }

  /**
   * What tells the parents of rows apart: the key of a record that is there, or what stands for the
   * one that will be made.
   *
   * @param only the chunk's rows for which that is wanted; null for all
   * @param hashes the keys of all of the chunk's rows above; null if they are not known
   */
  private static ValueColumn parents(
      ChunkRows chunk, TargetRows rows, @Nullable BitSet only, Matcher.@Nullable Hashes hashes) {
    Target parent = rows.target.parent.target();
    TargetRows above = chunk.targets().get(parent.index);
    boolean isPlaced = hashes != null && only == null;
    Matcher.Placed placed = isPlaced ? parent.matcher.placed(hashes, above.first) : null;
    Object[] values = new Object[rows.count()];
    for (int r = 0; r < values.length; r++) {
      int p = above.from(rows.rowOf(r));
      if (!isNoted(rows, r, only) || above.isRejected(p)) {
        continue;
      }
      Match match = parent.matcher.match(above.first + p, placed, above.byField, p);
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
