package org.zestyporter.core.run;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Lookups;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.match.Match;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.SideBySide;

/**
 * Takes the chunks of a source through all destinations, chunks outside and destinations inside: a
 * row is decided in all of them together, then its records are written in their order.
 *
 * <p>A row that needs the record of a row that is not written yet waits for it, and its chunk's
 * ledger with it.
 */
final class Passage implements AutoCloseable {
  /** Rows for which one thread looks for what is near, at least. */
  private static final int NEAR_BY_EACH = 64;

  private final List<Target> targets;
  private final List<Decider> deciders = new ArrayList<>();
  private final List<Renewal> renewals;
  private final Writing writing;
  private final Lookups lookups;
  private final LastStage last;
  private final boolean whole;

  /** True if a record changes only where a row changes just this one. */
  private final boolean isQuiet;

  private final @Nullable Replay replay;
  private final Waiting waiting;

  /** Rows that are decided, and those whose records are written, by their indexes. */
  private final BitSet decided = new BitSet();

  private final BitSet written = new BitSet();

  private final Map<Integer, List<Place>> parked = new HashMap<>();
  private final Deque<ChunkRows> open = new ArrayDeque<>();

  /** Writes the rows of the last of the open chunks. */
  private final Behind behind;

  /** Takes decided chunks instead of books and ledger; null if these do. */
  private @Nullable Consumer<ChunkRows> taker;

  Passage(
      List<Target> targets,
      Lookups lookups,
      LastStage last,
      LedgerWriter ledger,
      RunSettings.Rows rows,
      boolean isQuiet,
      @Nullable Replay replay) {
    this.isQuiet = isQuiet;
    this.targets = targets;
    this.lookups = lookups;
    this.last = last;
    this.whole = rows == RunSettings.Rows.WHOLE;
    this.replay = replay;
    this.renewals = targets.stream().map(Renewal::new).toList();
    this.waiting = new Waiting(targets, decided, written);
    for (Target target : targets) {
      deciders.add(new Decider(target, last.writes()));
    }
    this.writing = new Writing(targets, deciders, waiting, last, ledger);
    this.behind = new Behind(writing, wave -> wave.forEach(place -> written.set(place.index())));
  }

  /**
   * Finds the records that the rows of a chunk speak of. May go on beside {@link #take} of the
   * chunks before it, if {@link #findsAhead} says so.
   */
  void find(ChunkRows chunk) {
    find(List.of(chunk));
  }

  /** The same for several chunks, whose records are looked up together. */
  void find(List<ChunkRows> some) {
    for (Target target : targets) {
      List<List<Object>> wanted = new ArrayList<>();
      for (ChunkRows chunk : some) {
        TargetRows rows = chunk.targets().get(target.index);
        rows.open(last.writes());
        if (target.keysNeedParent()) {
          Noting.addParents(chunk, rows, chunk.taken, null);
        }
        if (chunk.taken == null) {
          rows.place();
        }
        match(chunk, rows, wanted);
      }
      if (!wanted.isEmpty()) {
        if (!findsAhead()) {
          settle();
        }
        writing.without(() -> fetch(some, target, wanted));
      }
    }
  }

  private void fetch(List<ChunkRows> some, Target target, List<List<Object>> wanted) {
    boolean mayBeOld = last.writes() && lookups.hasSeen(target.table);
    Records found = lookups.fetch(target.table, wanted);
    for (ChunkRows chunk : some) {
      TargetRows rows = chunk.targets().get(target.index);
      found(rows, found);
      if (mayBeOld) {
        renewals.get(target.index).renew(rows, lookups);
      }
    }
  }

  /** True if it makes no difference to what is found whether the chunks before are written. */
  boolean findsAhead() {
    return !last.writes()
        || isQuiet && replay == null && targets.size() == 1 && deciders.get(0).isAlone();
  }

  /** Takes a chunk through whose records were found; chunks come in order. */
  void take(ChunkRows chunk) {
    boolean apart = isApart();
    if (!apart) {
      settle();
    }
    if (replay != null) {
      replay.open(chunk);
      if (chunk.past == null) {
        takeLeft();
      }
    }
    chunk.left = chunk.taken == null ? chunk.count() : chunk.taken.cardinality();
    open.add(chunk);
    List<Place> wave = new ArrayList<>(chunk.left);
    for (int row = 0; row < chunk.count(); row++) {
      if (!chunk.takes(row)) {
        continue;
      }
      Place place = new Place(chunk, row);
      if (waiting.isNeeded() && parks(place)) {
        continue;
      }
      decide(place);
      wave.add(place);
    }
    if (apart) {
      behind.write(wave);
    } else {
      write(wave);
    }
    enter();
  }

