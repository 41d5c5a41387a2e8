package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Records;
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
 * the rows that the answers touch, and those that have a key or a unique value in common with one.
 *
 * <p>It holds for plans of one table that takes all rows, and for what answers change: how fields
 * are filled that no key holds, phrasebooks, decisions. Anything else has to be rehearsed.
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
  private final KeptColumns.Open columns;
  private final Destination before;
  private final RowOutcomes outcomes;

  /** Hashes keys and unique values, and counts numbers; nothing else is noted in it. */
  private final Target hasher;

  private final List<FilledChunk> filled;
  private final List<Noting.Hashed> hashed;

  /** Records of which it is known what else they would touch. */
  private final Set<List<Object>> known = new HashSet<>();

  private Target target;
  private ChunkSource chunks;
  private long rows;

  private Recount(
      OpenedPlan own,
      KeptColumns.Open columns,
      Target hasher,
      List<FilledChunk> filled,
      Destination before,
      RowOutcomes outcomes,
      KeptKeys keys) {
    this.own = own;
    this.columns = columns;
    this.hasher = hasher;
    this.filled = filled;
    this.before = before;
    this.outcomes = outcomes;
    use(hasher);
    this.hashed = keys.hashed(hasher, columns, chunks, false);
  }

  private void use(Target next) {
    target = next;
    // numbers are counted once
    next.farOff = hasher.farOff;
    chunks = new KeptChunks(columns, filled, next);
  }

  /**
   * @param rehearsed the plan as the outcomes are known for it
   * @param answered the plan as it is now
   * @param remembered of the same source and application
   * @return null if it has to be rehearsed
   */
  public static @Nullable Recount of(
      OpenedPlan rehearsed, OpenedPlan answered, RowOutcomes outcomes, Remembered remembered) {
    Destination before = rehearsed.plan().only();
    Destination now = answered.plan().only();
    if (before == null
        || now == null
        || !isOfAnswers(rehearsed.plan(), before, answered.plan(), now)
        || !rehearsed.shared().checks().equals(answered.shared().checks())
        || !outcomes.isWhole()
        || !Remembered.serves(answered)) {
      return null;
    }
    answered.require();
    OpenedPlan own = answered.through(answered.application(), remembered.answers());
    OpenedPlan old = rehearsed.through(rehearsed.application(), remembered.answers());
    KeptColumns.Open columns = remembered.columns().open(own, now);
    KeptColumns.Open was = remembered.columns().open(old, before);
    List<String> changed = columns.changed(was);
    Target hasher = Targets.only(own, columns.fills());
    if (hasher.holdsInKeys(changed) || hasher.matcher.isNear()) {
      return null;
    }
    List<String> lookedAt = hasher.lookedAt(false);
    lookedAt.addAll(changed);
    if (!Remembered.fits(outcomes.size(), hasher, lookedAt)) {
      return null;
    }
    try (Room room = Room.take(Remembered.weightAtWork(outcomes.size(), hasher, lookedAt))) {
      List<FilledChunk> filled = columns.chunks(lookedAt);
      Recount recount =
          new Recount(own, columns, hasher, filled, before, outcomes.copy(), remembered.keys());
      return recount.go(was.chunks(changed), changed) ? recount : null;
    }
  }

  /** True if nothing differs but what answers change. */
  private static boolean isOfAnswers(
      Plan rehearsed, Destination before, Plan answered, Destination now) {
    if (answered.run().tryInDatabase()) {
      return false;
    }
    Plan asNow =
        rehearsed
            .withName(answered.name())
            .withPhrasebooks(answered.phrasebooks())
            .withDestinations(
                List.of(before.withFills(now.fills()).withDecisions(now.decisions())));
    return asNow.equals(answered) && beside(before).equals(beside(now));
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

  private boolean go(List<FilledChunk> was, List<String> changed) {
    columns.spreads(hasher.farOff, () -> count(hasher.farOff));
    hasher.farOff.settle();
    List<BitSet> touched = touched(was, changed);
    KeyHashes shared = new KeyHashes();
    long noted = -1;
    while (spread(touched, shared) && cardinality(touched) != noted) {
      noted = cardinality(touched);
      use(Targets.only(own, columns.fills()));
      new Noting(own, List.of(target), chunks, touched, hashed).go(Progress.NONE);
      findRecords(touched, shared);
    }
    rows = cardinality(touched);
    if (rows > MOST) {
      return false;
    }
    pass(touched);
    return outcomes.isWhole();
  }

  private void count(FarOff farOff) {
    SideBySide.go(filled.size(), 1, (from, to) -> filled.subList(from, to).forEach(farOff::note));
  }

  private TargetRows rows(int chunk) {
    return chunks.next(chunk).only();
  }

  private static long cardinality(List<BitSet> rows) {
    return rows.stream().mapToLong(BitSet::cardinality).sum();
  }

  /** By chunk, the rows that come to other values, or of which something else was decided. */
  private List<BitSet> touched(List<FilledChunk> was, List<String> changed) {
    List<Integer> fills = new ArrayList<>();
    for (int f = 0; f < target.fills.size(); f++) {
      if (changed.contains(target.fills.get(f).field().name())) {
        fills.add(f);
      }
    }
    Matcher decided = decided();
    BitSet[] touched = new BitSet[filled.size()];
    FarOff far = new FarOff(before, target.table, target.fills);
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
            TargetRows rows = rows(i);
            touched[i] = new BitSet();
            for (int r = 0; r < rows.count(); r++) {
              // what is far off may be so, or be said to be right, because of others
              boolean is =
                  isOfFar && (target.farOff.isFar(rows.filled, r) || far.isFar(was.get(i), r));
              for (int k = 0; !is && k < fills.size(); k++) {
                is = differs(was.get(i), rows.filled, fills.get(k), r);
              }
              if (is || decided != null && decided.isDecided(rows.byField, r)) {
                touched[i].set(r);
              }
            }
          }
        });
    return List.of(touched);
  }

  private static boolean differs(FilledChunk was, FilledChunk now, int fill, int r) {
    Filled before = was.column(fill).odd(r);
    Filled after = now.column(fill).odd(r);
    return before != null || after != null
        ? before == null || !before.equals(after)
        : !was.column(fill).values().isEqual(r, now.column(fill).values(), r);
  }

  /** Knows what was decided otherwise; null if nothing was. */
  private @Nullable Matcher decided() {
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
   * Adds the rows that have a key or a unique value in common with one that is touched, and those
   * that have one in common with these: what becomes of one may change what becomes of another.
   *
   * @param shared hashes of keys and values by which others are touched
   * @return false if they are too many
   */
  private boolean spread(List<BitSet> touched, KeyHashes shared) {
    long before;
    do {
      before = cardinality(touched);
      if (before > MOST) {
        return false;
      }
      for (int i = 0; i < hashed.size(); i++) {
        List<Matcher.Hashes> all = all(hashed.get(i));
        touched.get(i).stream().forEach(r -> all.forEach(hashes -> hashes.addTo(shared, r)));
      }
      SideBySide.go(
          hashed.size(),
          1,
          (from, to) -> {
            for (int i = from; i < to; i++) {
              BitSet rows = touched.get(i);
              all(hashed.get(i)).forEach(hashes -> hashes.findIn(shared, rows));
            }
          });
    } while (cardinality(touched) != before);
    return true;
  }

  private static List<Matcher.Hashes> all(Noting.Hashed hashed) {
    List<Matcher.Hashes> all = new ArrayList<>(hashed.guarded());
    all.add(hashed.keys());
    return all;
  }

  /**
   * Adds what rows may have in common with the records that touched rows speak of, or that have a
   * unique value which one of these is to take.
   */
  private void findRecords(List<BitSet> touched, KeyHashes shared) {
    Set<List<Object>> records = new HashSet<>();
    for (int i = 0; i < hashed.size(); i++) {
      TargetRows own = rows(i);
      touched.get(i).stream()
          .forEach(
              r -> {
                records.addAll(match(own, r).records());
                records.addAll(target.guard.holders(own.byField, r));
              });
    }
    records.removeAll(known);
    known.addAll(records);
    Records found = records.isEmpty() ? Records.none() : own.lookups().fetch(target.table, records);
    for (List<Object> record : records) {
      int at = found.at(record);
      if (at >= 0) {
        hasher.matcher.addHashes(found.columns(), at, shared);
        for (long hash : hasher.guard.hashes(found.columns(), at)) {
          shared.add(hash);
        }
      }
    }
  }

  private Match match(TargetRows rows, int r) {
    return target.matcher.match(rows.first + r, rows.byField, r);
  }

  private void pass(List<BitSet> touched) {
    for (int i = 0; i < hashed.size(); i++) {
      outcomes.forget(rows(i).first, touched.get(i));
    }
    SomeRows.pass(own, List.of(target), chunks, touched, outcomes::take);
  }
}
