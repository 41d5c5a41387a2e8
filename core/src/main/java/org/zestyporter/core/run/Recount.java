package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.fill.FilledChunk;
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
 * <p>It holds for what answers change: how fields are filled, phrasebooks, decisions. Anything else
 * has to be rehearsed.
 *
 * <pre>{@code
 * Recount recount = Recount.of(rehearsed, answered, outcomes, remembered);
 * if (recount != null) {
 *   recount.outcomes().counts();
 * }
 * }</pre>
 */
public final class Recount {
  /** About as many rows are gone through to get ready. */
  private static final int TRIED = 2_000;

  private final Excerpt excerpt;

  /**
   * The same of the plan that was rehearsed, by which other rows were tied; null if the answers
   * change nothing by which rows are.
   */
  private final @Nullable Excerpt before;

  private final List<Part> parts;
  private final RowOutcomes outcomes;
  private long rows;

  /**
   * A destination.
   *
   * @param columns as they are kept of the plan as it is now
   * @param was the same of the plan that was rehearsed
   * @param changed the fields that the answers fill otherwise
   */
  private record Part(
      Destination before, KeptColumns.Open columns, KeptColumns.Open was, List<String> changed) {

    Part(Destination before, KeptColumns.Open columns, KeptColumns.Open was) {
      this(before, columns, was, columns.changed(was));
    }

    /** True if answers can be counted: not what changes which rows are the same record. */
    boolean isServed(Target target) {
      return columns.rowsOf().equals(was.rowsOf())
          // what they decide can't be told of rows whose parents are not known
          && (!target.keysNeedParent()
              || before.decisions().equals(target.destination.decisions()));
    }
  }

  private Recount(
      Excerpt excerpt, @Nullable Excerpt before, List<Part> parts, RowOutcomes outcomes) {
    this.excerpt = excerpt;
    this.before = before;
    this.parts = parts;
    this.outcomes = outcomes;
  }

  /**
   * @param rehearsed the plan as the outcomes are known for it
   * @param answered the plan as it is now
   * @param remembered of the same source and application
   * @return null if it has to be rehearsed
   */
  public static @Nullable Recount of(
      OpenedPlan rehearsed, OpenedPlan answered, RowOutcomes outcomes, Remembered remembered) {
    return of(rehearsed, answered, outcomes, remembered, Recount::touched);
  }

  /**
   * Has all found out that the first answer needs, by going through rows that wait for one.
   *
   * @param rehearsed the plan as the outcomes are known for it
   * @param remembered what is found out stays in it
   * @return how many rows were gone through; 0 if none waits, or answers have to be rehearsed
   */
  public static long getReady(OpenedPlan rehearsed, RowOutcomes outcomes, Remembered remembered) {
    Recount tried = of(rehearsed, rehearsed, outcomes, remembered, Recount::waiting);
    return tried == null ? 0 : tried.rows;
  }

  /**
   * @param which rows are gone through
   */
  private static @Nullable Recount of(
      OpenedPlan rehearsed,
      OpenedPlan answered,
      RowOutcomes outcomes,
      Remembered remembered,
      Function<Recount, List<BitSet>> which) {
    if (!isOfAnswers(rehearsed.plan(), answered.plan())
        || !rehearsed.shared().checks().equals(answered.shared().checks())) {
      return null;
    }
    answered.require();
    OpenedPlan own = answered.through(answered.application(), remembered.answers());
    OpenedPlan old = rehearsed.through(rehearsed.application(), remembered.answers());
    List<KeptColumns.Open> columns = remembered.columns().openAll(own);
    List<KeptColumns.Open> was = remembered.columns().openAll(old);
    List<Part> parts = new ArrayList<>();
    for (int d = 0; d < columns.size(); d++) {
      Destination before = old.plan().destinations().get(d);
      parts.add(new Part(before, columns.get(d), was.get(d)));
    }
    List<List<String>> changed = parts.stream().map(Part::changed).toList();
    Excerpt excerpt = Excerpt.of(own, columns, changed, remembered);
    if (excerpt == null) {
      return null;
    }
    boolean isTiedAlike = true;
    for (Target target : excerpt.targets()) {
      Part part = parts.get(target.index);
      if (!part.isServed(target) || !outcomes.isWhole(target.index, part.columns.count())) {
        return null;
      }
      isTiedAlike &= !target.holdsInKeys(part.changed);
    }
    Excerpt before = isTiedAlike ? null : Excerpt.of(old, was, changed, remembered);
    if (!isTiedAlike && before == null) {
      return null;
    }
    try (Room room = Room.take(excerpt.weight() + (before == null ? 0 : before.weight()))) {
      Recount recount = new Recount(excerpt, before, parts, outcomes.copy());
      return recount.go(which) ? recount : null;
    }
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

  private boolean go(Function<Recount, List<BitSet>> which) {
    excerpt.open();
    List<BitSet> answered = which.apply(this);
    List<BitSet> touched = answered.stream().map(rows -> (BitSet) rows.clone()).toList();
    if (before != null && !spreadBefore(touched)) {
      return false;
    }
    excerpt.tie(alike(answered));
    if (!excerpt.spread(touched)) {
      return false;
    }
    rows = Ties.count(touched);
    for (int i = 0; i < touched.size(); i++) {
      if (!touched.get(i).isEmpty()) {
        outcomes.forget(excerpt.chunks().next(i), touched.get(i));
      }
    }
    excerpt.pass(touched, outcomes::take);
    return excerpt.targets().stream()
        .allMatch(t -> outcomes.isWhole(t.index, parts.get(t.index).columns.count()));
  }

  /** Adds the rows that had anything in common with these, before it was answered. */
  private boolean spreadBefore(List<BitSet> touched) {
    before.open();
    before.tie(null);
    return before.spread(touched);
  }

  /** The plan that was rehearsed gives other values only to these rows; null if nobody asks it. */
  private KeptKeys.@Nullable Alike alike(List<BitSet> rows) {
    return before == null ? null : new KeptKeys.Alike(parts.stream().map(Part::was).toList(), rows);
  }

  /** By chunk, some of the rows that wait for an answer, from all over the file. */
  private List<BitSet> waiting() {
    long all = outcomes.counts().stream().mapToLong(RowOutcomes.Counts::waiting).sum();
    int every = (int) (1 + all / TRIED);
    ChunkSource chunks = excerpt.chunks();
    return IntStream.range(0, chunks.count())
        .mapToObj(i -> outcomes.waiting(chunks.next(i), every))
        .toList();
  }

  /** By chunk, the rows that come to other values, or of which something else was decided. */
  private List<BitSet> touched() {
    BitSet[] touched = new BitSet[excerpt.chunks().count()];
    Arrays.setAll(touched, i -> new BitSet());
    for (Target target : excerpt.targets()) {
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
    ChunkSource chunks = excerpt.chunks();
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
}
