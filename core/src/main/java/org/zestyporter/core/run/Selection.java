package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.fill.BatchRow;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.formula.Condition;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.Problem;

/** The rows that go to a destination, and the parts that a row is split into there. */
final class Selection {
  private final @Nullable Condition where;
  private final int splitColumn;
  private final @Nullable Pattern splitAt;
  private final RunContext context;

  /**
   * @param where gives true for the rows that go there; null if all do
   * @param splitColumn index of the column whose cells hold several values; -1 if none
   */
  Selection(
      @Nullable Condition where,
      int splitColumn,
      Destination.@Nullable Split split,
      RunContext context) {
    this.where = where;
    this.splitColumn = splitColumn;
    this.splitAt = split == null ? null : split.pattern();
    this.context = context;
  }

  /**
   * What goes there of a chunk.
   *
   * @param rows the chunk's row of each; null if all of them go there, one by one
   * @param parts number among those of the row, from 0; null if each row has one
   * @param problems why a condition can't be told, by row; null if it always can
   */
  record Selected(
      Batch batch, int @Nullable [] rows, int @Nullable [] parts, Problem @Nullable [] problems) {

    /**
     * Which of a chunk's rows go there; null if all do.
     *
     * @param count of the chunk's rows
     */
    boolean @Nullable [] taken(int count) {
      return Selection.taken(rows, count);
    }
  }

  /** Which of a chunk's rows are among some; null if these are all. */
  static boolean @Nullable [] taken(int @Nullable [] rows, int count) {
    if (rows == null) {
      return null;
    }
    boolean[] taken = new boolean[count];
    for (int row : rows) {
      taken[row] = true;
    }
    return taken;
  }

  /**
   * @param among the rows that may go there; null for all
   */
  Selected of(Batch batch, boolean @Nullable [] among) {
    return parts(batch, taken(batch, among));
  }

  /**
   * The rows of a chunk that go there, before they are parted.
   *
   * @param rows the chunk's rows; null if all of them go there
   * @param problems why a condition can't be told, by row; null if it always can
   */
  record Taken(int @Nullable [] rows, Problem @Nullable [] problems) {

    /** All rows of a chunk that has so many. */
    private int[] rows(int count) {
      return rows == null ? IntStream.range(0, count).toArray() : rows;
    }
  }

  /**
   * What goes there of the rows that were found to.
   *
   * @param batch with the columns that are wanted, and the one whose cells are parted
   */
  Selected parts(Batch batch, Taken taken) {
    if (splitColumn >= 0) {
      return split(batch, taken.rows(batch.rows()), taken.problems);
    }
    return taken.rows == null
        ? new Selected(batch, null, null, null)
        : new Selected(select(batch, taken.rows, null), taken.rows, null, taken.problems);
  }

  /**
   * The rows of a batch that go there.
   *
   * @param among the rows that may go there; null for all
   */
  Taken taken(Batch batch, boolean @Nullable [] among) {
    if (where == null && among == null) {
      return new Taken(null, null);
    }
    Problem[] problems = new Problem[batch.rows()];
    int[] rows = taken(batch, among, problems);
    return new Taken(rows, Arrays.stream(problems).anyMatch(Objects::nonNull) ? problems : null);
  }

  /**
   * @param problems takes why it can't be told of some of those that are taken
   */
  private int[] taken(Batch batch, boolean @Nullable [] among, Problem[] problems) {
    int[] rows = new int[batch.rows()];
    int count = 0;
    BatchRow row = new BatchRow(batch, context);
    for (int r = 0; r < rows.length; r++) {
      if (among != null && !among[r]) {
        continue;
      }
      Object taken = where == null ? Boolean.TRUE : where.of(row.at(r));
      if (taken instanceof Problem problem) {
        problems[count] = problem;
      }
      if (taken instanceof Problem || Boolean.TRUE.equals(taken)) {
        rows[count++] = r;
      }
    }
    return Arrays.copyOf(rows, count);
  }

  private Selected split(Batch batch, int[] taken, Problem @Nullable [] problems) {
    List<Cell> cells = new ArrayList<>();
    List<Integer> rows = new ArrayList<>();
    List<Integer> parts = new ArrayList<>();
    List<Problem> told = new ArrayList<>();
    ColumnChunk column = batch.columns()[splitColumn];
    for (int i = 0; i < taken.length; i++) {
      Cell cell = column.cell(taken[i]);
      int part = 0;
      List<Cell> values =
          cell.kind() == Cell.Kind.TEXT
              ? Arrays.stream(splitAt.split(cell.text()))
                  .map(String::strip)
                  .map(Cell::text)
                  .toList()
              : List.of(cell);
      for (Cell value : values) {
        if (!value.isBlank()) {
          cells.add(value);
          rows.add(taken[i]);
          parts.add(part++);
          told.add(problems == null ? null : problems[i]);
        }
      }
    }
    int[] all = rows.stream().mapToInt(Integer::intValue).toArray();
    return new Selected(
        select(batch, all, cells.toArray(Cell[]::new)),
        all,
        parts.stream().mapToInt(Integer::intValue).toArray(),
        problems == null ? null : told.toArray(Problem[]::new));
  }

  private Batch select(Batch batch, int[] rows, Cell @Nullable [] values) {
    ColumnChunk[] columns = new ColumnChunk[batch.columns().length];
    for (int c = 0; c < columns.length; c++) {
      ColumnChunk all = batch.columns()[c];
      if (c == splitColumn && values != null) {
        columns[c] = new ColumnChunk(values, IntStream.range(0, rows.length).toArray());
      } else if (all != null) {
        columns[c] = all.select(rows);
      }
    }
    long[] lines = new long[rows.length];
    for (int i = 0; i < rows.length; i++) {
      lines[i] = batch.lines()[rows[i]];
    }
    return new Batch(batch.firstRow(), lines, columns, rows);
  }
}
