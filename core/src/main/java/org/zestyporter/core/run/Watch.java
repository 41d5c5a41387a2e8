package org.zestyporter.core.run;

/** Ends what a database is doing once a person wants it to end, whatever it waits for. */
public final class Watch implements AutoCloseable {
  private static final long EVERY_MILLIS = 100;

  private final Thread thread;
  private boolean held;
  private boolean done;

  private Watch(Progress progress, Runnable cancel) {
    thread =
        new Thread(
            () -> {
              try {
                while (!ended(progress, cancel)) {
                  Thread.sleep(EVERY_MILLIS);
                }
              } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
              }
            },
            "porter-watch");
    thread.setDaemon(true);
  }

  /**
   * Watches until it is closed.
   *
   * @param cancel ends what the database is doing; called on another thread
   */
  public static Watch over(Progress progress, Runnable cancel) {
    Watch watch = new Watch(progress, cancel);
    if (progress != Progress.NONE) {
      watch.thread.start();
    }
    return watch;
  }

  private synchronized boolean ended(Progress progress, Runnable cancel) {
    if (!done && !held && progress.stopped()) {
      done = true;
      cancel.run();
    }
    return done;
  }

  /**
   * Does something that may not be ended in its middle.
   *
   * @throws org.zestyporter.core.value.PorterException with code {@code stopped} if all has been
   *     ended already
   */
  public void without(Runnable work) {
    synchronized (this) {
      if (done) {
        throw Pipeline.stopped();
      }
      held = true;
    }
    try {
      work.run();
    } finally {
      synchronized (this) {
        held = false;
      }
    }
  }

  /** Nothing is ended any more after this. */
  @Override
  public void close() {
    thread.interrupt();
    try {
      thread.join();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
