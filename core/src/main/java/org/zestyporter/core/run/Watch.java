package org.zestyporter.core.run;

/** Ends what a database is doing once a person wants it to end, whatever it waits for. */
final class Watch implements AutoCloseable {
  private static final long EVERY_MILLIS = 100;

  private final Thread thread;

  private Watch(Progress progress, Runnable cancel) {
    thread =
        new Thread(
            () -> {
              try {
                while (!progress.stopped()) {
                  Thread.sleep(EVERY_MILLIS);
                }
                cancel.run();
              } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
              }
            },
            "porter-watch");
    thread.setDaemon(true);
  }

  static Watch over(Progress progress, Runnable cancel) {
    Watch watch = new Watch(progress, cancel);
    if (progress != Progress.NONE) {
      watch.thread.start();
    }
    return watch;
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
