package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.match.KeyHashes;
import org.zestyporter.core.match.Match;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.value.SideBySide;

/**
 * Counts anew what becomes of rows once questions of a rehearsal are answered, going only through
 * the rows that the answers touch, and those that are {@linkplain Ties tied} to one of them.
 *
 * <p>It holds for what answers change: how fields are filled that no key holds and no link looks
 * for, phrasebooks, decisions. Anything else has to be rehearsed.
 *
 * <pre>{@code
 * Recount recount = Recount.of(rehearsed, answered, outcomes, remembered);
 * if (recount != null) {
 *   recount.outcomes().counts();
 * }
 * }</pre>
 */
public final class Recount {
  /** More rows are gone through about as fast in a rehearsal. */
  private static final int MOST = 150_000;

  private final OpenedPlan own;
  private final List<Part> parts;
  private final RowOutcomes outcomes;
  private final KeptKeys keys;

  /** The destinations of {@link #chunks}. */
  private List<Target> targets;

  private ChunkSource chunks;
  private long rows;

  /** A destination. */
  private static final class Part {
    private final Destination before;
    private final KeptColumns.Open columns;

    /** The fields that the answers fill otherwise. */
    private final List<String> changed;

    /** As it is kept of the plan that was rehearsed. */
    private final KeptColumns.Open was;

    /** Hashes keys and unique values, and counts numbers; nothing else is noted in it. */
    private Target hasher;

    private List<FilledChunk> filled;

    /** Records of which it is known what else they would touch. */
    private final Set<List<Object>> known = new HashSet<>();

    Part(Destination before, KeptColumns.Open columns, KeptColumns.Open was) {
      this.before = before;
      this.columns = columns;
      this.changed = columns.changed(was);
      this.was = was;
    }

    /** The fields whose values have to be known of all rows. */
    List<String> lookedAt() {
      List<String> fields = hasher.lookedAt(false);
      fields.addAll(changed);
      return fields;
    }

    /** True if answers can be counted: not what changes which rows are the same record. */
    boolean isServed() {
      boolean isTied =
          !hasher.keysNeedParent()
              || hasher.isWithinParent()
                  && before.decisions().equals(hasher.destination.decisions());
      return columns.rowsOf().equals(was.rowsOf())
          && isTied
          && !hasher.holdsInKeys(changed)
          && !hasher.matcher.isNear();
    }
  }

  private Recount(OpenedPlan own, List<Part> parts, RowOutcomes outcomes, KeptKeys keys) {
    this.own = own;
    this.parts = parts;
    this.outcomes = outcomes;
    this.keys = keys;
  }

  private void use(List<Target> next) {
    targets = next;
    List<KeptChunks.Part> kept = new ArrayList<>();
    for (Target target : next) {
      Part part = parts.get(target.index);
      // numbers are counted once
      target.farOff = part.hasher.farOff;
      kept.add(new KeptChunks.Part(part.columns, part.filled, target));
    }
    chunks = new KeptChunks(kept);
  }

  /**
   * @param rehearsed the plan as the outcomes are known for it
   * @param answered the plan as it is now
   * @param remembered of the same source and application
   * @return null if it has to be rehearsed
   */
  public static @Nullable Recount of(
      OpenedPlan rehearsed, OpenedPlan answered, RowOutcomes outcomes, Remembered remembered) {
    if (!isOfAnswers(rehearsed.plan(), answered.plan())
        || !rehearsed.shared().checks().equals(answered.shared().checks())) {
      return null;
    }
    answered.require();
    OpenedPlan own = answered.through(answered.application(), remembered.answers());
    OpenedPlan old = rehearsed.through(rehearsed.application(), remembered.answers());
    List<Part> parts = parts(own, old, remembered);
    for (Part part : parts) {
      if (!part.isServed() || !outcomes.isWhole(part.hasher.index, part.columns.count())) {
        return null;
      }
    }
    long weight = 0;
    for (Part part : parts) {
      List<String> lookedAt = part.lookedAt();
      if (!Remembered.fits(part.columns.count(), part.hasher, lookedAt)) {
        return null;
      }
      weight += Remembered.weightAtWork(part.columns.count(), part.hasher, lookedAt);
    }
    try (Room room = Room.take(weight)) {
      parts.forEach(part -> part.filled = part.columns.chunks(part.lookedAt()));
      Recount recount = new Recount(own, parts, outcomes.copy(), remembered.keys());
      return recount.go() ? recount : null;
    }
  }

