package org.zestyporter.core.fill;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.value.Cell;

/**
 * Computes a fill chunk by chunk. What depends on one column is computed once for each entry of the
 * chunk; across chunks values are remembered only where they repeat. For use by one thread.
 */
public final class FillColumns {
  private static final int REMEMBERED = 20_000;

  private final CompiledFill fill;
  private final Map<Object, Filled> known = new HashMap<>();
  private long asked;
  private long found;

  public FillColumns(CompiledFill fill) {
    this.fill = fill;
  }

  /** The values of a chunk's rows. */
  public FilledColumn of(Batch batch) {
    return fill.column() < 0 ? byRow(batch) : byEntry(batch);
  }

  private FilledColumn byEntry(Batch batch) {
    int column = fill.column();
    ColumnChunk cells = batch.columns()[column];
    IntFunction<Filled> chain =
        entry -> {
          Cell cell = cells.entry(entry);
          return remembered(cell, ValueRow.of(column, cell, 0, fill.context()));
        };
    if (fill.plain() != null) {
      return fill.plain().compute(cells, chain);
    }
    FilledColumn.Builder builder = new FilledColumn.Builder(cells.entries());
    for (int entry = 0; entry < cells.entries(); entry++) {
      builder.put(entry, chain.apply(entry));
    }
    return builder.build(cells.codes());
  }

  private FilledColumn byRow(Batch batch) {
    BatchRow row = new BatchRow(batch, fill.context());
    if (fill.columns().isEmpty() && !fill.perRow() && batch.rows() > 0) {
      FilledColumn.Builder builder = new FilledColumn.Builder(1);
      builder.put(0, fill.compute(row.at(0)));
      return builder.build(new int[batch.rows()]);
    }
    FilledColumn.Builder builder = new FilledColumn.Builder(batch.rows());
    for (int r = 0; r < batch.rows(); r++) {
      row.at(r);
      builder.put(r, fill.perRow() ? fill.compute(row) : remembered(key(row), row));
    }
    return builder.build(null);
  }

  private Object key(Row row) {
    List<Integer> columns = fill.columns();
    if (columns.size() == 1) {
      return row.cell(columns.get(0));
    }
    Cell[] cells = new Cell[columns.size()];
    for (int i = 0; i < cells.length; i++) {
      cells[i] = row.cell(columns.get(i));
    }
    return List.of(cells);
  }

  private Filled remembered(Object key, Row row) {
    // what was asked for often enough and hardly ever found is not looked for again
    if (asked > REMEMBERED && found * 4 < asked) {
      return fill.compute(row);
    }
    asked++;
    Filled filled = known.get(key);
    if (filled != null) {
      found++;
      return filled;
    }
    if (known.size() >= REMEMBERED) {
      known.clear();
    }
    filled = fill.compute(row);
    known.put(key, filled);
    return filled;
  }
}
