package org.zestyporter.core.source;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.RawRow;
import org.zestyporter.core.source.layout.Layout;
import org.zestyporter.core.source.layout.TitleSeries;
import org.zestyporter.core.source.layout.Titles;
import org.zestyporter.core.source.reading.Fold;
import org.zestyporter.core.source.reading.Letters;
import org.zestyporter.core.source.reading.Pick;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.ValueType;

/**
 * What could be done with a file and is for a person to say.
 *
 * @param picks cells above the table that have a label
 * @param fold columns whose titles form a series
 * @param fillDown columns that look grouped: a word, then blanks down to the next
 * @param others other tables of the sheet
 */
public record Proposals(
    List<Pick> picks, @Nullable Fold fold, List<String> fillDown, List<Layout.OtherTable> others) {
  private static final int LONGEST_LABEL = 40;
  private static final int FEWEST_FOLDED = 3;
  private static final int GROUPING_COLUMNS = 3;

  static Proposals find(
      SourceTable table, Layout.Found layout, Titles titles, List<Layout.OtherTable> others) {
    boolean folded = table.reading().fold() != null;
    return new Proposals(
        table.reading().picks() == null ? picks(table, layout) : List.of(),
        folded || titles.levels() == 0 ? null : fold(table, layout, titles),
        table.reading().fillDown() == null && !folded ? fillDown(table) : List.of(),
        others);
  }

  /** A word and the cell behind it, in the lines above the titles. */
  private static List<Pick> picks(SourceTable table, Layout.Found layout) {
    List<Pick> picks = new ArrayList<>();
    if (layout.titleRows().isEmpty()) {
      return picks;
    }
    Set<String> names = new HashSet<>(table.columns());
    for (RawRow row : RawRow.of(table.raw(), 0, Layout.SEARCHED_ROWS, false)) {
      if (row.line() >= layout.titleRows().get(0)) {
        break;
      }
      for (int c = 0; c + 1 < row.cells().size(); c++) {
        Cell label = row.cell(c);
        Cell value = row.cell(c + 1);
        if (isLabel(label) && !value.isBlank()) {
          String name = label.text().strip().replaceAll("\\s*:$", "");
          if (names.add(name)) {
            picks.add(new Pick(name, Letters.of(c + 1), row.line(), label.text().strip()));
          }
          c++;
        }
      }
    }
    return picks;
  }

  private static boolean isLabel(Cell cell) {
    String text = cell.text().strip();
    return cell.kind() == Cell.Kind.TEXT
        && text.length() > 1
        && text.length() <= LONGEST_LABEL
        && text.codePoints().anyMatch(Character::isLetter)
        && text.codePoints().noneMatch(Character::isDigit);
  }

  private static Fold fold(SourceTable table, Layout.Found layout, Titles titles) {
    Fold grouped = titles.levels() > 1 ? groups(layout, titles) : null;
    return grouped != null ? grouped : series(table, layout, titles);
  }

  /** The longest run of neighbouring columns whose titles go on, and whose values are alike. */
  private static Fold series(SourceTable table, Layout.Found layout, Titles titles) {
    int level = titles.levels() - 1;
    int bestFrom = 0;
    int bestTo = -1;
    for (int from = 0; from < titles.width(); from++) {
      TitleSeries.Place place = TitleSeries.of(titles.level(level, from));
      int to = from;
      while (place != null && to + 1 < titles.width()) {
        TitleSeries.Place next = TitleSeries.of(titles.level(level, to + 1));
        if (next == null || !TitleSeries.goesOn(place, next)) {
          break;
        }
        place = next;
        to++;
      }
      if (to - from > bestTo - bestFrom) {
        bestFrom = from;
        bestTo = to;
      }
      from = to;
    }
    if (bestTo - bestFrom + 1 < FEWEST_FOLDED || !isValues(table, titles, bestFrom, bestTo)) {
      return null;
    }
    TitleSeries.Place place = TitleSeries.of(titles.level(level, bestFrom));
    List<Fold.FoldName> names = new ArrayList<>();
    names.add(new Fold.FoldName(place.kind(), null));
    if (layout.unitsRow() > 0 && !table.raw().cellAt(layout.unitsRow(), bestFrom).isBlank()) {
      names.add(new Fold.FoldName("Unit", layout.unitsRow()));
    }
    return new Fold(
        titles.name(bestFrom), titles.name(bestTo), null, names, List.of("Value"), null);
  }

  /** True if no column holds texts; at least one must hold something. */
  private static boolean isValues(SourceTable table, Titles titles, int from, int to) {
    boolean any = false;
    for (int c = from; c <= to; c++) {
      int column = table.column(titles.name(c));
      ValueType type = column < 0 ? ValueType.EMPTY : table.profiles().get(column).type();
      if (type == ValueType.TEXT) {
        return false;
      }
      any |= type != ValueType.EMPTY;
    }
    return any;
  }

  /** Titles of two lines: a series above groups of columns whose own titles repeat. */
  private static Fold groups(Layout.Found layout, Titles titles) {
    int start = 0;
    while (start < titles.width() && TitleSeries.of(titles.level(0, start)) == null) {
      start++;
    }
    int size = 1;
    while (start + size < titles.width()
        && titles.level(0, start + size).equals(titles.level(0, start))) {
      size++;
    }
    int end = start;
    List<Cell> uppers = new ArrayList<>();
    while (end + size <= titles.width() && repeats(titles, start, end, size)) {
      uppers.add(titles.level(0, end));
      end += size;
    }
    if (uppers.size() < 2 || !TitleSeries.rises(uppers)) {
      return null;
    }
    List<String> values = new ArrayList<>();
    for (int c = start; c < start + size; c++) {
      values.add(titles.level(1, c).text().strip());
    }
    String kind = TitleSeries.of(uppers.get(0)).kind();
    return new Fold(
        titles.name(start),
        titles.name(end - 1),
        null,
        List.of(new Fold.FoldName(kind, layout.titleRows().get(0))),
        values,
        null);
  }

  private static boolean repeats(Titles titles, int start, int at, int size) {
    for (int i = 0; i < size; i++) {
      boolean same =
          titles.level(1, at + i).equals(titles.level(1, start + i))
              && titles.level(0, at + i).equals(titles.level(0, at));
      if (!same) {
        return false;
      }
    }
    return true;
  }

  private static List<String> fillDown(SourceTable table) {
    List<String> columns = new ArrayList<>();
    for (int c = 0; c < Math.min(GROUPING_COLUMNS, table.profiles().size()); c++) {
      ColumnProfile column = table.profiles().get(c);
      long filled = table.rowCount() - column.blank();
      boolean sparse = filled >= 2 && column.blank() * 2 > table.rowCount();
      boolean once = column.distinct() * 10L >= filled * 9;
      if (!sparse || !once || column.distinctCapped() || isBlankAtFirst(table, c)) {
        break;
      }
      columns.add(column.name());
    }
    return columns;
  }

  private static boolean isBlankAtFirst(SourceTable table, int column) {
    for (int i = 0; i < table.batches(); i++) {
      Batch batch = table.batch(i);
      if (batch.rows() > 0) {
        return batch.columns()[column].cell(0).isBlank();
      }
    }
    return true;
  }
}