  private static List<Part> parts(OpenedPlan own, OpenedPlan old, Remembered remembered) {
    List<Part> parts = new ArrayList<>();
    for (int d = 0; d < own.plan().destinations().size(); d++) {
      Destination now = own.plan().destinations().get(d);
      Destination before = old.plan().destinations().get(d);
      parts.add(
          new Part(
              before, remembered.columns().open(own, now), remembered.columns().open(old, before)));
    }
    for (Target hasher : Targets.open(own, fills(parts))) {
      parts.get(hasher.index).hasher = hasher;
    }
    return parts;
  }

  private static List<List<CompiledFill>> fills(List<Part> parts) {
    return parts.stream().map(part -> part.columns.fills()).toList();
  }

  /** True if nothing differs but what answers change. */
  private static boolean isOfAnswers(Plan rehearsed, Plan answered) {
    int count = answered.destinations().size();
    if (answered.run().tryInDatabase() || count != rehearsed.destinations().size()) {
      return false;
    }
    List<Destination> asNow = new ArrayList<>();
    for (int d = 0; d < count; d++) {
      Destination before = rehearsed.destinations().get(d);
      Destination now = answered.destinations().get(d);
      if (!beside(before).equals(beside(now))) {
        return false;
      }
      asNow.add(before.withFills(now.fills()).withDecisions(now.decisions()));
    }
    return rehearsed
        .withName(answered.name())
        .withPhrasebooks(answered.phrasebooks())
        .withDestinations(asNow)
        .equals(answered);
  }

  /** What fills say besides which values they give, which has a meaning for all rows. */
  private static Set<List<Object>> beside(Destination destination) {
    Set<List<Object>> beside = new HashSet<>();
    for (Fill fill : destination.fills()) {
      if (fill.isGiven()) {
        boolean isMade = fill.origin() instanceof Origin.Generated;
        beside.add(
            Arrays.asList(fill.field(), isMade, fill.onlyNew(), fill.blankOnMatch(), fill.never()));
      }
    }
    return beside;
  }

  /** What becomes of all rows now. */
  public RowOutcomes outcomes() {
    return outcomes;
  }

  /** How many rows were gone through for it. */
  public long rows() {
    return rows;
  }

  private boolean go() {
    List<Target> hashers = parts.stream().map(part -> part.hasher).toList();
    for (Part part : parts) {
      part.columns.spreads(part.hasher.farOff, () -> count(part));
      part.hasher.farOff.settle();
    }
    use(hashers);
    List<List<Noting.Hashed>> hashed = new ArrayList<>();
    for (Part part : parts) {
      boolean isTold = !part.hasher.keysNeedParent();
      hashed.add(isTold ? keys.hashed(part.hasher, part.columns, chunks, false) : null);
    }
    List<KeptColumns.Open> columns = parts.stream().map(part -> part.columns).toList();
    Ties ties = new Ties(hashers, columns, hashed, chunks, keys);
    List<BitSet> touched = touched();
    long noted = -1;
    while (ties.spread(touched, MOST) && Ties.count(touched) != noted) {
      noted = Ties.count(touched);
      use(Targets.open(own, fills(parts)));
      new Noting(own, targets, chunks, touched, hashed).go(Progress.NONE);
      targets.forEach(target -> findRecords(target, touched, ties.of(target)));
    }
    rows = Ties.count(touched);
    if (rows > MOST) {
      return false;
    }
    pass(touched);
    return parts.stream().allMatch(p -> outcomes.isWhole(p.hasher.index, p.columns.count()));
  }

  private static void count(Part part) {
    SideBySide.go(
        part.filled.size(),
        1,
        (from, to) -> part.filled.subList(from, to).forEach(part.hasher.farOff::note));
  }

  /** By chunk, the rows that come to other values, or of which something else was decided. */
  private List<BitSet> touched() {
    BitSet[] touched = new BitSet[chunks.count()];
    Arrays.setAll(touched, i -> new BitSet());
    for (Target target : targets) {
      touch(target, parts.get(target.index), touched);
    }
    return List.of(touched);
  }

