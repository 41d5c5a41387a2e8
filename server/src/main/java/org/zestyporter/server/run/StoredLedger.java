package org.zestyporter.server.run;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.Batch;
import org.zestyporter.core.run.KeptLedger;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerCodec;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.RunReport;
import tools.jackson.databind.json.JsonMapper;

/** Keeps a ledger as packed chunks, one row of ours for some thousand rows of the file. */
final class StoredLedger implements Ledger {
  private static final JsonMapper COMPACT =
      PlanJson.MAPPER
          .rebuild()
          .disable(tools.jackson.databind.SerializationFeature.INDENT_OUTPUT)
          .build();

  private final RunMapper runs;
  private final long execution;
  private final Map<Integer, Integer> numbers = new HashMap<>();

  /** By destination, how many chunks are open, which come after the others. */
  private final Map<Integer, Integer> open = new HashMap<>();

  private final boolean byRow;
  private final Runnable last;
  private int batch = 1;

  /**
   * @param byRow true if chunks come in another order than that of the file
   */
  StoredLedger(RunMapper runs, long execution, boolean byRow) {
    this(
        runs,
        execution,
        byRow,
        () -> {
          // nothing is left to look at
        });
  }

  /**
   * @param last is done once all is entered and before anything is committed; what it throws takes
   *     all back
   */
  StoredLedger(RunMapper runs, long execution, boolean byRow, Runnable last) {
    this.runs = runs;
    this.execution = execution;
    this.byRow = byRow;
    this.last = last;
  }

  /**
   * Goes on with a ledger after the batches that stand.
   *
   * @param batches number of these
   */
  StoredLedger after(int batches, KeptLedger kept) {
    batch = batches + 1;
    kept.layouts().forEach(l -> numbers.put(l.destination(), kept.closed(l)));
    return this;
  }

  @Override
  public void begin(LedgerLayout layout) {
    if (numbers.putIfAbsent(layout.destination(), 0) != null) {
      return;
    }
    runs.insertDestination(
        execution, layout.destination(), layout.table(), COMPACT.writeValueAsString(layout));
  }

  @Override
  public void append(LedgerChunk chunk) {
    int turn = numbers.merge(chunk.destination(), 1, Integer::sum) - 1;
    insert(chunk, byRow ? (int) chunk.firstRow() : turn, false);
  }

  @Override
  public void open(LedgerChunk chunk) {
    int turn = open.merge(chunk.destination(), 1, Integer::sum) - 1;
    insert(chunk, numbers.get(chunk.destination()) + turn, true);
  }

  private void insert(LedgerChunk chunk, int number, boolean isOpen) {
    List<Integer> counts = chunk.counts();
    runs.insertChunk(
        new ChunkRecord(
            execution,
            chunk.destination(),
            number,
            chunk.firstLine(),
            chunk.lastLine(),
            counts.get(0),
            counts.get(1),
            counts.get(2),
            counts.get(3),
            counts.get(4),
            fates(chunk),
            LedgerCodec.encode(chunk),
            counts.get(5),
            batch,
            isOpen));
  }

  @Override
  public void made(LedgerChunk chunk) {
    begin(chunk.layout());
    append(chunk);
  }

  /** From here on a crash leaves open whether the table was changed, and the books say by what. */
  @Override
  public void beforeCommit(Batch next, RunReport report, @Nullable String mark) {
    last.run();
    runs.committing(execution, next.rows(), COMPACT.writeValueAsString(report), mark);
  }

  /** The last batch is noted with the end of the run. */
  @Override
  public void committed(Batch stands) {
    if (!stands.last()) {
      runs.committed(execution);
      runs.dropChunksBeyond(execution, stands.number());
      batch = stands.number() + 1;
      open.clear();
    }
  }

  /** The same for entries of the same rows, outcomes and changed fields. */
  static long fates(LedgerChunk chunk) {
    long hash = 7;
    for (int i = 0; i < chunk.size(); i++) {
      hash = hash * 31 + chunk.lines()[i];
      hash = hash * 31 + chunk.outcomes()[i];
      for (int field : chunk.changed()[i] == null ? NONE : chunk.changed()[i]) {
        hash = hash * 31 + field + 1;
      }
    }
    return hash;
  }

  private static final int[] NONE = {};

  /** What the entries of a destination hold; null if there are none. */
  static @Nullable LedgerLayout layout(@Nullable String json) {
    if (json == null) {
      return null;
    }
    return json.startsWith("[")
        ? OldLedger.layout(json)
        : COMPACT.readValue(json, LedgerLayout.class);
  }
}
