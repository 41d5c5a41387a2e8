package org.zestyporter.core.source.layout;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Letters;

/**
 * Finds columns that lie beside a table: parted from it by a column without a title or a cell, and
 * with cells in half of its records at most, such as a list of what words mean.
 */
final class Beside {
  private final SourceCache cache;
  private final Titles titles;
  private final RowSelector rows;

  Beside(SourceCache cache, Titles titles, RowSelector rows) {
    this.cache = cache;
    this.titles = titles;
    this.rows = rows;
  }

  /** The columns, and in the evidence why they are none of the table's. */
  List<Integer> find(List<Evidence> evidence) {
    List<int[]> blocks = blocks();
    if (blocks.size() < 2) {
      return List.of();
    }
    long[] filled =
        blocks.stream()
            .mapToLong(b -> IntStream.range(b[0], b[1]).mapToLong(this::filled).max().orElse(0))
            .toArray();
    int main = 0;
    for (int b = 1; b < filled.length; b++) {
      main = filled[b] > filled[main] ? b : main;
    }
    List<Integer> beside = new ArrayList<>();
    for (int b = 0; b < filled.length; b++) {
      if (b != main && filled[b] * 2 <= filled[main]) {
        int[] block = blocks.get(b);
        IntStream.range(block[0], block[1]).forEach(beside::add);
        evidence.add(
            new Evidence(
                "omit",
                titles.name(block[0]),
                String.format(
                    Locale.ROOT,
                    "columns %s to %s lie beside the table, behind a column without cells, and have"
                        + " some in %,d rows where the table has %,d",
                    Letters.of(block[0]),
                    Letters.of(block[1] - 1),
                    filled[b],
                    filled[main])));
      }
    }
    return beside;
  }

  /** Neighbouring columns, from the first to the one behind the last. */
  private List<int[]> blocks() {
    List<int[]> blocks = new ArrayList<>();
    int from = 0;
    for (int c = 0; c <= titles.width(); c++) {
      boolean ends = c == titles.width() || isUnused(c);
      if (ends) {
        if (c > from) {
          blocks.add(new int[] {from, c});
        }
        from = c + 1;
      }
    }
    return blocks;
  }

  /** True for a column without a title that no record has a cell in. */
  boolean isUnused(int column) {
    if (!titles.title(column).isEmpty()) {
      return false;
    }
    for (int chunk = 0; chunk < cache.chunks(); chunk++) {
      if (filled(chunk, column) > 0) {
        return false;
      }
    }
    return true;
  }

  private long filled(int column) {
    return IntStream.range(0, cache.chunks()).mapToLong(chunk -> filled(chunk, column)).sum();
  }

  private long filled(int chunk, int column) {
    if (cache.isBlank(chunk, column)) {
      return 0;
    }
    ColumnChunk cells = rows.column(chunk, column);
    boolean[] blanks = cells.blanks();
    long filled = 0;
    for (int row : rows.rows(chunk)) {
      filled += blanks[cells.codes()[row]] ? 0 : 1;
    }
    return filled;
  }
}
