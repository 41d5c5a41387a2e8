package org.zestyporter.core.fill;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.cache.Batch;

/** The values that all fills gave for the rows of a chunk, by column. */
public final class FilledChunk {
  /** Marks a row of which an answer settles all that can't be taken. */
  static final byte ASKED = 1;

  /** Marks a row of which something can't be taken, whatever is answered. */
  static final byte REJECTED = 2;

  private final List<CompiledFill> fills;
  private final long[] lines;
  private final @Nullable FilledColumn[] columns;
  private final byte[] rejected;

  private FilledChunk(
      List<CompiledFill> fills, long[] lines, @Nullable FilledColumn[] columns, byte[] rejected) {
    this.fills = fills;
    this.lines = lines;
    this.columns = columns;
    this.rejected = rejected;
  }

  /**
   * A chunk of which only some columns are known.
   *
   * @param columns what the fills gave; null for those that nobody asks for
   * @param rejected marks the rows of which a fill can't be taken, as {@link FilledColumn#reject}
   *     and {@link #worse} do
   */
  public static FilledChunk some(
      List<CompiledFill> fills, long[] lines, @Nullable FilledColumn[] columns, byte[] rejected) {
    return new FilledChunk(fills, lines, columns, rejected);
  }

  /** Ready to compute chunks one after the other, on one thread. */
  public static List<FillColumns> ready(List<CompiledFill> fills) {
    return fills.stream().map(FillColumns::new).toList();
  }

  /**
   * Computes all fills of a chunk.
   *
   * @param ready of these fills, by {@link #ready}
   */
  public static FilledChunk of(Batch batch, List<CompiledFill> fills, List<FillColumns> ready) {
    FilledColumn[] columns = new FilledColumn[fills.size()];
    byte[] rejected = new byte[batch.rows()];
    for (int f = 0; f < columns.length; f++) {
      columns[f] = ready.get(f).of(batch);
      columns[f].reject(rejected);
    }
    return new FilledChunk(fills, batch.lines(), columns, rejected);
  }

  public int rows() {
    return lines.length;
  }

  public long line(int row) {
    return lines[row];
  }

  /** What a fill gave; only of a fill whose column is known. */
  public FilledColumn column(int fill) {
    return columns[fill];
  }

  /** True if it is known what a fill gave. */
  public boolean isKnown(int fill) {
    return columns[fill] != null;
  }

  /** What a fill gave for a row. */
  public Filled filled(int fill, int row) {
    return columns[fill].filled(row);
  }

  /** True if a fill of the row can't be taken. */
  public boolean rejected(int row) {
    return rejected[row] != 0;
  }

  /** True if a fill of the row can't be taken, whatever is answered. */
  public boolean rejectedForGood(int row) {
    return rejected[row] == REJECTED;
  }

  /** The mark of a row that has two. */
  public static byte worse(byte one, byte other) {
    return one > other ? one : other;
  }

  /** Puts the row's values into an array by the table's fields. */
  public void values(int row, Object[] byField) {
    java.util.Arrays.fill(byField, null);
    for (int f = 0; f < columns.length; f++) {
      byField[fills.get(f).fieldIndex()] = columns[f].value(row);
    }
  }

  /** About how many bytes of memory it takes. */
  public long weight() {
    long weight = 9L * rows();
    for (FilledColumn column : columns) {
      weight += column.values().weight();
    }
    return weight;
  }
}