  /** True if no row's fate depends on whether the database takes those before it. */
  private boolean isApart() {
    return last.writes()
        && replay == null
        && targets.size() == 1
        && !waiting.isNeeded()
        && deciders.get(0).isApart();
  }

  /** Does something with the application while nobody else asks it or writes into it. */
  void without(Runnable deed) {
    writing.without(deed);
  }

  /** Waits until all rows that were taken through are written, and enters them. */
  void settle() {
    behind.settle();
    enter();
  }

  /** Has decided chunks handed to somebody, instead of entered into books and ledger. */
  void handTo(Consumer<ChunkRows> taken) {
    taker = taken;
  }

  /** Has the chunks kept as they are that wait for rows further on. */
  void keepOpen(LedgerWriter ledger) {
    open.forEach(ledger::open);
  }

  /** Takes rows that were gone through before, but would wait for others now. */
  private void takeLeft() {
    List<Place> left =
        parked.values().stream().flatMap(List::stream).filter(Replay::isPast).toList();
    parked.values().forEach(waits -> waits.removeAll(left));
    parked.values().removeIf(List::isEmpty);
    left.forEach(this::decide);
    write(left);
  }

  /** Takes through what waits for each other, and ends. */
  void finish() {
    settle();
    if (replay != null) {
      takeLeft();
    }
    while (!parked.isEmpty()) {
      // what is left goes round in circles, or waits for what does
      Place first = takeFirst();
      breakCircle(first);
      decide(first);
      write(List.of(first));
    }
    waiting.closeCircles(last);
    enter();
  }

  private Place takeFirst() {
    Place first = null;
    int on = -1;
    for (Map.Entry<Integer, List<Place>> waits : parked.entrySet()) {
      for (Place place : waits.getValue()) {
        if (first == null || place.index() < first.index()) {
          first = place;
          on = waits.getKey();
        }
      }
    }
    List<Place> others = parked.get(on);
    others.remove(first);
    if (others.isEmpty()) {
      parked.remove(on);
    }
    return first;
  }

  private void breakCircle(Place place) {
    for (TargetRows rows : place.chunk().targets()) {
      for (int r = rows.from(place.row()); r < rows.to(place.row()); r++) {
        waiting.breakCircle(rows, r);
      }
    }
  }

  /** Finds what the rows of a destination speak of. */
  private static void match(ChunkRows chunk, TargetRows rows, List<List<Object>> wanted) {
    int count = rows.count();
    Match[] matches = new Match[count];
    SideBySide.go(
        count,
        rows.target.matcher.isNear() ? NEAR_BY_EACH : Integer.MAX_VALUE,
        (from, to) -> {
          for (int r = from; r < to; r++) {
            if (chunk.takes(rows.rowOf(r)) && !rows.isRejected(r)) {
              matches[r] = rows.match(r);
            }
          }
        });
    rows.matches = matches;
    for (Match match : matches) {
      if (match != null && match.isOne()) {
        wanted.add(match.records().get(0));
      }
    }
  }

  private static void found(TargetRows rows, Records found) {
    rows.found = found;
    rows.foundAt = new int[rows.count()];
    for (int r = 0; r < rows.foundAt.length; r++) {
      Match match = rows.matches[r];
      boolean one = match != null && match.isOne();
      rows.foundAt[r] = one ? found.at(match.records().get(0)) : -1;
    }
  }

  private boolean parks(Place place) {
    int on = waiting.rowThatKeeps(place.chunk(), place.row());
    if (on >= 0) {
      parked.computeIfAbsent(on, o -> new ArrayList<>(1)).add(place);
    }
    return on >= 0;
  }

  private void decide(Place place) {
    ChunkRows chunk = place.chunk();
    LedgerEntry.Note rejected = null;
    boolean several = targets.size() > 1;
    for (int t = 0; t < targets.size(); t++) {
      TargetRows rows = chunk.targets().get(t);
      Decider decider = deciders.get(t);
      for (int r = rows.from(place.row()); r < rows.to(place.row()); r++) {
        if (!followsParent(chunk, rows, r, place.row(), decider)) {
          waiting.settle(rows, r);
          rows.target.farOff.tell(rows, r);
          decider.decide(rows, r);
        }
        waiting.know(rows, r);
        if (isWaiting(rows, r)) {
          waiting.keepBack(rows, r, told(rows, r));
        }
        // a row waits only as long as nothing else keeps any of its records back
        if (several
            && rows.outcomes[r] == Outcome.REJECTED.ordinal()
            && (rejected == null || rejected.question() && !isWaiting(rows, r))) {
          rejected = reason(rows, r);
        }
      }
    }
    if (rejected != null && whole) {
      takeBack(chunk, place.row(), rejected);
    }
    decided.set(place.index());
    chunk.left--;
  }

