package org.zestyporter.core.run;

import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/** What the threads of a pipeline have in common. */
final class Threads {
  private Threads() {}

  /** A thread that ends with the process. */
  static Thread daemon(Runnable work, String name) {
    Thread thread = new Thread(work, name);
    thread.setDaemon(true);
    return thread;
  }

  /**
   * Waits for the work of another thread, and gives or throws what it gave or threw.
   *
   * @throws org.zestyporter.core.value.PorterException with code {@code stopped} if this thread is
   *     to end
   */
  static <T> T await(Future<T> work) {
    try {
      return work.get();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw Pipeline.stopped();
    } catch (ExecutionException e) {
      throw thrown(e);
    }
  }

  /** Waits until what was begun is done; nothing else is begun. */
  static void end(ExecutorService thread) {
    thread.shutdown();
    try {
      thread.awaitTermination(Long.MAX_VALUE, TimeUnit.NANOSECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  /** True if the work of another thread is done within a time. */
  static boolean within(Future<?> work, long millis) {
    try {
      work.get(millis, TimeUnit.MILLISECONDS);
      return true;
    } catch (TimeoutException e) {
      return false;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw Pipeline.stopped();
    } catch (ExecutionException e) {
      throw thrown(e);
    }
  }

  /** What ended the work of another thread, as it was thrown there. */
  static RuntimeException thrown(ExecutionException e) {
    if (e.getCause() instanceof Error cause) {
      throw cause;
    }
    return e.getCause() instanceof RuntimeException cause
        ? cause
        : new IllegalStateException(e.getCause());
  }
}
