package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Halving;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.value.ProblemCode;

/**
 * Has decided rows written in all destinations; those that the database refuses are rejected. What
 * one row makes goes together.
 */
final class Writing {
  private final List<Target> targets;
  private final List<Decider> deciders;
  private final List<TargetWriter> writers = new ArrayList<>();
  private final Waiting waiting;
  private final LastStage last;
  private final LedgerWriter ledger;
  private final Refusals refusals = new Refusals();

  /** Held by whoever uses the application; who wants it first has it first. */
  private final ReentrantLock session = new ReentrantLock(true);

  Writing(
      List<Target> targets,
      List<Decider> deciders,
      Waiting waiting,
      LastStage last,
      LedgerWriter ledger) {
    this.targets = targets;
    this.deciders = deciders;
    this.waiting = waiting;
    this.last = last;
    this.ledger = ledger;
    for (Target target : targets) {
      writers.add(new TargetWriter(target, last, ledger));
    }
  }

  /** Rows that the database refused; the first of them with their reasons. */
  Refusals refusals() {
    return refusals;
  }

  /** Does something with the application while nobody else asks it or writes into it. */
  void without(Runnable deed) {
    session.lock();
    try {
      deed.run();
    } finally {
      session.unlock();
    }
  }

  /** Writes rows that have been decided, or counts what would be made for them. */
  void write(List<Place> wave) {
    without(() -> writeAll(wave));
  }

  private void writeAll(List<Place> wave) {
    if (last.writes()) {
      wave.stream().filter(Replay::isPast).forEach(this::replay);
      List<Place> others = wave.stream().filter(place -> !Replay.isPast(place)).toList();
      Halving.write(last.open(), others, this::send, this::refuse);
    } else {
      for (int t = 0; t < targets.size(); t++) {
        eachChunk(t, wave, writers.get(t)::claim);
      }
    }
  }

  /** A row that was gone through before the run was cut off. */
  private void replay(Place place) {
    ChunkRows chunk = place.chunk();
    for (int t = 0; t < targets.size(); t++) {
      TargetRows rows = chunk.targets().get(t);
      for (int r = rows.from(place.row()); r < rows.to(place.row()); r++) {
        Replay.take(rows, r, chunk.past[t], deciders.get(t), waiting);
      }
    }
  }

  /**
   * Rows that were sent to be written, together.
   *
   * @param sent what of them is written
   * @param refusal why none of it is; null if all is
   */
  record Attempt(
      List<Place> wave, List<TargetWriter.Sent> sent, WriteSession.@Nullable Refusal refusal) {}

  /** Sends decided rows, on any thread; to be settled. */
  Attempt attempt(List<Place> wave, List<TargetWriter.Ready> ready) {
    List<TargetWriter.Sent> sent = new ArrayList<>();
    session.lock();
    try {
      return new Attempt(wave, sent, Halving.together(last.open(), () -> sent.addAll(sent(ready))));
    } finally {
      session.unlock();
    }
  }

  /** Makes decided rows ready to be sent. */
  List<TargetWriter.Ready> ready(List<Place> wave) {
    List<TargetWriter.Ready> all = new ArrayList<>();
    for (int t = 0; t < targets.size(); t++) {
      ready(t, wave, all::add);
    }
    return all;
  }

  private void ready(int t, List<Place> wave, Consumer<TargetWriter.Ready> take) {
    eachChunk(
        t,
        wave,
        (rows, places) -> {
          TargetWriter.Ready ready = writers.get(t).ready(rows, places);
          if (ready != null) {
            take.accept(ready);
          }
        });
  }

  /** Notes what was sent, and finds those that the database refuses. */
  void settle(Attempt attempt) {
    if (attempt.refusal == null) {
      attempt.sent.forEach(TargetWriter.Sent::note);
    } else {
      without(
          () ->
              Halving.apart(last.open(), attempt.wave, attempt.refusal, this::send, this::refuse));
    }
  }

  private void send(List<Place> wave) {
    List<TargetWriter.Sent> sent = new ArrayList<>();
    taken(
        () -> {
          for (int t = 0; t < targets.size(); t++) {
            // a record of one destination may be in need of those of another
            ready(t, wave, ready -> sent.add(ready.send()));
          }
        });
    sent.forEach(TargetWriter.Sent::note);
  }

  private List<TargetWriter.Sent> sent(List<TargetWriter.Ready> ready) {
    List<TargetWriter.Sent> sent = new ArrayList<>();
    taken(() -> ready.forEach(one -> sent.add(one.send())));
    return sent;
  }

  private void taken(Runnable sends) {
    try {
      sends.run();
    } catch (WriteSession.RefusedException e) {
      writers.forEach(TargetWriter::takeBack);
      throw e;
    }
  }

  /** Rejects a row that the database refused. */
  private void refuse(Place place, WriteSession.Refusal refusal) {
    refusals.add(refusal);
    ChunkRows chunk = place.chunk();
    for (int t = 0; t < targets.size(); t++) {
      TargetRows rows = chunk.targets().get(t);
      for (int r = rows.from(place.row()); r < rows.to(place.row()); r++) {
        if (rows.outcomes[r] <= Outcome.CHANGED.ordinal()) {
          if (rows.records != null && rows.records[r] != null) {
            rows.records[r].made(null);
          }
          waiting.forget(rows, r);
          deciders.get(t).takeBack(rows, r, note(refusal, rows.target, several(place)));
        }
      }
    }
  }

  private static boolean several(Place place) {
    return place.chunk().targets().size() > 1;
  }

  /** Why a row is rejected in a destination, which need not be the one that was refused. */
  private static LedgerEntry.Note note(
      WriteSession.Refusal refusal, Target target, boolean several) {
    boolean own = target.table.name().equals(refusal.table());
    String reason = own ? refusal.reason() : refusal.told();
    String where = own || !several || refusal.table() == null ? "" : refusal.table() + ", ";
    return new LedgerEntry.Note(
        ProblemCode.REFUSED,
        own ? refusal.field() : null,
        own ? refusal.value() : null,
        "the database refused it: " + where + reason,
        false);
  }

  /** Enters a chunk's rows, which are all decided, and written, into books and ledger. */
  void enter(ChunkRows chunk) {
    for (int t = 0; t < targets.size(); t++) {
      TargetRows rows = chunk.targets().get(t);
      TargetBooks books = writers.get(t).books();
      if (chunk.past == null) {
        books.enter(rows);
        ledger.append(chunk, rows);
      } else if (chunk.past[t] != null) {
        LedgerChunk all = Replay.enter(chunk, rows, books);
        if (!chunk.isEntered) {
          ledger.append(all);
        }
      }
    }
  }

  /** Takes the rows of a wave in a destination, chunk by chunk. */
  private static void eachChunk(
      int t, List<Place> wave, BiConsumer<TargetRows, List<Integer>> take) {
    for (int from = 0; from < wave.size(); ) {
      ChunkRows chunk = wave.get(from).chunk();
      TargetRows rows = chunk.targets().get(t);
      List<Integer> places = new ArrayList<>(wave.size());
      int to = from;
      for (; to < wave.size() && wave.get(to).chunk() == chunk; to++) {
        int row = wave.get(to).row();
        for (int r = rows.from(row); r < rows.to(row); r++) {
          places.add(r);
        }
      }
      take.accept(rows, places);
      from = to;
    }
  }
}
