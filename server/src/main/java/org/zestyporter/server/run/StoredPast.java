package org.zestyporter.server.run;

import java.util.List;
import java.util.function.Consumer;
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

  @Override
  public void fromTheLast(LedgerLayout layout, Consumer<LedgerChunk> chunk) {
    List<Integer> numbers =
        runs.chunks(run.id(), layout.destination()).stream().map(ChunkRecord::number).toList();
    for (int i = 0; i < numbers.size(); i++) {
      // an undo goes through the file from its end
      int number = numbers.get(isUndo() ? i : numbers.size() - 1 - i);
      chunk.accept(ledgers.chunk(run.id(), layout, number));
    }
  }

  @Override
  public boolean isUndo() {
    return UndoService.UNDO.equals(run.kind());
  }

  /** Number of records that the run added, changed or removed. */
  long size() {
    return layouts().stream()
        .flatMap(l -> runs.chunks(run.id(), l.destination()).stream())
        .mapToLong(c -> c.added() + c.changed() + c.removed())
        .sum();
  }
}
