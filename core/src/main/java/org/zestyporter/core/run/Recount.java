package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.match.Match;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.value.LongMap;
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
  private final Target target;
  private final Destination before;
  private final List<Noting.Hashed> hashed = new ArrayList<>();
  private final RowOutcomes outcomes;

  /** Records of which it is known which unique values they have. */
  private final Set<List<Object>> freed = new HashSet<>();

  private ChunkSource chunks;
  private long rows;

  private Recount(OpenedPlan own, Target target, Destination before, RowOutcomes outcomes) {
    this.own = own;
    this.target = target;
    this.before = before;
    this.outcomes = outcomes.copy();
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
        || !outcomes.isWhole()
        || !Classing.isPlain(answered)) {
      return null;
    }
    answered.require();
    Destination before = rehearsed.plan().destinations().get(0);
    Destination now = answered.plan().destinations().get(0);
    OpenedPlan own = answered.through(answered.application(), remembered.answers());
    OpenedPlan old = rehearsed.through(rehearsed.application(), remembered.answers());
    KeptColumns.Open columns = remembered.columns().open(own, now);
    List<String> changed = columns.changed(remembered.columns().open(old, before));
    Target target = Targets.open(own, columns.fills()).get(0);
    List<String> lookedAt = target.lookedAt(false);
    if (target.holdsInKeys(changed)) {
      return null;
    }
    lookedAt.addAll(changed);
    Recount recount = new Recount(own, target, before, outcomes);
    List<FilledChunk> was = remembered.columns().open(old, before).chunks(changed);
    recount.chunks = new KeptChunks(columns, target, lookedAt);
    return recount.go(was, changed) ? recount : null;
  }

  /** True if nothing differs but what answers change. */
  private static boolean isOfAnswers(Plan rehearsed, Plan answered) {
    if (rehearsed.destinations().size() != 1
        || answered.destinations().size() != 1
        || answered.run().tryInDatabase()) {
      return false;
    }
    Destination before = rehearsed.destinations().get(0);
    Destination now = answered.destinations().get(0);
    Plan asNow =
        rehearsed
            .withName(answered.name())
            .withPhrasebooks(answered.phrasebooks())
            .withDestinations(
                List.of(before.withFills(now.fills()).withDecisions(now.decisions())));
    return asNow.equals(answered) && fields(before).equals(fields(now));
  }

  private static Set<String> fields(Destination destination) {
    Set<String> fields = new HashSet<>();
    destination.fills().stream().filter(Fill::isGiven).forEach(f -> fields.add(f.field()));
    return fields;
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
    new Noting(own, List.of(target), chunks, false)
        .go(Progress.NONE, byTarget -> hashed.add(byTarget.get(0)));
    List<BitSet> touched = touched(was, changed);
    if (!spread(touched)) {
      return false;
    }
    rows = cardinality(touched);
    pass(touched);
    return outcomes.isWhole();
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
    BitSet[] touched = new BitSet[chunks.count()];
    boolean saysFar = saysFar();
    SideBySide.go(
        touched.length,
        1,
        (from, to) -> {
          for (int i = from; i < to; i++) {
            TargetRows rows = chunks.next(i).targets().get(0);
            touched[i] = new BitSet();
            for (int r = 0; r < rows.count(); r++) {
              boolean is = saysFar && target.farOff.isFar(rows, r);
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

  /** True if something else is said of numbers that are far off. */
  private boolean saysFar() {
    for (Fill fill : target.destination.fills()) {
      boolean isSame =
          before.fills().stream()
              .filter(f -> f.field().equalsIgnoreCase(fill.field()))
              .allMatch(f -> java.util.Objects.equals(f.farOff(), fill.farOff()));
      if (!isSame) {
        return true;
      }
    }
    return false;
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
   * that have one in common with these, for what becomes of one may change what becomes of another.
   *
   * @return false if they are too many
   */
  private boolean spread(List<BitSet> touched) {
    LongMap<Boolean> shared = new LongMap<>();
    long before;
    do {
      if (cardinality(touched) > MOST) {
        return false;
      }
      before = cardinality(touched) + shared.size();
      for (int i = 0; i < touched.size(); i++) {
        int number = i;
        touched.get(i).stream()
            .forEach(r -> all(hashed.get(number)).forEach(hashes -> hashes.addTo(shared, r)));
      }
      SideBySide.go(
          touched.size(),
          1,
          (from, to) -> {
            for (int i = from; i < to; i++) {
              BitSet rows = touched.get(i);
              all(hashed.get(i)).forEach(hashes -> hashes.findIn(shared, rows));
            }
          });
      spreadByRecord(touched, shared);
    } while (cardinality(touched) + shared.size() != before);
    return true;
  }

  private static List<Matcher.Hashes> all(Noting.Hashed hashed) {
    List<Matcher.Hashes> all = new ArrayList<>(hashed.guarded());
    all.add(hashed.keys());
    return all;
  }

  /**
   * Adds the rows that another key led to the same record, or to one that has a unique value which
   * a touched row is to take, and the unique values that touched rows would free.
   */
  private void spreadByRecord(List<BitSet> touched, LongMap<Boolean> shared) {
    Set<List<Object>> spoken = new HashSet<>();
    Set<List<Object>> holders = new HashSet<>();
    for (int i = 0; i < touched.size(); i++) {
      TargetRows rows = chunks.next(i).targets().get(0);
      touched.get(i).stream()
          .forEach(
              r -> {
                spoken.addAll(match(rows, r).records());
                holders.addAll(target.guard.holders(rows.byField, r));
              });
    }
    if (target.guard.size() > 0) {
      Set<List<Object>> unknown = new HashSet<>(spoken);
      unknown.removeAll(freed);
      Records found = own.lookups().fetch(target.table, unknown);
      for (List<Object> record : unknown) {
        int at = found.at(record);
        for (long hash : at < 0 ? new long[0] : target.guard.hashes(found.columns(), at)) {
          if (hash != 0) {
            shared.put(hash, true);
          }
        }
      }
      freed.addAll(unknown);
    }
    if (target.matcher.size() > 1 || !spoken.containsAll(holders)) {
      spoken.addAll(holders);
      find(spoken, touched);
    }
  }

  /** Adds the rows that speak of some records. */
  private void find(Set<List<Object>> records, List<BitSet> touched) {
    SideBySide.go(
        touched.size(),
        1,
        (from, to) -> {
          for (int i = from; i < to; i++) {
            TargetRows rows = chunks.next(i).targets().get(0);
            for (int r = 0; r < rows.count(); r++) {
              if (!touched.get(i).get(r) && !rows.isRejected(r)) {
                Match match = match(rows, r);
                if (match.isOne() && records.contains(match.records().get(0))) {
                  touched.get(i).set(r);
                }
              }
            }
          }
        });
  }

  private Match match(TargetRows rows, int r) {
    return target.matcher.match(rows.first + r, rows.byField, r);
  }

  private void pass(List<BitSet> touched) {
    Ledger ledger =
        new Ledger() {
          @Override
          public void begin(LedgerLayout layout) {
            // only the rows count
          }

          @Override
          public void append(LedgerChunk chunk) {
            for (int entry = 0; entry < chunk.size(); entry++) {
              if (!chunk.isWaiting(entry)) {
                outcomes.take(chunk, entry);
              }
            }
          }
        };
    for (int i = 0; i < touched.size(); i++) {
      outcomes.forget(chunks.next(i).first(), touched.get(i));
    }
    Classing.pass(own, List.of(target), chunks, touched, ledger);
  }
}
