package org.zestyporter.core.source.layout;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.cache.RawRow;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.SheetMarks;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ValueReader;

/** Finds the line or lines of a sheet that name its columns. */
final class TitleFinder {
  private static final int TITLES_WITHIN = 100;
  private static final int LONGEST_TITLE = 120;
  private static final int COMPARED_ROWS = 30;
  private static final int COMPARED_COLUMNS = 60;
  private static final int SCATTERED_LINES = 10;

  private final List<RawRow> rows;
  private final long usual;
  private final SheetMarks marks;

  /**
   * @param rows the first lines of the sheet
   * @param usual how many cells most of them have filled
   */
  TitleFinder(List<RawRow> rows, long usual, SheetMarks marks) {
    this.rows = rows;
    this.usual = usual;
    this.marks = marks;
  }

  /** The lines of the titles, and why; none if no line is like titles. */
  List<Long> find(List<Evidence> evidence) {
    for (SheetMarks.Head head : marks.heads()) {
      int at = marked(head);
      if (at >= 0) {
        return told(at, evidence, words(at) + ", and " + head.why().words());
      }
    }
    for (long line : marks.bold()) {
      int at = place(line);
      if (at >= 0 && isFull(rows.get(at)) && isTitles(rows.get(at)) && !isLabels(at)) {
        return told(at, evidence, words(at) + ", all of them bold");
      }
    }
    int at = plain();
    if (at < 0) {
      evidence.add(new Evidence("titles", "none", "no line at the top holds only different words"));
      return List.of();
    }
    return told(at, evidence, words(at) + ", and the lines below are filled like it");
  }

  private String words(int at) {
    return rows.get(at).filled() + " words";
  }

  private List<Long> told(int at, List<Evidence> evidence, String because) {
    RawRow row = rows.get(at);
    RawRow above = at > 0 ? rows.get(at - 1) : null;
    RawRow below = at + 1 < rows.size() ? rows.get(at + 1) : null;
    String grouped = above == null ? null : grouping(above, row);
    if (grouped != null) {
      return told(above, row, evidence, grouped);
    }
    grouped = below == null ? null : grouping(row, below);
    if (grouped != null && (isRepeatedUnder(row, below) || isUnlikeBelow(at + 1))) {
      return told(row, below, evidence, grouped);
    }
    evidence.add(new Evidence("titles", "line " + row.line(), because));
    return List.of(row.line());
  }

  private static List<Long> told(
      RawRow upper, RawRow lower, List<Evidence> evidence, String because) {
    evidence.add(new Evidence("titles", "lines " + upper.line() + " and " + lower.line(), because));
    return List.of(upper.line(), lower.line());
  }

  /** Place of the line that a mark of the workbook means; -1 if it can't be titles. */
  private int marked(SheetMarks.Head head) {
    int at = place(head.line());
    // what stays in view may end with units, or with a line that is blank
    int least = head.why() == SheetMarks.Why.FROZEN ? Math.max(0, at - 2) : at;
    for (int i = at; i >= least && i >= 0; i--) {
      RawRow row = rows.get(i);
      boolean some = row.filled() * 10 >= usual * 4 && (row.filled() > 1 || usual == 1);
      // a table or a filter has its titles there; what is kept in view may be something else
      boolean isSaid = head.why() == SheetMarks.Why.TABLE || head.why() == SheetMarks.Why.FILTER;
      if (some && (isTitles(row) || isSeriesOfTitles(row)) && (isSaid || isUnlikeBelow(i))) {
        return i;
      }
    }
    return -1;
  }

  private int place(long line) {
    for (int i = 0; i < Math.min(TITLES_WITHIN, rows.size()); i++) {
      if (rows.get(i).line() == line) {
        return i;
      }
    }
    return -1;
  }

  private boolean isFull(RawRow row) {
    return row.filled() > 0 && row.filled() * 10 >= usual * 6;
  }

  private int plain() {
    for (int i = 0; i < Math.min(TITLES_WITHIN, rows.size()); i++) {
      RawRow row = rows.get(i);
      if (isFull(row) && (isTitles(row) || isSeriesOfTitles(row)) && !isLabels(i)) {
        int at = behindScattered(i);
        return isLikeBelow(at) ? -1 : at;
      }
    }
    return -1;
  }

  /** Words that lie about above the table are no titles, if a fuller line of words follows. */
  private int behindScattered(int at) {
    for (int i = at + 1; i < Math.min(rows.size(), at + SCATTERED_LINES); i++) {
      RawRow row = rows.get(i);
      if (row.filled() == 0) {
        continue;
      }
      if (!isTitles(row)) {
        break;
      }
      boolean fuller = rows.get(at).filled() * 10 < usual * 8 && row.filled() * 10 >= usual * 8;
      if (fuller && isUnlikeBelow(i)) {
        return i;
      }
    }
    return at;
  }

  /** True if some column holds numbers or dates below the line's word. */
  boolean isUnlikeBelow(int at) {
    RawRow row = rows.get(at);
    boolean any = false;
    for (int c = 0; c < Math.min(COMPARED_COLUMNS, row.cells().size()); c++) {
      int filled = 0;
      int other = 0;
      for (RawRow below : rows.subList(at + 1, Math.min(rows.size(), at + COMPARED_ROWS))) {
        if (!below.cell(c).isBlank()) {
          filled++;
          other += isWord(below.cell(c)) ? 0 : 1;
        }
      }
      any |= filled > 0 && other * 10 >= filled * 6 && isWord(row.cell(c));
    }
    return any;
  }

