package org.zestyporter.core.source.layout;

import java.time.LocalDateTime;
import java.util.BitSet;
import java.util.List;
import java.util.function.IntFunction;
import org.zestyporter.core.formula.Condition;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.formula.Scope;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Problem;

/**
 * The formula of a reading that a row must hold for to be a record.
 *
 * <p>It is computed from the cells of the file as they stand, before anything is folded. A row for
 * which it can't be told stays a record, so that nothing is lost unseen.
 */
final class RowFilter {
  private final Condition condition;

  /** A column whose value alone decides; under 0 if there is none. */
  private final int only;

  /**
   * @param columns names of the sheet's columns
   * @throws PorterException with code {@code condition} if the formula can't be used
   */
  RowFilter(String formula, List<String> columns, LocaleSettings locale) {
    condition = Condition.compile(formula, Names.of(columns, locale), "the rows");
    only = condition.columns().size() == 1 ? condition.columns().get(0) : -1;
  }

  /**
   * The rows of a chunk that are none of the records.
   *
   * @param lines line numbers of the chunk's rows
   * @param rows those that are asked about
   * @param columns gives a column of the chunk
   */
  BitSet failing(long[] lines, BitSet rows, IntFunction<ColumnChunk> columns) {
    BitSet failing = new BitSet(lines.length);
    Row row = new Row(columns);
    Boolean[] known = only < 0 ? null : new Boolean[columns.apply(only).entries()];
    for (int r = rows.nextSetBit(0); r >= 0; r = rows.nextSetBit(r + 1)) {
      int code = known == null ? 0 : columns.apply(only).codes()[r];
      Boolean holds = known == null ? null : known[code];
      if (holds == null) {
        row.at = r;
        row.line = lines[r];
        Object said = condition.of(row);
        holds = Boolean.TRUE.equals(said) || said instanceof Problem;
        // a formula that reads the line's number as well has more than its column to go by
        if (known != null && !row.usedLine) {
          known[code] = holds;
        }
      }
      failing.set(r, !holds);
    }
    return failing;
  }

  /** A row of the chunk; what belongs to a run is not known when a file is read. */
  private static final class Row implements Scope {
    private final IntFunction<ColumnChunk> columns;
    private int at;
    private long line;
    private boolean usedLine;

    Row(IntFunction<ColumnChunk> columns) {
      this.columns = columns;
    }

    @Override
    public Object column(int index) {
      return columns.apply(index).cell(at).value();
    }

    @Override
    public long line() {
      usedLine = true;
      return line;
    }

    @Override
    public LocalDateTime now() {
      throw ofTheRun("the date or time");
    }

    @Override
    public String who() {
      throw ofTheRun("the person");
    }

    @Override
    public String fileName() {
      throw ofTheRun("the file's name");
    }

    private static PorterException ofTheRun(String what) {
      return ErrorCode.CONDITION.error(
          "The condition of the rows can't use " + what + ": a file is read the same each time.",
          "Put such a condition on the destination.");
    }
  }
}
