package org.zestyporter.core.source;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DistinctValues;

/** Cells that are read as another text, found in the batches that hold them. */
final class Corrections {
  static final Corrections NONE = new Corrections(List.of(), Map.of(), List.of());

  /** A cell that holds what the correction says. */
  private record Found(Correction correction, int column, Cell was, Cell now) {}

  private final List<Correction> wanted;
  private final Map<Integer, List<Found>> byBatch;
  private final List<Correction> lapsed;

  private Corrections(
      List<Correction> wanted, Map<Integer, List<Found>> byBatch, List<Correction> lapsed) {
    this.wanted = wanted;
    this.byBatch = byBatch;
    this.lapsed = lapsed;
  }

  static Corrections of(SourceTable source, List<Correction> wanted) {
    Map<Integer, List<Found>> byBatch = new HashMap<>();
    List<Correction> lapsed = new ArrayList<>();
    for (Correction correction : wanted) {
      int column = source.column(correction.column());
      long row = source.rowOfLine(correction.line());
      Cell cell = null;
      int batch = -1;
      if (column >= 0 && row < source.rowCount()) {
        batch = source.batchOf(row);
        Batch records = source.batch(batch);
        int at = (int) (row - records.firstRow());
        if (records.lines()[at] == correction.line()) {
          cell = records.columns()[column].cell(at);
        }
      }
      if (cell == null || !cell.text().equals(correction.was())) {
        lapsed.add(correction);
      } else {
        byBatch
            .computeIfAbsent(batch, b -> new ArrayList<>())
            .add(new Found(correction, column, cell, Cell.text(correction.now())));
      }
    }
    return new Corrections(List.copyOf(wanted), byBatch, lapsed);
  }

  List<Correction> wanted() {
    return wanted;
  }

  List<Correction> lapsed() {
    return lapsed;
  }

  boolean touch(int batch, int column) {
    return byBatch.getOrDefault(batch, List.of()).stream().anyMatch(f -> f.column() == column);
  }

  /** The columns of a batch with its corrections; every record of a corrected line has them. */
  ColumnChunk[] apply(int batch, long[] lines, ColumnChunk[] columns) {
    for (Found found : byBatch.getOrDefault(batch, List.of())) {
      ColumnChunk chunk = columns[found.column()];
      Cell[] distinct = Arrays.copyOf(chunk.distinct(), chunk.entries() + 1);
      distinct[distinct.length - 1] = found.now();
      int[] codes = chunk.codes().clone();
      for (int row = 0; row < lines.length; row++) {
        if (lines[row] == found.correction().line() && chunk.cell(row).equals(found.was())) {
          codes[row] = distinct.length - 1;
        }
      }
      columns[found.column()] = new ColumnChunk(distinct, codes);
    }
    return columns;
  }

  /** The distinct values of all columns as the corrections leave them. */
  DistinctValues[] distinct(DistinctValues[] before) {
    DistinctValues[] after = before.clone();
    for (List<Found> some : byBatch.values()) {
      for (Found found : some) {
        int column = found.column();
        after[column] = after[column].moved(found.was(), found.now(), found.correction().line());
      }
    }
    return after;
  }
}