  /**
   * True if a cell is a code of the kind that stands below it, as QH-1 above QH-2: then the line is
   * a record among others.
   */
  private boolean isLikeBelow(int at) {
    RawRow row = rows.get(at);
    for (int c = 0; c < Math.min(COMPARED_COLUMNS, row.cells().size()); c++) {
      String shape = shape(row.cell(c).text());
      if (shape.indexOf('9') < 0 || shape.indexOf('A') < 0) {
        continue;
      }
      int same = 0;
      int filled = 0;
      for (RawRow below : rows.subList(at + 1, Math.min(rows.size(), at + COMPARED_ROWS))) {
        if (!below.cell(c).isBlank()) {
          filled++;
          same += shape(below.cell(c).text()).equals(shape) ? 1 : 0;
        }
      }
      if (filled > 0 && same * 10 >= filled * 8) {
        return true;
      }
    }
    return false;
  }

  /** Letters as A, figures as 9, each run of them as one. */
  static String shape(String text) {
    return text.strip().replaceAll("\\p{L}+", "A").replaceAll("\\d+", "9").replaceAll("\\s+", " ");
  }

  /** A line of two words above wider lines is a label with its value, not titles. */
  private boolean isLabels(int at) {
    RawRow row = rows.get(at);
    return row.filled() < usual
        && at + 1 < rows.size()
        && row.filled() <= 2
        && rows.get(at + 1).filled() > row.filled();
  }

  static boolean isTitles(RawRow row) {
    Set<String> seen = new HashSet<>();
    for (Cell cell : row.cells()) {
      if (cell.isBlank()) {
        continue;
      }
      if (!isWord(cell)) {
        return false;
      }
      seen.add(cell.text().strip().toLowerCase(Locale.ROOT));
    }
    // titles may repeat now and then, the words of a record's choices repeat often
    return seen.size() * 2 >= row.filled();
  }

  static boolean isWord(Cell cell) {
    String text = cell.text().strip();
    return cell.kind() == Cell.Kind.TEXT
        && text.length() <= LONGEST_TITLE
        && (text.codePoints().anyMatch(Character::isLetter)
            || text.codePoints().noneMatch(Character::isDigit))
        && text.indexOf('@') < 0
        && ValueReader.date(text, DateOrder.DAY_MONTH_YEAR, "20") instanceof Problem;
  }

  /** Words first, then years, dates or months that rise from cell to cell. */
  private static boolean isSeriesOfTitles(RawRow row) {
    int words = 0;
    List<Cell> rest = new ArrayList<>();
    for (Cell cell : row.cells()) {
      if (cell.isBlank()) {
        continue;
      }
      if (rest.isEmpty() && isWord(cell) && TitleSeries.of(cell) == null) {
        words++;
      } else {
        rest.add(cell);
      }
    }
    return words > 0 && rest.size() >= 3 && TitleSeries.rises(rest);
  }

  /** Why the words of a line group the columns of the next one; null if they don't. */
  private @Nullable String grouping(RawRow upper, RawRow lower) {
    if (isRepeatedUnder(upper, lower)) {
      return "the upper line groups the columns of the lower one, whose words repeat";
    }
    return isMergedOver(upper, lower)
        ? "cells of the upper line are merged over those of the lower one"
        : null;
  }

  /** True if a cell of the upper line is merged over several words of the lower one. */
  private boolean isMergedOver(RawRow upper, RawRow lower) {
    if (lower.line() - upper.line() != 1
        || !isTitles(upper)
        || !isAllWordsOrYears(lower)
        || upper.filled() == 0) {
      return false;
    }
    int first = 0;
    while (lower.cell(first).isBlank()) {
      first++;
    }
    int groups = 0;
    for (int c = 0; c < upper.cells().size(); c++) {
      int words = 0;
      int end = marks.end(upper.line(), c);
      for (int i = c; i <= end; i++) {
        words += lower.cell(i).isBlank() ? 0 : 1;
      }
      // one word over everything is the sheet's heading
      boolean alone = upper.filled() == 1 && c <= first;
      groups += !upper.cell(c).isBlank() && words > 1 && !alone ? 1 : 0;
    }
    return groups > 0;
  }

  /** True if the upper line's words stand above groups of columns, and the lower one's repeat. */
  private static boolean isRepeatedUnder(RawRow upper, RawRow lower) {
    if (upper.filled() < 2 || lower.line() - upper.line() != 1 || !isAllWordsOrYears(lower)) {
      return false;
    }
    int columns = Math.max(upper.cells().size(), lower.cells().size());
    List<String> joined = new ArrayList<>();
    Set<String> own = new HashSet<>();
    boolean repeats = false;
    String group = "";
    boolean covered = false;
    for (int c = 0; c < columns; c++) {
      if (!upper.cell(c).isBlank()) {
        group = upper.cell(c).text().strip();
      } else {
        covered |= !lower.cell(c).isBlank();
      }
      String word = lower.cell(c).text().strip().toLowerCase(Locale.ROOT);
      if (!word.isEmpty()) {
        repeats |= !own.add(word);
        joined.add(group + " " + word);
      }
    }
    return repeats && covered && new HashSet<>(joined).size() == joined.size();
  }

  private static boolean isAllWordsOrYears(RawRow row) {
    return row.filled() > 1
        && row.cells().stream()
            .filter(c -> !c.isBlank())
            .allMatch(c -> isWord(c) || TitleSeries.of(c) != null);
  }
}
