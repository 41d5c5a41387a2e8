package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.function.Function;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;

/** Chunks of which what is looked at is kept from before. */
final class KeptChunks implements ChunkSource {
  private static final int TOGETHER = 16;

  private final SourceTable source;
  private final List<Part> parts;

  /** By destination and chunk, the index of its first row among those of the destination. */
  private final int[][] firsts;

  /**
   * The rows of one destination.
   *
   * @param columns of the fills of the target
   * @param chunks of these, with the fields that are looked at
   */
  record Part(KeptColumns.Open columns, List<FilledChunk> chunks, Target target) {}

  /**
   * @param parts one for each destination
   */
  KeptChunks(SourceTable source, List<Part> parts) {
    this.source = source;
    this.parts = parts;
    this.firsts = new int[parts.size()][source.batches()];
    for (int p = 0; p < firsts.length; p++) {
      for (int i = 1; i < firsts[p].length; i++) {
        firsts[p][i] = firsts[p][i - 1] + parts.get(p).chunks.get(i - 1).rows();
      }
    }
  }

  @Override
  public int count() {
    return source.batches();
  }

  @Override
  public ChunkRows next(int number) {
    return rows(number, part -> part.chunks.get(number));
  }

  @Override
  public int together() {
    return TOGETHER;
  }

  @Override
  public void keep(int number, ChunkRows chunk) {
    // what is worth keeping is kept
  }

  @Override
  public boolean isWhole() {
    return false;
  }

  @Override
  public ChunkRows whole(int number, BitSet rows) {
    return rows(number, part -> part.columns.whole(number, rows));
  }

  private ChunkRows rows(int number, Function<Part, FilledChunk> filled) {
    Batch all = source.batch(number, List.of());
    List<TargetRows> rows = new ArrayList<>(parts.size());
    for (int p = 0; p < firsts.length; p++) {
      Part part = parts.get(p);
      FilledChunk chunk = filled.apply(part);
      rows.add(
          new TargetRows(
              part.target, chunk, part.columns.rows(number), all.rows(), firsts[p][number]));
    }
    return new ChunkRows((int) all.firstRow(), all.rows(), rows);
  }
}
