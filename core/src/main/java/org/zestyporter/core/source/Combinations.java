package org.zestyporter.core.source;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.value.Cell;

/**
 * The distinct combinations of the cells of some columns, in order of first appearance.
 *
 * <p>Bounded: past {@link #LIMIT} combinations further ones are only counted.
 */
public final class Combinations {
  /** Combinations that are kept. */
  public static final int LIMIT = 50_000;

  /**
   * A combination.
   *
   * @param cells one for each of the columns
   * @param rows how many rows hold it
   * @param line line of the first of them
   * @param index index of the first of them among the records, from 0
   */
  public record Combination(List<Cell> cells, long rows, long line, long index) {}

  private static final class Count {
    private final long line;
    private final long index;
    private long rows;

    Count(long line, long index) {
      this.line = line;
      this.index = index;
    }
  }

  private final List<Combination> all = new ArrayList<>();
  private long beyond;

  private Combinations() {}

  /** The combinations that some columns hold. */
  public static Combinations of(Rows source, List<Integer> columns) {
    Map<List<Cell>, Count> counts = new LinkedHashMap<>();
    Combinations combinations = new Combinations();
    for (int i = 0; i < source.batches(); i++) {
      combinations.add(source.batch(i), columns, counts);
    }
    counts.forEach(
        (cells, count) ->
            combinations.all.add(new Combination(cells, count.rows, count.line, count.index)));
    return combinations;
  }

  /**
   * Counts a batch by its codes first, so that cells are hashed once for each combination in it.
   */
  private void add(Batch batch, List<Integer> columns, Map<List<Cell>, Count> counts) {
    int[] ids = new int[batch.rows()];
    int size = 1;
    for (int column : columns) {
      ColumnChunk chunk = batch.columns()[column];
      Map<Long, Integer> known = new HashMap<>();
      for (int row = 0; row < ids.length; row++) {
        long pair = (long) ids[row] * chunk.entries() + chunk.codes()[row];
        Integer id = known.putIfAbsent(pair, known.size());
        ids[row] = id == null ? known.size() - 1 : id;
      }
      size = known.size();
    }
    long[] rows = new long[Math.max(1, size)];
    int[] first = new int[rows.length];
    for (int row = ids.length - 1; row >= 0; row--) {
      rows[ids[row]]++;
      first[ids[row]] = row;
    }
    for (int id = 0; id < size; id++) {
      if (rows[id] == 0) {
        continue;
      }
      int at = first[id];
      List<Cell> cells = columns.stream().map(c -> batch.columns()[c].cell(at)).toList();
      Count count = counts.get(cells);
      if (count == null && counts.size() >= LIMIT) {
        beyond += rows[id];
        continue;
      }
      if (count == null) {
        count = new Count(batch.lines()[at], batch.index(at));
        counts.put(cells, count);
      }
      count.rows += rows[id];
    }
  }

  public List<Combination> all() {
    return all;
  }

  /** Rows whose combination came after the limit was reached; 0 if all are here. */
  public long beyond() {
    return beyond;
  }
}
