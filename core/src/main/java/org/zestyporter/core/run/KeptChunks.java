package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.concurrent.atomic.AtomicReferenceArray;
import java.util.function.Function;
import org.zestyporter.core.fill.FilledChunk;

/** Chunks of which what is looked at is kept from before. */
final class KeptChunks implements ChunkSource {
  private static final int TOGETHER = 16;

  private final List<Part> parts;

  /** As often as chunks are taken, their rows are put together once. */
  private final AtomicReferenceArray<ChunkRows> chunks;

  /** Index of the first row of each chunk among the source's rows. */
  private final int[] firsts;

  /** The same among the rows of each destination. */
  private final int[][] firstsOf;

  /**
   * The rows of one destination.
   *
   * @param columns of the fills of the target
   * @param chunks of these, with the fields that are looked at
   */
  record Part(KeptColumns.Open columns, List<FilledChunk> chunks, Target target) {}

  /**
   * @param parts one for each destination, of the same source
   */
  KeptChunks(List<Part> parts) {
    this.parts = parts;
    this.firsts = new int[parts.get(0).chunks.size()];
    this.chunks = new AtomicReferenceArray<>(firsts.length);
    this.firstsOf = new int[parts.size()][firsts.length];
    for (int i = 1; i < firsts.length; i++) {
      firsts[i] = firsts[i - 1] + parts.get(0).columns.rowsOfSource(i - 1);
      for (int p = 0; p < firstsOf.length; p++) {
        firstsOf[p][i] = firstsOf[p][i - 1] + parts.get(p).chunks.get(i - 1).rows();
      }
    }
  }

  @Override
  public int count() {
    return firsts.length;
  }

  @Override
  public ChunkRows next(int number) {
    ChunkRows known = chunks.get(number);
    if (known == null) {
      known = rows(number, part -> part.chunks.get(number));
      chunks.set(number, known);
    }
    return known;
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
    int count = parts.get(0).columns.rowsOfSource(number);
    List<TargetRows> rows = new ArrayList<>(parts.size());
    for (int p = 0; p < firstsOf.length; p++) {
      Part part = parts.get(p);
      rows.add(
          new TargetRows(
              part.target,
              filled.apply(part),
              part.columns.rows(number),
              count,
              firstsOf[p][number]));
    }
    return new ChunkRows(firsts[number], count, rows);
  }
}
