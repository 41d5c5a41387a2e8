package org.zestyporter.core.run;

import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.zestyporter.core.value.ErrorCode;

/**
 * Room in memory for work on many rows. All that goes on at a time shares a part of the memory;
 * what finds too little of it left waits until other work is done, before it takes anything else
 * that others may want. Work that is larger than all of it goes on alone.
 */
final class Room implements AutoCloseable {
  private static final long WAIT_MILLIS = 200;

  /** How long somebody waits who can't stop it. */
  private static final long PATIENCE_SECONDS = 20;

  /** What all may take together, in eighths of the memory. */
  private static final int EIGHTHS = 3;

  /** What any work takes, in megabytes: chunks on their way, buffers. */
  private static final int LEAST = 12;

  private static final Room.Shared SHARED =
      new Shared(Runtime.getRuntime().maxMemory() / 8 * EIGHTHS);

  private final Shared shared;
  private final int taken;

  /** What is shared, in megabytes. */
  static final class Shared {
    private final int all;
    private final Semaphore left;

    /**
     * @param bytes all that there is
     */
    Shared(long bytes) {
      this.all = megabytes(bytes);
      this.left = new Semaphore(all, true);
    }

    private int wanted(long bytes) {
      return Math.min(all, LEAST + megabytes(bytes));
    }

    private static int megabytes(long bytes) {
      return (int) Math.min(Integer.MAX_VALUE / 2, bytes >> 20);
    }
  }

  private Room(Shared shared, int taken) {
    this.shared = shared;
    this.taken = taken;
  }

  /**
   * Takes room for work that tells how far it has come.
   *
   * @param bytes what it needs at most
   * @param rows of the source, for the progress
   * @throws org.zestyporter.core.value.PorterException with code {@code stopped} if it is stopped
   *     meanwhile
   */
  static Room take(long bytes, Progress progress, long rows) {
    return take(SHARED, bytes, progress, rows);
  }

  static Room take(Shared shared, long bytes, Progress progress, long rows) {
    int wanted = shared.wanted(bytes);
    while (!isTaken(shared, wanted, WAIT_MILLIS)) {
      progress.behind("room in memory, which other work takes");
      progress.at(Progress.Phase.WAITING, 0, rows);
      Pipeline.requireGoing(progress);
    }
    progress.behind(null);
    return new Room(shared, wanted);
  }

  /**
   * Takes room for work that somebody looks on to.
   *
   * @param bytes what it needs at most
   * @throws org.zestyporter.core.value.PorterException with code {@code busy} if others take it for
   *     long
   */
  static Room take(long bytes) {
    return take(SHARED, bytes, TimeUnit.SECONDS.toMillis(PATIENCE_SECONDS));
  }

  static Room take(Shared shared, long bytes, long patienceMillis) {
    int wanted = shared.wanted(bytes);
    if (!isTaken(shared, wanted, patienceMillis)) {
      throw ErrorCode.BUSY.error(
          "Other work on large files takes the memory that this would need.");
    }
    return new Room(shared, wanted);
  }

  private static boolean isTaken(Shared shared, int wanted, long millis) {
    try {
      return shared.left.tryAcquire(wanted, millis, TimeUnit.MILLISECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw Pipeline.stopped();
    }
  }

  @Override
  public void close() {
    shared.left.release(taken);
  }
}
