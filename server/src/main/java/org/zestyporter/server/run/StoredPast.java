package org.zestyporter.server.run;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.undo.Past;

/** What a run did, by the ledger that is kept of it. */
final class StoredPast implements Past {
  private final RunMapper runs;
  private final LedgerReader ledgers;
  private final ExecutionRecord run;
  private final String plan;
  private final String source;
  private final Map<Integer, List<ChunkRecord>> chunks = new HashMap<>();

  StoredPast(
      RunMapper runs, LedgerReader ledgers, ExecutionRecord run, String plan, String source) {
    this.runs = runs;
    this.ledgers = ledgers;
    this.run = run;
    this.plan = plan;
    this.source = source;
  }

  @Override
  public String plan() {
    return plan;
  }

  @Override
  public String source() {
    return source;
  }

  @Override
  public List<LedgerLayout> layouts() {
    List<LedgerLayout> layouts = runs.layouts(run.id()).stream().map(StoredLedger::layout).toList();
    return Past.asWritten(layouts, isUndo());
  }

  private List<ChunkRecord> chunksOf(LedgerLayout layout) {
    return chunks.computeIfAbsent(
        layout.destination(), destination -> runs.chunks(run.id(), destination));
  }

  @Override
  public int chunks(LedgerLayout layout) {
    return chunksOf(layout).size();
  }

  @Override
  public int closed(LedgerLayout layout) {
    return (int) chunksOf(layout).stream().filter(c -> !c.isOpen()).count();
  }

  @Override
  public LedgerChunk chunk(LedgerLayout layout, int number) {
    List<ChunkRecord> all = chunksOf(layout);
    // an undo goes through the file from its end
    int at = isUndo() ? all.size() - 1 - number : number;
    return ledgers.chunk(run.id(), layout, all.get(at).number());
  }

  @Override
  public boolean isUndo() {
    return UndoService.UNDO.equals(run.kind());
  }

  /** Number of records that the run added, changed or removed. */
  long size() {
    return layouts().stream()
        .flatMap(l -> chunksOf(l).stream())
        .mapToLong(c -> c.added() + c.changed() + c.removed())
        .sum();
  }
}
