package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import org.zestyporter.core.source.Batch;
import org.zestyporter.core.source.Combinations;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DistinctValues;

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
  private static final int ROWS_EACH = 200;

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
  public static StageTable of(CompiledFill fill, SourceTable source, int offset, int limit) {
    Counts counts = new Counts(fill, (int) Math.min(Integer.MAX_VALUE, (long) offset + limit));
    boolean capped = visit(fill, source, counts);
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
  public static StageTable counts(CompiledFill fill, SourceTable source) {
    StageTable kept = of(fill, source, 0, 0);
    if (!kept.distinctCapped()) {
      return kept;
    }
    long troubled = 0;
    long questions = 0;
    long noted = 0;
    List<CompiledFill.Memo> memos = List.of(fill.memo());
    for (int i = 0; i < source.batches(); i++) {
      ComputedBatch batch = ComputedBatch.of(source.batch(i), List.of(fill), memos, fill.context());
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
  private static final class Counts implements Visitor {
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

  /** What is done with a row that stands for all that hold the same value. */
  interface Visitor {
    void visit(org.zestyporter.core.fill.Row row, long rows);
  }

  /** Visits all distinct values; true if there are more than are kept. */
  static boolean visit(CompiledFill fill, SourceTable source, Visitor visitor) {
    RunContext context = fill.context();
    if (fill.column() >= 0) {
      int column = fill.column();
      DistinctValues values = source.distinct(column);
      for (Map.Entry<Cell, DistinctValues.Tally> e : values.tallies().entrySet()) {
        long line = e.getValue().line();
        visitor.visit(ValueRow.of(column, e.getKey(), line, context), e.getValue().rows());
      }
      if (values.blank() > 0) {
        visitor.visit(ValueRow.of(column, Cell.BLANK, 0, context), values.blank());
      }
      return values.beyond() > 0;
    }
    if (fill.perRow()) {
      return firstRows(fill, source, visitor);
    }
    if (fill.columns().isEmpty()) {
      long line = source.rowCount() == 0 ? 1 : source.batch(source.batchOf(0)).lines()[0];
      visitor.visit(ValueRow.of(-1, Cell.BLANK, line, context), source.rowCount());
      return false;
    }
    Combinations combinations = source.combinations(fill.columns());
    for (Combinations.Combination c : combinations.all()) {
      visitor.visit(row(fill.columns(), c, context), c.rows());
    }
    return combinations.beyond() > 0;
  }

  private static boolean firstRows(CompiledFill fill, SourceTable source, Visitor visitor) {
    int shown = 0;
    for (int i = 0; i < source.batches() && shown < ROWS_EACH; i++) {
      Batch batch = source.batch(i);
      for (int r = 0; r < batch.rows() && shown < ROWS_EACH; r++, shown++) {
        visitor.visit(new BatchRow(batch, fill.context()).at(r), 1);
      }
    }
    return source.rowCount() > shown;
  }

  /** A combination in the place of its rows. */
  static ValueRow row(
      List<Integer> columns, Combinations.Combination combination, RunContext context) {
    return new ValueRow(
        columns.stream().mapToInt(Integer::intValue).toArray(),
        combination.cells().toArray(Cell[]::new),
        combination.line(),
        combination.index(),
        context);
  }
}
