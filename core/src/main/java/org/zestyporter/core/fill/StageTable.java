package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DistinctValues;

/**
 * Every distinct value of a fill with the stages it passes through, the troubled ones first.
 *
 * @param distinct number of distinct values, blank counted as one
 * @param distinctCapped true if the column has more than are counted
 * @param troubled distinct values that can't be taken
 * @param troubledRows rows behind them
 * @param altered for each step, the number of distinct values that it changed
 * @param rows the first of them
 */
public record StageTable(
    int distinct,
    boolean distinctCapped,
    int troubled,
    long troubledRows,
    List<Integer> altered,
    List<Row> rows) {

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
   * Computes the stages of a fill over all distinct values of its column.
   *
   * @param limit the most rows to return
   */
  public static StageTable of(CompiledFill fill, SourceTable source, int offset, int limit) {
    List<Row> rows = new ArrayList<>();
    boolean capped = false;
    if (fill.column() < 0) {
      long first = source.rowCount() == 0 ? 1 : firstLine(source);
      rows.add(new Row(source.rowCount(), first, fill.trace(Cell.BLANK, first)));
    } else {
      DistinctValues values = source.distinct(fill.column());
      capped = values.beyond() > 0;
      for (Map.Entry<Cell, DistinctValues.Tally> e : values.tallies().entrySet()) {
        rows.add(row(fill, e.getKey(), e.getValue().rows(), e.getValue().line()));
      }
      if (values.blank() > 0) {
        rows.add(row(fill, Cell.BLANK, values.blank(), 0));
      }
    }
    rows.sort(
        Comparator.comparing((Row r) -> !r.troubled())
            .thenComparing(r -> -r.rows())
            .thenComparing(Row::line));
    int troubled = 0;
    long troubledRows = 0;
    int[] altered = new int[fill.fill().steps().size()];
    for (Row row : rows) {
      if (row.troubled()) {
        troubled++;
        troubledRows += row.rows();
      }
      countAltered(row.trace(), altered);
    }
    List<Integer> alteredList = java.util.Arrays.stream(altered).boxed().toList();
    int from = Math.min(offset, rows.size());
    List<Row> page = rows.subList(from, Math.min(rows.size(), from + limit));
    return new StageTable(
        rows.size(), capped, troubled, troubledRows, alteredList, List.copyOf(page));
  }

  private static Row row(CompiledFill fill, Cell cell, long rows, long line) {
    return new Row(rows, line, fill.trace(cell, line));
  }

  private static long firstLine(SourceTable source) {
    return source.batch(source.batchOf(0)).lines()[0];
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
