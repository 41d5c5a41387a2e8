package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
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
  public record Row(long rows, long line, CompiledFill.Trace trace) {
    boolean troubled() {
      return trace.problem() != null && !trace.softened();
    }
  }

  /**
   * Computes the stages of a fill over all distinct values of its columns.
   *
   * @param limit the most rows to return
   */
  public static StageTable of(CompiledFill fill, SourceTable source, int offset, int limit) {
    List<Row> rows = new ArrayList<>();
    boolean capped = visit(fill, source, (stage, row) -> rows.add(stage));
    rows.sort(
        Comparator.comparing((Row r) -> !r.troubled())
            .thenComparing(r -> -r.rows())
            .thenComparing(Row::line));
    int troubled = 0;
    long troubledRows = 0;
    long questions = 0;
    long noted = 0;
    int[] altered = new int[fill.fill().steps().size()];
    for (Row row : rows) {
      if (row.troubled()) {
        troubled++;
        troubledRows += row.rows();
        questions += row.trace().question() ? row.rows() : 0;
      } else if (row.trace().softened()) {
        noted += row.rows();
      }
      countAltered(row.trace(), altered);
    }
    int from = Math.min(offset, rows.size());
    List<Row> page = rows.subList(from, Math.min(rows.size(), from + limit));
    return new StageTable(
        fill.columns().stream().map(c -> source.columns().get(c)).toList(),
        rows.size(),
        capped,
        troubled,
        troubledRows,
        questions,
        noted,
        Arrays.stream(altered).boxed().toList(),
        List.copyOf(page));
  }

  /** What is done with each distinct value and a row that holds it. */
  interface Visitor {
    void visit(Row stage, org.zestyporter.core.fill.Row row);
  }

  /** Visits all distinct values; true if there are more than are kept. */
  static boolean visit(CompiledFill fill, SourceTable source, Visitor visitor) {
    RunContext context = fill.context();
    if (fill.column() >= 0) {
      int column = fill.column();
      DistinctValues values = source.distinct(column);
      for (Map.Entry<Cell, DistinctValues.Tally> e : values.tallies().entrySet()) {
        long line = e.getValue().line();
        show(fill, ValueRow.of(column, e.getKey(), line, context), e.getValue().rows(), visitor);
      }
      if (values.blank() > 0) {
        show(fill, ValueRow.of(column, Cell.BLANK, 0, context), values.blank(), visitor);
      }
      return values.beyond() > 0;
    }
    if (fill.perRow()) {
      return firstRows(fill, source, visitor);
    }
    if (fill.columns().isEmpty()) {
      long line = source.rowCount() == 0 ? 1 : source.batch(source.batchOf(0)).lines()[0];
      show(fill, ValueRow.of(-1, Cell.BLANK, line, context), source.rowCount(), visitor);
      return false;
    }
    Combinations combinations = source.combinations(fill.columns());
    for (Combinations.Combination c : combinations.all()) {
      show(fill, row(fill.columns(), c, context), c.rows(), visitor);
    }
    return combinations.beyond() > 0;
  }

  private static void show(
      CompiledFill fill, org.zestyporter.core.fill.Row row, long rows, Visitor visitor) {
    visitor.visit(new Row(rows, row.line(), fill.trace(row)), row);
  }

  private static boolean firstRows(CompiledFill fill, SourceTable source, Visitor visitor) {
    int shown = 0;
    for (int i = 0; i < source.batches() && shown < ROWS_EACH; i++) {
      Batch batch = source.batch(i);
      for (int r = 0; r < batch.rows() && shown < ROWS_EACH; r++, shown++) {
        show(fill, new BatchRow(batch, fill.context()).at(r), 1, visitor);
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

  private static void countAltered(CompiledFill.Trace trace, int[] altered) {
    String before = trace.origin();
    for (int i = 0; i < altered.length; i++) {
      String after = trace.steps().get(i);
      if (after != null && !after.equals(before)) {
        altered[i]++;
      }
      before = after;
    }
  }
}
