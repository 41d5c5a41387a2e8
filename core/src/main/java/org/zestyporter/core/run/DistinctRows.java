package org.zestyporter.core.run;

import java.util.List;
import org.zestyporter.core.fill.BatchRow;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.Row;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.ValueRow;
import org.zestyporter.core.source.Combinations;
import org.zestyporter.core.source.Rows;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DistinctValues;

/** The rows of a source as a fill sees them: one for all that hold the same in its columns. */
public final class DistinctRows {
  private DistinctRows() {}

  /** What is done with a row that stands for all that hold the same values. */
  @FunctionalInterface
  public interface Visitor {

    /**
     * @param rows how many rows it stands for
     */
    void visit(Row row, long rows);
  }

  /**
   * Visits all distinct values of a fill's columns.
   *
   * @param mostRows of a fill whose value is another one in each row, only so many are visited
   * @return true if there are more than were visited
   */
  public static boolean visit(CompiledFill fill, Rows source, long mostRows, Visitor visitor) {
    RunContext context = fill.context();
    if (fill.column() >= 0) {
      int column = fill.column();
      DistinctValues values = source.distinct(column);
      values.each(
          (cell, rows, line) -> visitor.visit(ValueRow.of(column, cell, line, context), rows));
      if (values.blank() > 0) {
        visitor.visit(ValueRow.of(column, Cell.BLANK, 0, context), values.blank());
      }
      return values.beyond() > 0;
    }
    if (fill.perRow()) {
      return firstRows(fill, source, mostRows, visitor);
    }
    if (fill.columns().isEmpty()) {
      visitor.visit(ValueRow.of(-1, Cell.BLANK, firstLine(source), context), source.rowCount());
      return false;
    }
    Combinations combinations = source.combinations(fill.columns());
    for (Combinations.Combination c : combinations.all()) {
      visitor.visit(row(fill.columns(), c, context), c.rows());
    }
    return combinations.beyond() > 0;
  }

  private static long firstLine(Rows source) {
    for (int i = 0; i < source.batches() && source.rowCount() > 0; i++) {
      Batch batch = source.batch(i);
      if (batch.rows() > 0) {
        return batch.lines()[0];
      }
    }
    return 1;
  }

  /** Visits all rows, some of which may stand for others that hold the same. */
  static void visitAll(CompiledFill fill, SourceTable source, Visitor visitor) {
    int column = fill.column();
    if (column >= 0) {
      for (int i = 0; i < source.batches(); i++) {
        ColumnChunk cells = source.cells(i, column);
        for (int code = 0; code < cells.entries(); code++) {
          visitor.visit(ValueRow.of(column, cells.entry(code), 0, fill.context()), 1);
        }
      }
    } else if (fill.perRow() || several(fill, source)) {
      firstRows(fill, source, Long.MAX_VALUE, visitor);
    } else {
      visit(fill, source, Long.MAX_VALUE, visitor);
    }
  }

  /** True if the combinations of a fill's columns are more than are kept. */
  private static boolean several(CompiledFill fill, Rows source) {
    return fill.columns().size() > 1 && source.combinations(fill.columns()).beyond() > 0;
  }

  private static boolean firstRows(CompiledFill fill, Rows source, long most, Visitor visitor) {
    long shown = 0;
    for (int i = 0; i < source.batches() && shown < most; i++) {
      Batch batch = source.batch(i);
      for (int r = 0; r < batch.rows() && shown < most; r++, shown++) {
        visitor.visit(new BatchRow(batch, fill.context()).at(r), 1);
      }
    }
    return source.rowCount() > shown;
  }

  /** A combination in the place of its rows. */
  private static ValueRow row(
      List<Integer> columns, Combinations.Combination combination, RunContext context) {
    return new ValueRow(
        columns.stream().mapToInt(Integer::intValue).toArray(),
        combination.cells().toArray(Cell[]::new),
        combination.line(),
        combination.index(),
        context);
  }
}
