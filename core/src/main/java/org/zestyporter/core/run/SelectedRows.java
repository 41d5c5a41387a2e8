package org.zestyporter.core.run;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.zestyporter.core.source.Combinations;
import org.zestyporter.core.source.Rows;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.value.DistinctValues;

/** What of a source's rows goes to a destination that takes not all of them, or parts of them. */
final class SelectedRows implements Rows {
  private final SourceTable source;
  private final Selection selection;
  private final Map<Integer, DistinctValues> distinct = new ConcurrentHashMap<>();
  private final Map<List<Integer>, Combinations> combinations = new ConcurrentHashMap<>();
  private long count = -1;

  SelectedRows(SourceTable source, Selection selection) {
    this.source = source;
    this.selection = selection;
  }

  @Override
  public List<String> columns() {
    return source.columns();
  }

  @Override
  public synchronized long rowCount() {
    if (count < 0) {
      count = 0;
      for (int i = 0; i < batches(); i++) {
        count += batch(i).rows();
      }
    }
    return count;
  }

  @Override
  public int batches() {
    return source.batches();
  }

  @Override
  public Batch batch(int number) {
    return selection.of(source.batch(number), null).batch();
  }

  @Override
  public int batchOf(long row) {
    return source.batchOf(row);
  }

  @Override
  public DistinctValues distinct(int column) {
    return distinct.computeIfAbsent(column, this::count);
  }

  private DistinctValues count(int column) {
    DistinctValues values = new DistinctValues();
    for (int i = 0; i < batches(); i++) {
      Batch batch = batch(i);
      ColumnChunk cells = batch.columns()[column];
      long[] rows = new long[cells.entries()];
      int[] first = new int[rows.length];
      for (int r = batch.rows() - 1; r >= 0; r--) {
        rows[cells.codes()[r]]++;
        first[cells.codes()[r]] = r;
      }
      for (int code = 0; code < rows.length; code++) {
        if (rows[code] > 0) {
          values.add(cells.entry(code), rows[code], batch.lines()[first[code]]);
        }
      }
    }
    return values;
  }

  @Override
  public Combinations combinations(List<Integer> columns) {
    return combinations.computeIfAbsent(columns, c -> Combinations.of(this, c));
  }
}