  /** Gives a row its parent's key; true if it is decided by its parent's fate. */
  private boolean followsParent(ChunkRows chunk, TargetRows rows, int r, int row, Decider decider) {
    Target.Parent parent = rows.target.parent;
    if (parent == null) {
      return false;
    }
    TargetRows above = chunk.targets().get(parent.target().index);
    int p = above.from(row);
    RowRecord record = above.records[p];
    if (record == null) {
      String label = parent.target().label();
      boolean waits = isWaiting(above, p);
      String why =
          above.outcomes[p] == Outcome.SKIPPED.ordinal()
              ? "no record of " + label + " is there for it: "
              : (waits ? "kept back as " : "rejected as ") + label + " is: ";
      decider.reject(
          rows,
          r,
          new LedgerEntry.Note(
              ProblemCode.PARENT, parent.field().name(), null, why + told(above, p), false, waits));
      return true;
    }
    rows.setParent(r, record.link(parent.key()));
    return false;
  }

  /** True if a row is kept back by nothing but a question. */
  private static boolean isWaiting(TargetRows rows, int r) {
    return rows.notes[r] != null
        && LedgerEntry.isWaiting(Outcome.values()[rows.outcomes[r]], rows.notes[r]);
  }

  private static String told(TargetRows rows, int r) {
    return rows.notes[r] == null ? "its row is left out" : last(rows.notes[r]).reason();
  }

  private static LedgerEntry.Note last(List<LedgerEntry.Note> notes) {
    return notes.stream()
        .filter(n -> !n.softened())
        .reduce((a, b) -> b)
        .orElse(notes.get(notes.size() - 1));
  }

  /** Why all that a row makes is kept back where one of its records is. */
  private static LedgerEntry.Note reason(TargetRows rows, int r) {
    LedgerEntry.Note note = rows.notes[r] == null ? null : last(rows.notes[r]);
    String field = note == null || note.field() == null ? "" : note.field() + ": ";
    boolean waits = isWaiting(rows, r);
    String why =
        "the row's record of "
            + rows.target.label()
            + (waits ? " is kept back: " : " is rejected: ")
            + field
            + (note == null ? "" : note.reason());
    return new LedgerEntry.Note(ProblemCode.ROW_REJECTED, null, null, why, false, waits);
  }

  /** What one row makes is written together or not at all. */
  private void takeBack(ChunkRows chunk, int row, LedgerEntry.Note why) {
    for (int t = 0; t < targets.size(); t++) {
      TargetRows rows = chunk.targets().get(t);
      for (int r = rows.from(row); r < rows.to(row); r++) {
        if (rows.outcomes[r] <= Outcome.CHANGED.ordinal()) {
          waiting.forget(rows, r);
          deciders.get(t).takeBack(rows, r, why);
          if (why.question()) {
            waiting.keepBack(rows, r, why.reason());
          }
        } else if (isWaiting(rows, r) && !why.question()) {
          // an answer alone would not free it
          rows.note(r, why);
          waiting.keepBack(rows, r, null);
        }
      }
    }
  }

  /** Writes a wave of decided rows, and then those that waited for them. */
  private void write(List<Place> first) {
    List<Place> wave = first;
    while (!wave.isEmpty()) {
      writing.write(wave);
      List<Place> next = new ArrayList<>();
      for (Place place : wave) {
        written.set(place.index());
        List<Place> freed = parked.isEmpty() ? null : parked.remove(place.index());
        if (freed != null) {
          next.addAll(freed);
        }
      }
      wave = new ArrayList<>();
      for (Place place : next) {
        if (!parks(place)) {
          decide(place);
          wave.add(place);
        }
      }
    }
  }

  /** Rows that the database refused; the first of them with their reasons. */
  Refusals refusals() {
    return writing.refusals();
  }

  /** Enters chunks that are done into books and ledger, in order. */
  private void enter() {
    int most = open.size() - behind.chunks();
    for (; most > 0 && open.peek().left == 0 && !waiting.isHeld(open.peek()); most--) {
      ChunkRows chunk = open.poll();
      if (taker == null) {
        writing.enter(chunk);
      } else {
        taker.accept(chunk);
      }
      chunk.forget();
    }
  }

  /** Waits until nothing is written any more. */
  @Override
  public void close() {
    behind.close();
  }
}
