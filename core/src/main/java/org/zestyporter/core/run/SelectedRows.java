package org.zestyporter.core.run;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Collection;
import java.util.List;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
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
  private final Collection<Integer> asked;
  private final int splitColumn;

  /** Found out again where memory was short. */
  private final Cache<Integer, DistinctValues> distinct =
      Caffeine.newBuilder().softValues().build();

  private final Cache<List<Integer>, Combinations> combinations =
      Caffeine.newBuilder().softValues().build();

  /** By batch, the rows of it that go there, once for each part; null until they are asked for. */
  private int @Nullable [][] picked;

  /**
   * @param asked indexes of the columns that the selection's condition reads
   * @param splitColumn index of the column whose cells are parted; -1 if none
   */
  SelectedRows(
      SourceTable source, Selection selection, Collection<Integer> asked, int splitColumn) {
    this.source = source;
    this.selection = selection;
    this.asked = asked;
    this.splitColumn = splitColumn;
  }

  @Override
  public List<String> columns() {
    return source.columns();
  }

  private synchronized int[][] picked() {
    if (picked == null) {
      picked = new int[source.batches()][];
      for (int i = 0; i < picked.length; i++) {
        // where nothing is parted, no column is read but those that decide
        picked[i] =
            splitColumn < 0
                ? selection.taken(source.batch(i, asked), null).rows()
                : selection.of(source.batch(i), null).rows();
      }
    }
    return picked;
  }

  @Override
  public long rowCount() {
    long count = 0;
    for (int[] rows : picked()) {
      count += rows.length;
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
    return distinct.get(column, this::count);
  }

  private DistinctValues count(int column) {
    DistinctValues values = new DistinctValues();
    int[][] all = picked();
    for (int i = 0; i < all.length; i++) {
      long[] lines = source.batch(i, List.of()).lines();
      if (column == splitColumn) {
        ColumnChunk parts = batch(i).columns()[column];
        count(values, parts, IntStream.range(0, parts.rows()).toArray(), all[i], lines);
      } else {
        count(values, source.cells(i, column), all[i], all[i], lines);
      }
    }
    return values;
  }

  /**
   * Counts cells of a chunk.
   *
   * @param at where each of them stands in the chunk
   * @param rows the batch's row of each
   */
  private static void count(
      DistinctValues values, ColumnChunk cells, int[] at, int[] rows, long[] lines) {
    long[] counts = new long[cells.entries()];
    int[] first = new int[counts.length];
    for (int r = at.length - 1; r >= 0; r--) {
      int code = cells.codes()[at[r]];
      counts[code]++;
      first[code] = rows[r];
    }
    for (int code = 0; code < counts.length; code++) {
      if (counts[code] > 0) {
        values.add(cells.entry(code), counts[code], lines[first[code]]);
      }
    }
  }

  @Override
  public Combinations combinations(List<Integer> columns) {
    return combinations.get(columns, c -> Combinations.of(this, c));
  }
}
