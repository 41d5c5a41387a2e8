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
import java.util.stream.IntStream;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.value.ValueColumn;

/** Makes the ledger of what is decided, and has it kept on a thread of its own. */
final class LedgerWriter implements AutoCloseable {
  private static final int AHEAD = 4;

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

  void begin(List<Target> targets) {
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
      put(() -> ledger.append(entries(first, rows)));
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
      while (!queue.offer(next, 100, java.util.concurrent.TimeUnit.MILLISECONDS)) {
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

  private static LedgerChunk entries(int first, TargetRows rows) {
    int count = rows.count();
    long[] lines = new long[count];
    for (int r = 0; r < count; r++) {
      lines[r] = rows.line(r);
    }
    ValueColumn[] after = new ValueColumn[rows.target.fills.size()];
    for (int f = 0; f < after.length; f++) {
      after[f] = after(rows, f);
    }
    BitSet stood = new BitSet(count);
    for (int r = 0; r < count; r++) {
      stood.set(r, rows.before[r] >= 0);
    }
    ValueColumn[] before =
        stood.isEmpty()
            ? new ValueColumn[0]
            : Arrays.stream(rows.found.columns())
                .map(c -> c.pick(rows.before))
                .toArray(ValueColumn[]::new);
    BitSet written = rows.leftRows();
    return new LedgerChunk(
        rows.target.layout,
        first,
        lines,
        rows.rows == null ? IntStream.range(0, count).toArray() : rows.rows,
        rows.parts,
        rows.outcomes,
        rows.matchedBy,
        rows.keys,
        after,
        stood,
        before,
        written,
        written.isEmpty() ? new ValueColumn[0] : rows.left(),
        rows.changed,
        rows.notes);
  }

  /** What a fill gave, with keys in the place of records that were pending. */
  private static ValueColumn after(TargetRows rows, int f) {
    ValueColumn column = rows.filled.column(f).values();
    if (column.form() != ValueColumn.Form.ANY && !rows.isSettledFill(f)) {
      return column;
    }
    Object[] values = new Object[rows.count()];
    for (int r = 0; r < values.length; r++) {
      Object value = rows.value(f, r);
      values[r] = value instanceof Pending pending && pending.key() != null ? pending.key() : value;
      if (values[r] instanceof Pending pending) {
        values[r] = pending.toString();
      }
    }
    return ValueColumn.of(values, null);
  }

  /** Ends the thread, whatever was not kept. */
  @Override
  public void close() {
    if (started && !ended) {
      ended = true;
      queue.clear();
      queue.offer(END);
    }
  }
}
