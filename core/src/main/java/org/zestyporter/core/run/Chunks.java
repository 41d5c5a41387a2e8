package org.zestyporter.core.run;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.fill.FillColumns;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;

/**
 * Computes the chunks of a source for all destinations, ahead of who takes them, on a thread of its
 * own. They are taken twice: what fits into memory is kept from the first time, the rest is
 * computed again.
 */
final class Chunks implements ChunkSource, AutoCloseable {
  private static final int AHEAD = 3;

  /** The part of the memory that kept chunks may take, and that they share with noted keys. */
  private static final int SHARE = 4;

  private static final int SHARE_WITH_KEYS = 2;

  /** What kept chunks take at most: beyond it, computing again takes about as long. */
  private static final long MOST_KEPT = 64L << 20;

  /** About what a row takes in a kept chunk, in bytes. */
  private static final int ROW_WEIGHT = 256;

  /** What a noted key and the record found for it take at most, in bytes. */
  private static final int KEY_WEIGHT = 26;

  /** What a record takes that others of the same source need, and what looks for it, in bytes. */
  private static final int NEEDED_WEIGHT = 250;

  private final SourceTable source;
  private final List<Target> targets;
  private final List<List<FillColumns>> ready;
  private final ChunkRows @Nullable [] kept;
  private final int[] firsts;
  private final int[][] targetFirsts;
  private final ExecutorService thread =
      Executors.newSingleThreadExecutor(work -> Threads.daemon(work, "porter-compute"));
  private final Deque<Future<ChunkRows>> ahead = new ArrayDeque<>();
  private int asked;
  private long room;

  Chunks(SourceTable source, List<Target> targets) {
    this.source = source;
    this.targets = targets;
    this.ready = targets.stream().map(t -> FilledChunk.ready(t.fills)).toList();
    this.kept = new ChunkRows[source.batches()];
    this.firsts = new int[kept.length + 1];
    this.targetFirsts = new int[targets.size()][kept.length + 1];
    this.room = room(Runtime.getRuntime().maxMemory());
  }

  /**
   * What kept chunks of the rows of a plan and their keys, a match key and a unique one for each
   * table, take at most.
   */
  static long weight(OpenedPlan opened) {
    long rows = opened.source().rowCount();
    int tables = opened.plan().destinations().size();
    long keys = rows * tables * 2 * KEY_WEIGHT;
    long needed = tables > 1 ? rows * NEEDED_WEIGHT : 0;
    return Math.min(MOST_KEPT, rows * ROW_WEIGHT) + keys + needed;
  }

  /** What the noted keys of so many rows take at most, in bytes. */
  static long weightOfKeys(long rows, Target target) {
    return rows * (target.matcher.size() + target.guard.size()) * KEY_WEIGHT;
  }

  private long room(long memory) {
    long keys = targets.stream().mapToLong(t -> weightOfKeys(source.rowCount(), t)).sum();
    boolean areNeeded = targets.stream().anyMatch(t -> t.isNeeded);
    long needed = areNeeded ? source.rowCount() * NEEDED_WEIGHT : 0;
    long left = memory / SHARE_WITH_KEYS - keys - needed;
    return Math.max(0, Math.min(Math.min(memory / SHARE, MOST_KEPT), left));
  }

  @Override
  public int count() {
    return kept.length;
  }

  @Override
  public ChunkRows next(int number) {
    if (number == 0) {
      ahead.clear();
      asked = 0;
    }
    while (asked < kept.length && asked <= number + AHEAD) {
      int wanted = asked++;
      ChunkRows known = kept[wanted];
      ahead.add(
          known != null
              ? java.util.concurrent.CompletableFuture.completedFuture(known)
              : thread.submit(() -> compute(wanted)));
    }
    ChunkRows chunk = Threads.await(ahead.poll());
    if (kept[number] != null) {
      room += chunk.weight();
      kept[number] = null;
    }
    return chunk;
  }

  @Override
  public int together() {
    return 1;
  }

  @Override
  public boolean isWhole() {
    return true;
  }

  @Override
  public synchronized ChunkRows whole(int number, BitSet rows) {
    return compute(number);
  }

  @Override
  public void keep(int number, ChunkRows chunk) {
    long weight = chunk.weight();
    if (weight <= room) {
      room -= weight;
      kept[number] = chunk;
    }
  }

  private ChunkRows compute(int number) {
    Batch batch = source.batch(number);
    List<TargetRows> all = new ArrayList<>(targets.size());
    for (int t = 0; t < targets.size(); t++) {
      Target target = targets.get(t);
      boolean[] among =
          target.parent == null
              ? null
              : Selection.taken(all.get(target.parent.target().index).rows, batch.rows());
      Selection.Selected selected = target.selection.of(batch, among);
      FilledChunk filled = FilledChunk.of(selected.batch(), target.fills, ready.get(t));
      all.add(new TargetRows(target, filled, selected, batch.rows(), targetFirsts[t][number]));
      targetFirsts[t][number + 1] = targetFirsts[t][number] + filled.rows();
    }
    return new ChunkRows((int) batch.firstRow(), batch.rows(), all);
  }

  @Override
  public void close() {
    ahead.forEach(chunk -> chunk.cancel(false));
    Threads.end(thread);
    Arrays.fill(kept, null);
  }
}
