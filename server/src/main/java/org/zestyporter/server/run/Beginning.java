package org.zestyporter.server.run;

import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;

/**
 * The first moment of a job, in which whoever started it still waits to hear that it can't go. What
 * comes later is told where the job is shown.
 */
final class Beginning {
  private final long plan;
  private final CompletableFuture<Void> known = new CompletableFuture<>();
  private final AtomicBoolean heard = new AtomicBoolean();

  /**
   * @param plan the plan that is rehearsed or run
   */
  Beginning(long plan) {
    this.plan = plan;
  }

  long plan() {
    return plan;
  }

  /** Nobody waits to hear of it. */
  void isAlone() {
    heard.set(true);
  }

  /** The job goes. */
  void begun() {
    known.complete(null);
  }

  /**
   * The job can't go.
   *
   * @return true if somebody hears of it; false if it has to be told elsewhere
   */
  boolean refuse(RuntimeException why) {
    boolean told = heard.compareAndSet(false, true);
    if (told) {
      known.completeExceptionally(why);
    }
    return told;
  }

  /** Why the job can't go; null if it goes, or if nothing is known in time. */
  @Nullable RuntimeException refusal(Duration patience) {
    try {
      known.get(patience.toMillis(), TimeUnit.MILLISECONDS);
      return null;
    } catch (ExecutionException e) {
      return (RuntimeException) e.getCause();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return null;
    } catch (TimeoutException e) {
      // either this is first and the job tells by itself, or the refusal is on its way
      return heard.compareAndSet(false, true) ? null : refusal(patience);
    }
  }
}