  private void touch(Target target, Part part, BitSet[] touched) {
    List<Integer> fills = new ArrayList<>();
    for (int f = 0; f < target.fills.size(); f++) {
      if (part.changed.contains(target.fills.get(f).field().name())) {
        fills.add(f);
      }
    }
    Matcher decided = decided(target, part.before);
    if (fills.isEmpty() && decided == null) {
      return;
    }
    List<FilledChunk> was = part.was.chunks(part.changed);
    FarOff far = new FarOff(part.before, target.table, target.fills);
    far.only(fills);
    was.forEach(far::note);
    far.settle();
    boolean isOfFar =
        !far.fills().isEmpty() || target.farOff.fills().stream().anyMatch(fills::contains);
    SideBySide.go(
        touched.length,
        1,
        (from, to) -> {
          for (int i = from; i < to; i++) {
            TargetRows rows = chunks.next(i).targets().get(target.index);
            for (int r = 0; r < rows.count(); r++) {
              // what is far off may be so, or be said to be right, because of others
              boolean is =
                  isOfFar && (target.farOff.isFar(rows.filled, r) || far.isFar(was.get(i), r));
              for (int k = 0; !is && k < fills.size(); k++) {
                is = differs(was.get(i), rows.filled, fills.get(k), r);
              }
              if (is || decided != null && decided.isDecided(rows.byField, r)) {
                touched[i].set(rows.rowOf(r));
              }
            }
          }
        });
  }

  private static boolean differs(FilledChunk was, FilledChunk now, int fill, int r) {
    Filled before = was.column(fill).odd(r);
    Filled after = now.column(fill).odd(r);
    return before != null || after != null
        ? before == null || !before.equals(after)
        : !was.column(fill).values().isEqual(r, now.column(fill).values(), r);
  }

  /** Knows what was decided otherwise; null if nothing was. */
  private static @Nullable Matcher decided(Target target, Destination before) {
    List<Decision> others = new ArrayList<>(target.destination.decisions());
    others.removeAll(before.decisions());
    List<Decision> gone = new ArrayList<>(before.decisions());
    gone.removeAll(target.destination.decisions());
    others.addAll(gone);
    return others.isEmpty()
        ? null
        : new Matcher(target.destination.keys(), target.table, null, null, others, List.of());
  }

  /**
   * Adds what rows may have in common with the records that touched rows speak of, or that have a
   * unique value which one of these is to take.
   */
  private void findRecords(Target target, List<BitSet> touched, KeyHashes shared) {
    if (target.keysNeedParent()) {
      // rows that speak of its records share the parent
      return;
    }
    Part part = parts.get(target.index);
    Set<List<Object>> records = new HashSet<>();
    for (int i = 0; i < touched.size(); i++) {
      BitSet some = touched.get(i);
      if (some.isEmpty()) {
        continue;
      }
      TargetRows rows = chunks.next(i).targets().get(target.index);
      for (int row = some.nextSetBit(0); row >= 0; row = some.nextSetBit(row + 1)) {
        for (int r = rows.from(row); r < rows.to(row); r++) {
          Match match = target.matcher.match(rows.first + r, rows.byField, r);
          records.addAll(match.records());
          records.addAll(target.guard.holders(rows.byField, r));
        }
      }
    }
    records.removeAll(part.known);
    part.known.addAll(records);
    Records found = records.isEmpty() ? Records.none() : own.lookups().fetch(target.table, records);
    for (List<Object> record : records) {
      int at = found.at(record);
      if (at >= 0) {
        part.hasher.matcher.addHashes(found.columns(), at, shared);
        for (long hash : part.hasher.guard.hashes(found.columns(), at)) {
          shared.add(hash);
        }
      }
    }
  }

  private void pass(List<BitSet> touched) {
    for (int i = 0; i < touched.size(); i++) {
      if (!touched.get(i).isEmpty()) {
        outcomes.forget(chunks.next(i), touched.get(i));
      }
    }
    SomeRows.passAlone(own, targets, chunks, touched, outcomes::take);
  }
}
