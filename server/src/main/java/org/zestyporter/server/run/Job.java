package org.zestyporter.server.run;

import java.util.Locale;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.run.Progress;

/** A rehearsal, run or undo that is going, and how far it has come. */
final class Job implements Progress {
  private static final double NANOS = 1e9;

  /** Before this nobody can tell how fast it is. */
  private static final double TELLING_SECONDS = 1.5;

  private final About about;
  private final Runnable moved;
  private final AtomicBoolean stopped = new AtomicBoolean();
  private volatile @Nullable String number;
  private volatile @Nullable String behind;
  private volatile Reached reached = new Reached(null, 0, 0, 0, 0);
  private volatile long rejected;

  /** What is going. */
  record About(long id, String kind, long plan, String planName, String startedBy) {}

  /**
   * @param began when the phase did
   * @param first rows that had been done then
   */
  private record Reached(@Nullable Phase phase, long rows, long total, long began, long first) {}

  /**
   * How far it has come.
   *
   * @param number the run's number; null if it has none
   * @param phase {@code waiting}, {@code matching} or {@code writing}
   * @param rows rows done in this phase
   * @param total rows of the source; 0 if that is not known yet
   * @param rejected rows that were rejected so far
   * @param behind what it waits for; null if it does not wait
   * @param perSecond rows a second in this phase; null if it can't be told yet
   * @param secondsLeft until the end of this phase; null if it can't be told yet
   */
  record Stand(
      long id,
      String kind,
      @Nullable String number,
      long plan,
      String planName,
      String startedBy,
      String phase,
      long rows,
      long total,
      long rejected,
      @Nullable String behind,
      @Nullable Long perSecond,
      @Nullable Long secondsLeft) {}

  /**
   * @param moved is called when it has come further
   */
  Job(About about, Runnable moved) {
    this.about = about;
    this.moved = moved;
  }

  long id() {
    return about.id();
  }

  void number(String given) {
    number = given;
  }

  void stop() {
    stopped.set(true);
  }

  @Override
  public void at(Phase phase, long rows, long total) {
    Reached before = reached;
    boolean same = before.phase() == phase;
    reached =
        new Reached(
            phase,
            rows,
            total,
            same ? before.began() : System.nanoTime(),
            same ? before.first() : rows);
    moved.run();
  }

  @Override
  public void rejected(long rows) {
    rejected = rows;
  }

  @Override
  public void behind(@Nullable String other) {
    behind = other;
  }

  @Override
  public boolean stopped() {
    return stopped.get();
  }

  Stand stand() {
    Reached now = reached;
    boolean waits = now.phase() == null || now.phase() == Phase.WAITING;
    double seconds = (System.nanoTime() - now.began()) / NANOS;
    Long perSecond = null;
    Long left = null;
    if (!waits && seconds > TELLING_SECONDS && now.rows() > now.first()) {
      double rate = (now.rows() - now.first()) / seconds;
      perSecond = Math.round(rate);
      left = Math.round((now.total() - now.rows()) / rate);
    }
    return new Stand(
        about.id(),
        about.kind(),
        number,
        about.plan(),
        about.planName(),
        about.startedBy(),
        (now.phase() == null ? Phase.WAITING : now.phase()).name().toLowerCase(Locale.ROOT),
        now.rows(),
        now.total(),
        rejected,
        behind,
        perSecond,
        left);
  }
}
