package org.zestyporter.core.run;

import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.ValueColumn;

/** Makes the ledger of what is decided, and has it kept on a thread of its own. */
final class LedgerWriter implements AutoCloseable {
  private static final int AHEAD = 4;
  private static final long WAIT_MILLIS = 100;

  private final Ledger ledger;
  private final BlockingQueue<Runnable> queue = new ArrayBlockingQueue<>(AHEAD);
  private final FutureTask<Void> work = new FutureTask<>(this::work, null);

  /** The tables in which rows made linked records, and how many so far. */
  private final Map<String, LedgerLayout> made = new HashMap<>();

  private final Map<String, Integer> madeCounts = new HashMap<>();
  private boolean started;
  private boolean ended;

  LedgerWriter(Ledger ledger) {
    this.ledger = ledger;
  }

  /**
   * @param standing what is kept already; null if nothing is
   */
  void begin(List<Target> targets, @Nullable Standing standing) {
    if (standing != null) {
      KeptLedger kept = standing.ledger();
      for (LedgerLayout layout : kept.layouts()) {
        if (layout.isMade()) {
          int records = 0;
          for (int number = 0; number < kept.chunks(layout); number++) {
            records += kept.chunk(layout, number).size();
          }
          made.put(layout.table(), layout);
          madeCounts.put(layout.table(), records);
        }
      }
    }
    targets.forEach(t -> ledger.begin(t.layout));
    if (ledger.isKept()) {
      Threads.daemon(work, "porter-ledger").start();
      started = true;
    }
  }

  private void work() {
    try {
      for (Runnable next = queue.take(); next != END; next = queue.take()) {
        next.run();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private static final Runnable END = () -> {};

  /** Has the entries of decided rows kept; they come in the order of the file. */
  void append(ChunkRows chunk, TargetRows rows) {
    if (started && rows.count() > 0) {
      int first = chunk.first();
      put(() -> ledger.append(LedgerEntries.of(first, rows)));
    }
  }

  /** Has entries kept; they come in the order of the file. */
  void append(LedgerChunk chunk) {
    if (started) {
      put(() -> ledger.append(chunk));
    }
  }

  /** Has a chunk kept as it is now, though some of its rows are not decided yet. */
  void open(ChunkRows chunk) {
    for (TargetRows rows : chunk.targets()) {
      if (started && rows.count() > 0) {
        ledger.open(LedgerEntries.soFar(chunk, rows));
      }
    }
  }

  /**
   * Has linked records kept that rows made.
   *
   * @param records the records as they stand
   * @param recordLines the lines of the rows that made them
   */
  void made(TableInfo table, List<List<Object>> recordKeys, Records records, long[] recordLines) {
    if (!started || recordKeys.isEmpty()) {
      return;
    }
    LedgerLayout layout =
        made.computeIfAbsent(table.name(), t -> LedgerLayout.made(made.size(), table));
    int size = recordKeys.size();
    int first = madeCounts.merge(table.name(), size, Integer::sum) - size;
    int[] at = recordKeys.stream().mapToInt(records::at).toArray();
    BitSet written = new BitSet(size);
    for (int i = 0; i < size; i++) {
      written.set(i, at[i] >= 0);
    }
    ValueColumn[] stand =
        Arrays.stream(records.columns()).map(c -> c.pick(at)).toArray(ValueColumn[]::new);
    @SuppressWarnings("unchecked")
    List<Object>[] keys = recordKeys.toArray(List[]::new);
    @SuppressWarnings("unchecked")
    List<LedgerEntry.Note>[] notes = new List[size];
    LedgerChunk chunk =
        new LedgerChunk(
            layout,
            first,
            recordLines,
            IntStream.range(0, size).toArray(),
            null,
            new byte[size],
            new byte[size],
            keys,
            stand,
            new BitSet(),
            new ValueColumn[0],
            written,
            stand,
            new int[size][],
            notes);
    put(() -> ledger.made(chunk));
  }

  private void put(Runnable next) {
    try {
      while (!queue.offer(next, WAIT_MILLIS, TimeUnit.MILLISECONDS)) {
        if (work.isDone()) {
          // it has ended before its time, and says why
          await();
          return;
        }
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException("interrupted", e);
    }
  }

  /** Waits until everything so far is kept. */
  void flush() {
    if (started) {
      FutureTask<Void> reached = new FutureTask<>(() -> {}, null);
      put(reached);
      while (!reached.isDone() && !Threads.within(reached, WAIT_MILLIS)) {
        if (work.isDone()) {
          // it has ended before its time, and says why
          await();
          return;
        }
      }
    }
  }

  /** Waits until everything is kept. */
  void finish() {
    if (started && !ended) {
      ended = true;
      put(END);
      await();
    }
  }

  private void await() {
    try {
      work.get();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    } catch (ExecutionException e) {
      throw Threads.thrown(e);
    }
  }

  /** Ends the thread, whatever was not kept; nothing more is kept once this returns. */
  @Override
  public void close() {
    if (started && !ended) {
      ended = true;
      queue.clear();
      queue.offer(END);
      try {
        await();
      } catch (RuntimeException e) {
        // what ended the run is told, and not what it led to
      }
    }
  }
}
