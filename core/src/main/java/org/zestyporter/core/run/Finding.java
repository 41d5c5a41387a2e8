package org.zestyporter.core.run;

import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.jspecify.annotations.Nullable;

/**
 * Hands chunks over with the records that their rows speak of. Where nothing is written, those of
 * the next chunk are looked up while a chunk is decided, on a thread of its own.
 */
final class Finding implements AutoCloseable {
  private final Chunks chunks;
  private final Passage passage;
  private final boolean ahead;
  private final ExecutorService thread =
      Executors.newSingleThreadExecutor(work -> Threads.daemon(work, "porter-find"));
  private @Nullable Future<ChunkRows> next;

  /**
   * @param ahead true if looking up may go on beside the decisions
   */
  Finding(Chunks chunks, Passage passage, boolean ahead) {
    this.chunks = chunks;
    this.passage = passage;
    this.ahead = ahead;
  }

  /** The next chunk; they are taken in order. */
  ChunkRows next(int number) {
    ChunkRows chunk = Threads.await(next == null ? find(number) : next);
    next = ahead && number + 1 < chunks.count() ? find(number + 1) : null;
    return chunk;
  }

  private Future<ChunkRows> find(int number) {
    ChunkRows chunk = chunks.next(number);
    if (ahead) {
      return thread.submit(() -> found(chunk));
    }
    return CompletableFuture.completedFuture(found(chunk));
  }

  private ChunkRows found(ChunkRows chunk) {
    if (chunk.count() > 0) {
      passage.find(chunk);
    }
    return chunk;
  }

  /** Waits for what is being looked up, since nobody else may use the connection meanwhile. */
  @Override
  public void close() {
    Threads.end(thread);
  }
}
