package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.value.SideBySide;
import org.zestyporter.core.value.Softly;

/** Which of a source's rows go to a destination, kept while somebody edits a plan. */
final class KeptSelection {
  private final SourceTable source;
  private final KeptSelections.RowsOf of;
  private final Selection selection;

  /** Columns that have to be read to tell the rows and their parts. */
  private final Set<Integer> asked;

  private final @Nullable KeptSelection parent;

  /** True if all rows go there, one by one. */
  private final boolean isAll;

  /** By chunk; found out again where memory was short. */
  private final Softly<List<Picked>> picked = new Softly<>();

  /**
   * The rows of a chunk that go there.
   *
   * @param all the same once each of their parts stands for itself, with no cells
   * @param rows number of rows of the chunk
   */
  private record Picked(Selection.Taken taken, Selection.Selected all, int rows) {}

  /**
   * @param asked indexes of the columns that decide, and of the one whose cells are parted
   * @param parent that of the destination whose records they belong to; null if there is none
   */
  KeptSelection(
      SourceTable source,
      KeptSelections.RowsOf of,
      Selection selection,
      Collection<Integer> asked,
      @Nullable KeptSelection parent) {
    this.source = source;
    this.of = of;
    this.selection = selection;
    this.asked = new HashSet<>(asked);
    this.parent = parent;
    this.isAll = of.where() == null && of.split() == null && (parent == null || parent.isAll);
  }

  /** What decides which rows go there. */
  KeptSelections.RowsOf of() {
    return of;
  }

  /** What goes there of a chunk, without its cells. */
  Selection.Selected rows(int number) {
    return picked().get(number).all;
  }

  /** Number of rows that a chunk has in the source. */
  int rowsOfSource(int number) {
    return picked().get(number).rows;
  }

  /** What goes there of a chunk with some columns; the others are null. */
  Batch batch(int number, Collection<Integer> columns) {
    Set<Integer> wanted = new HashSet<>(columns);
    wanted.addAll(asked);
    return selection.parts(source.batch(number, wanted), picked().get(number).taken).batch();
  }

  /** The same, in which only some of the chunk's rows hold anything. */
  Batch batch(int number, Collection<Integer> columns, BitSet rows) {
    Batch all = batch(number, columns);
    BitSet some = rows;
    if (all.picked() != null) {
      some = new BitSet();
      for (int r = 0; r < all.rows(); r++) {
        some.set(r, rows.get(all.picked()[r]));
      }
    }
    ColumnChunk[] only = new ColumnChunk[all.columns().length];
    for (int c = 0; c < only.length; c++) {
      ColumnChunk column = all.columns()[c];
      only[c] = column == null ? null : column.only(some);
    }
    return new Batch(all.firstRow(), all.lines(), only, all.picked());
  }

  private synchronized List<Picked> picked() {
    return picked.get(this::pick);
  }

  private List<Picked> pick() {
    if (parent != null && !parent.isAll) {
      parent.picked();
    }
    Picked[] all = new Picked[source.batches()];
    SideBySide.go(
        all.length,
        1,
        (from, to) -> {
          for (int i = from; i < to; i++) {
            Batch batch = source.batch(i, asked);
            Selection.Taken taken = selection.taken(batch, among(i, batch.rows()));
            Selection.Selected parts = selection.parts(batch, taken);
            Batch bare =
                new Batch(
                    batch.firstRow(), parts.batch().lines(), new ColumnChunk[0], parts.rows());
            all[i] =
                new Picked(
                    taken,
                    new Selection.Selected(bare, parts.rows(), parts.parts(), parts.problems()),
                    batch.rows());
          }
        });
    return new ArrayList<>(List.of(all));
  }

  /** The rows that the parent takes; null if it takes all. */
  private boolean @Nullable [] among(int number, int rows) {
    return parent == null || parent.isAll ? null : parent.rows(number).taken(rows);
  }
}
