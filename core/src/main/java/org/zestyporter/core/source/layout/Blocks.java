package org.zestyporter.core.source.layout;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import org.zestyporter.core.source.cache.RawRow;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.SheetMarks;
import org.zestyporter.core.value.Cell;

/** Finds where further tables begin below a table, after a gap and with titles of their own. */
final class Blocks {
  private static final int MOST_GAPS = 2_000;

  private final SourceCache cache;
  private final SheetMarks marks;

  /** Columns that hold numbers or dates in the table above. */
  private final boolean[] values;

  private final RawRow titles;

  /**
   * @param body lines of the table
   * @param titles its last line of titles
   */
  Blocks(SourceCache cache, List<RawRow> body, RawRow titles, SheetMarks marks) {
    this.cache = cache;
    this.marks = marks;
    this.titles = titles;
    this.values = new boolean[cache.width()];
    for (int c = 0; c < values.length; c++) {
      int filled = 0;
      int other = 0;
      for (RawRow row : body) {
        if (!row.cell(c).isBlank()) {
          filled++;
          other += isValue(row.cell(c)) ? 1 : 0;
        }
      }
      values[c] = filled > 0 && other * 10 >= filled * 7;
    }
  }

  /**
   * Where a table begins.
   *
   * @param first its first line, which may be a heading above the titles
   */
  record Start(long first, long titles) {}

  /** A number, a day, or what begins with a figure, as 18.80 m does. */
  private static boolean isValue(Cell cell) {
    return !TitleFinder.isWord(cell) || Character.isDigit(cell.text().strip().charAt(0));
  }

  /** The tables that begin below a line. */
  List<Start> below(long line) {
    List<Start> found = new ArrayList<>();
    int gaps = 0;
    boolean blankBefore = false;
    long before = line;
    for (int chunk = cache.chunkOfLine(line + 1); chunk < cache.chunks(); chunk++) {
      long[] lines = cache.lines(chunk);
      BitSet all = new BitSet(lines.length);
      all.set(0, lines.length);
      BitSet blank = Blanks.of(cache, chunk, all);
      for (int r = 0; r < lines.length; r++) {
        if (lines[r] <= line) {
          continue;
        }
        boolean gap = blankBefore || lines[r] > before + 1;
        before = lines[r];
        blankBefore = blank.get(r);
        if (!gap || blankBefore) {
          continue;
        }
        if (++gaps > MOST_GAPS) {
          return found;
        }
        // a heading may stand between the gap and the titles
        for (int i = r; i < Math.min(lines.length, r + 3) && lines[i] - lines[r] == i - r; i++) {
          if (isTitles(chunk, i)) {
            found.add(new Start(lines[r], lines[i]));
            break;
          }
        }
      }
    }
    return found;
  }

  private boolean isTitles(int chunk, int at) {
    List<RawRow> rows = RawRow.range(cache, chunk, at, Math.min(cache.rows(chunk), at + 2));
    RawRow row = rows.get(0);
    if (row.filled() < 2 || rows.size() < 2 || !TitleFinder.isTitles(row) || isRepeated(row)) {
      return false;
    }
    RawRow next = rows.get(1);
    boolean headed =
        next.line() == row.line() + 1
            && next.filled() > 1
            && row.filled() * 10 >= next.filled() * 6;
    boolean whereValuesAre = false;
    for (int c = 0; c < row.cells().size(); c++) {
      whereValuesAre |= c < values.length && values[c] && !row.cell(c).isBlank();
    }
    return headed && (whereValuesAre || marks.bold().contains(row.line()));
  }

  private boolean isRepeated(RawRow row) {
    int same = 0;
    for (int c = 0; c < row.cells().size(); c++) {
      String text = row.cell(c).text().strip();
      same += !text.isEmpty() && text.equalsIgnoreCase(titles.cell(c).text().strip()) ? 1 : 0;
    }
    return same * 2 > row.filled();
  }
}
