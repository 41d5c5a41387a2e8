package org.zestyporter.core.run;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Has decided rows written on a thread of its own, while the next are decided, so that the database
 * need not wait for these. Once rows are refused, none is written before it is known which.
 */
final class Behind implements AutoCloseable {
  /** Some are being written, and the next are ready when that is done. */
  private static final int MOST = 2;

  private final Writing writing;

  /** Takes rows of which it is settled what became of them. */
  private final Consumer<List<Place>> settled;

  private final ExecutorService thread =
      Executors.newSingleThreadExecutor(work -> Threads.daemon(work, "porter-write"));
  private final Deque<Sending> going = new ArrayDeque<>();

  /** Set once rows are refused, until it is known which. */
  private volatile boolean isRefused;

  /** Rows on their way; their attempt is null if it was not made, since others were refused. */
  private record Sending(
      List<Place> wave,
      List<TargetWriter.Ready> ready,
      Future<Writing.@Nullable Attempt> attempt) {}

  Behind(Writing writing, Consumer<List<Place>> settled) {
    this.writing = writing;
    this.settled = settled;
  }

  /** Chunks whose rows are on their way. */
  int chunks() {
    return going.size();
  }

  /** Has rows written, after those before them. */
  void write(List<Place> wave) {
    List<TargetWriter.Ready> ready = writing.ready(wave);
    if (going.size() == MOST) {
      settleFirst();
    }
    going.add(sending(wave, ready));
  }

  /** Waits until all rows are written. */
  void settle() {
    while (!going.isEmpty()) {
      settleFirst();
    }
  }

  private Sending sending(List<Place> wave, List<TargetWriter.Ready> ready) {
    return new Sending(wave, ready, thread.submit(() -> attempt(wave, ready)));
  }

  private Writing.@Nullable Attempt attempt(List<Place> wave, List<TargetWriter.Ready> ready) {
    Writing.Attempt made = isRefused ? null : writing.attempt(wave, ready);
    isRefused |= made != null && made.refusal() != null;
    return made;
  }

  private void settleFirst() {
    Writing.Attempt attempt = Threads.await(going.element().attempt());
    // once those that were refused are settled, nothing is on its way that was not tried
    if (attempt.refusal() != null) {
      going.stream().skip(1).forEach(next -> Threads.await(next.attempt()));
    }
    writing.settle(attempt);
    settled.accept(going.remove().wave());
    if (attempt.refusal() != null) {
      isRefused = false;
      List<Sending> left = List.copyOf(going);
      going.clear();
      left.forEach(next -> going.add(sending(next.wave(), next.ready())));
    }
  }

  /** Waits until nothing is written any more, whatever comes of it. */
  @Override
  public void close() {
    // what waits is not tried any more; an interrupted thread might do harm to a database in a file
    isRefused = true;
    Threads.end(thread);
  }
}
