package org.zestyporter.core.preview;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.FillColumns;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.run.DistinctRows;
import org.zestyporter.core.source.Rows;

/**
 * Every distinct value of a fill with the stages it passes through, the troubled ones first.
 *
 * @param columns the columns that the fill reads, by name
 * @param distinct number of distinct values, blank counted as one
 * @param distinctCapped true if the columns have more than are counted
 * @param troubled distinct values that can't be taken
 * @param troubledRows rows behind them
 * @param questions rows of them that one answer for each value would free
 * @param noted rows that a step cut or a policy softened
 * @param altered for each step, the number of distinct values that it changed
 * @param rows the first of them
 */
public record StageTable(
    List<String> columns,
    int distinct,
    boolean distinctCapped,
    int troubled,
    long troubledRows,
    long questions,
    long noted,
    List<Integer> altered,
    List<Row> rows) {

  /** Rows that are shown of a fill whose value is another one in each row. */
  static final int ROWS_EACH = 200;

  /**
   * A distinct value.
   *
   * @param rows how many rows hold it
   * @param line line of the first of them
   */
  public record Row(long rows, long line, CompiledFill.Trace trace) {}

  /**
   * Computes the stages of a fill over all distinct values of its columns.
   *
   * @param limit the most rows to return
   */
  public static StageTable of(CompiledFill fill, Rows source, int offset, int limit) {
    Counts counts = new Counts(fill, (int) Math.min(Integer.MAX_VALUE, (long) offset + limit));
    boolean capped = DistinctRows.visit(fill, source, ROWS_EACH, counts);
    List<Row> page = counts.first().stream().skip(offset).map(l -> l.row(fill)).toList();
    return new StageTable(
        fill.columns().stream().map(c -> source.columns().get(c)).toList(),
        counts.distinct,
        capped,
        counts.troubled,
        counts.troubledRows,
        counts.questions,
        counts.noted,
        Arrays.stream(counts.altered).boxed().toList(),
        page);
  }

  /**
   * Only the counts; its rows are counted over the whole file even where the columns hold more
   * distinct values than are kept.
   */
  public static StageTable counts(CompiledFill fill, Rows source) {
    StageTable kept = of(fill, source, 0, 0);
    if (!kept.distinctCapped()) {
      return kept;
    }
    long troubled = 0;
    long questions = 0;
    long noted = 0;
    List<FillColumns> ready = FilledChunk.ready(List.of(fill));
    for (int i = 0; i < source.batches(); i++) {
      FilledChunk batch = FilledChunk.of(source.batch(i), List.of(fill), ready);
      for (int row = 0; row < batch.rows(); row++) {
        Filled filled = batch.filled(0, row);
        troubled += filled.rejects() ? 1 : 0;
        questions += filled.question() ? 1 : 0;
        noted += filled.problem() != null && filled.softened() ? 1 : 0;
      }
    }
    return new StageTable(
        kept.columns(),
        kept.distinct(),
        true,
        kept.troubled(),
        troubled,
        questions,
        noted,
        kept.altered(),
        List.of());
  }

  /** A distinct value before anybody asks for its stages. */
  private record Light(long rows, boolean troubled, org.zestyporter.core.fill.Row row) {
    /** Troubled ones first, then by their rows, then as they stand in the file. */
    static final Comparator<Light> ORDER =
        Comparator.comparing((Light l) -> !l.troubled)
            .thenComparing(l -> -l.rows)
            .thenComparing(l -> l.row.line());

    Row row(CompiledFill fill) {
      return new Row(rows, row.line(), fill.trace(row));
    }
  }

  /** Counts all values and keeps the first ones, so that only these are shown stage by stage. */
  private static final class Counts implements DistinctRows.Visitor {
    private final CompiledFill fill;
    private final int wanted;
    private final PriorityQueue<Light> kept = new PriorityQueue<>(Light.ORDER.reversed());
    private final int[] altered;
    private int distinct;
    private int troubled;
    private long troubledRows;
    private long questions;
    private long noted;

    Counts(CompiledFill fill, int wanted) {
      this.fill = fill;
      this.wanted = wanted;
      this.altered = new int[fill.fill().steps().size()];
    }

    @Override
    public void visit(org.zestyporter.core.fill.Row row, long rows) {
      Filled filled = fill.compute(row, altered);
      distinct++;
      if (filled.rejects()) {
        troubled++;
        troubledRows += rows;
        questions += filled.question() ? rows : 0;
      } else if (filled.softened()) {
        noted += rows;
      }
      if (wanted == 0) {
        return;
      }
      Light light = new Light(rows, filled.rejects(), row);
      if (kept.size() < wanted) {
        kept.add(light);
      } else if (Light.ORDER.compare(light, kept.peek()) < 0) {
        kept.poll();
        kept.add(light);
      }
    }

    List<Light> first() {
      List<Light> sorted = new ArrayList<>(kept);
      sorted.sort(Light.ORDER);
      return sorted;
    }
  }
}
