package org.zestyporter.core.run;

import java.util.BitSet;
import java.util.List;
import org.zestyporter.core.fill.FilledChunk;

/** Chunks of the only destination of a plan, of which what is looked at is kept from before. */
final class KeptChunks implements ChunkSource {
  private static final int TOGETHER = 16;

  private final KeptColumns.Open columns;
  private final List<FilledChunk> chunks;
  private final Target target;
  private final int[] firsts;

  /**
   * @param columns of the fills of the target
   * @param chunks of these, with the fields that are looked at
   */
  KeptChunks(KeptColumns.Open columns, List<FilledChunk> chunks, Target target) {
    this.columns = columns;
    this.chunks = chunks;
    this.target = target;
    this.firsts = new int[chunks.size()];
    for (int i = 1; i < firsts.length; i++) {
      firsts[i] = firsts[i - 1] + chunks.get(i - 1).rows();
    }
  }

  @Override
  public int count() {
    return firsts.length;
  }

  @Override
  public ChunkRows next(int number) {
    return rows(number, chunks.get(number));
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
    return rows(number, columns.whole(number, rows));
  }

  private ChunkRows rows(int number, FilledChunk filled) {
    TargetRows rows = new TargetRows(target, filled, firsts[number]);
    return new ChunkRows(firsts[number], filled.rows(), List.of(rows));
  }
}
