package org.zestyporter.core.run;

import java.util.BitSet;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.value.SideBySide;

/** Takes some rows through that were noted with all others, and nothing of it stays. */
final class SomeRows {
  private final List<Target> targets;
  private final ChunkSource chunks;
  private final List<BitSet> rows;

  /** True if rows may wait for each other, so that they are only decided together. */
  private final boolean together;

  private SomeRows(List<Target> targets, ChunkSource chunks, List<BitSet> rows, boolean together) {
    this.targets = targets;
    this.chunks = chunks;
    this.rows = rows;
    this.together = together;
  }

  /**
   * @param rows by chunk; where rows may wait for each other, all others are decided with them
   * @param taken takes the chunks once these rows are decided
   */
  static void pass(
      OpenedPlan opened,
      List<Target> targets,
      ChunkSource chunks,
      List<BitSet> rows,
      Consumer<ChunkRows> taken) {
    boolean together = targets.stream().anyMatch(t -> t.awaiting.length > 0 || t.parent != null);
    new SomeRows(targets, chunks, rows, together).go(opened, taken);
  }

  /**
   * The same for rows that wait for none but each other.
   *
   * @param rows by chunk
   */
  static void passAlone(
      OpenedPlan opened,
      List<Target> targets,
      ChunkSource chunks,
      List<BitSet> rows,
      Consumer<ChunkRows> taken) {
    new SomeRows(targets, chunks, rows, false).go(opened, taken);
  }

  private void go(OpenedPlan opened, Consumer<ChunkRows> taken) {
    RunSettings.Rows way = opened.plan().run().rows();
    LastStage last = LastStage.REHEARSAL;
    try (LedgerWriter none = new LedgerWriter(Ledger.NONE);
        Passage passage = new Passage(targets, opened.lookups(), last, none, way, false, null)) {
      passage.handTo(taken);
      int[] wanted =
          IntStream.range(0, rows.size()).filter(i -> together || !rows.get(i).isEmpty()).toArray();
      for (int from = 0; from < wanted.length; from += chunks.together()) {
        List<ChunkRows> some = some(wanted, from);
        passage.find(some);
        some.forEach(passage::take);
      }
      passage.finish();
    }
  }

  /** As many chunks as are computed side by side. */
  private List<ChunkRows> some(int[] wanted, int first) {
    ChunkRows[] some = new ChunkRows[Math.min(chunks.together(), wanted.length - first)];
    SideBySide.go(
        some.length,
        1,
        (from, to) -> {
          for (int i = from; i < to; i++) {
            int number = wanted[first + i];
            some[i] = chunks.whole(number, rows.get(number));
            some[i].taken = together ? null : rows.get(number);
          }
        });
    return List.of(some);
  }
}
