package org.zestyporter.core.source.layout;

import java.util.stream.IntStream;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.source.cache.SourceCache;

/** In how many of the records the columns of a sheet have a cell. */
final class UsedColumns {
  private final SourceCache cache;
  private final Titles titles;
  private final RowSelector rows;

  UsedColumns(SourceCache cache, Titles titles, RowSelector rows) {
    this.cache = cache;
    this.titles = titles;
    this.rows = rows;
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

  long filled(int column) {
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
