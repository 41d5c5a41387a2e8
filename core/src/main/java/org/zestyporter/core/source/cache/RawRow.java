package org.zestyporter.core.source.cache;

import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.value.Cell;

/** A row as it stands in the file. */
public record RawRow(long line, List<Cell> cells) {

  public long filled() {
    return cells.stream().filter(c -> !c.isBlank()).count();
  }

  public Cell cell(int column) {
    return column < cells.size() ? cells.get(column) : Cell.BLANK;
  }

  /** Text of the first cell that is not blank. */
  public String firstText() {
    return cells.stream().filter(c -> !c.isBlank()).findFirst().map(Cell::text).orElse("");
  }

  /** Up to so many rows of a chunk, its first or its last ones. */
  public static List<RawRow> of(SourceCache cache, int chunk, int most, boolean atEnd) {
    int count = chunk < cache.chunks() ? cache.rows(chunk) : 0;
    return atEnd
        ? range(cache, chunk, Math.max(0, count - most), count)
        : range(cache, chunk, 0, Math.min(count, most));
  }

  /** Some rows of a chunk, by their places in it. */
  public static List<RawRow> range(SourceCache cache, int chunk, int from, int to) {
    List<RawRow> rows = new ArrayList<>();
    if (chunk >= cache.chunks()) {
      return rows;
    }
    long[] lines = cache.lines(chunk);
    List<ColumnChunk> columns = new ArrayList<>();
    for (int c = 0; c < cache.width(chunk); c++) {
      columns.add(cache.column(chunk, c));
    }
    for (int r = from; r < to; r++) {
      List<Cell> cells = new ArrayList<>(columns.size());
      for (ColumnChunk column : columns) {
        cells.add(column.cell(r));
      }
      rows.add(new RawRow(lines[r], cells));
    }
    return rows;
  }
}
