package org.zestyporter.core.source;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.ValueReader;

/** Finds the titles, the first and the last record in a sheet. */
final class Layout {
  private static final int SEARCHED_ROWS = 200;
  private static final Pattern TOTAL =
      Pattern.compile("(?i)\\s*(grand\\s+)?(totals?|sum|summe|gesamt)\\b.*");

  /** What was found; titles may be none. */
  record Found(List<Long> titleRows, long firstRow, long lastRow, List<Evidence> evidence) {}

  private record RawRow(long line, List<Cell> cells) {
    long filled() {
      return cells.stream().filter(c -> !c.isBlank()).count();
    }
  }

  private Layout() {}

  /** Completes what a reading leaves open. */
  static Found find(SourceCache cache, Reading wanted) {
    List<Evidence> evidence = new ArrayList<>();
    List<RawRow> head = rows(cache, 0);
    long usual = usualFill(head);
    List<Long> titles = wanted.titleRows();
    if (titles == null) {
      RawRow row = titleRow(head, usual);
      titles = row == null ? List.of() : List.of(row.line());
      evidence.add(
          row == null
              ? new Evidence("titles", "none", "no line at the top holds only different words")
              : new Evidence(
                  "titles",
                  "line " + row.line(),
                  row.filled() + " words, and the lines below are filled like it"));
    }
    long below = titles.stream().mapToLong(Long::longValue).max().orElse(0);
    long first = wanted.firstRow() != null ? wanted.firstRow() : below + 1;
    long last =
        wanted.lastRow() != null ? wanted.lastRow() : lastRow(cache, below, usual, evidence);
    return new Found(titles, first, last, evidence);
  }

  private static long usualFill(List<RawRow> rows) {
    Map<Long, Integer> fills = new HashMap<>();
    for (RawRow row : rows) {
      if (row.filled() > 0) {
        fills.merge(row.filled(), 1, Integer::sum);
      }
    }
    return fills.entrySet().stream()
        .max(Map.Entry.<Long, Integer>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
        .map(Map.Entry::getKey)
        .orElse(0L);
  }

  private static RawRow titleRow(List<RawRow> rows, long usual) {
    for (RawRow row : rows.subList(0, Math.min(50, rows.size()))) {
      if (row.filled() > 0 && row.filled() * 10 >= usual * 6 && isTitles(row)) {
        return row;
      }
    }
    return null;
  }

  private static boolean isTitles(RawRow row) {
    Set<String> seen = new HashSet<>();
    for (Cell cell : row.cells()) {
      if (cell.isBlank()) {
        continue;
      }
      String text = cell.text().strip();
      boolean word =
          cell.kind() == Cell.Kind.TEXT
              && text.length() <= 120
              && text.codePoints().anyMatch(Character::isLetter)
              && text.indexOf('@') < 0
              && ValueReader.date(text, DateOrder.DAY_MONTH_YEAR, "20")
                  instanceof org.zestyporter.core.value.Problem;
      if (!word) {
        return false;
      }
      seen.add(text.toLowerCase(java.util.Locale.ROOT));
    }
    // titles may repeat now and then, the words of a record's choices repeat often
    return seen.size() * 2 >= row.filled();
  }

  private static long lastRow(SourceCache cache, long titles, long usual, List<Evidence> evidence) {
    for (int chunk = cache.chunks() - 1; chunk >= 0; chunk--) {
      List<RawRow> rows = rows(cache, chunk);
      for (int i = rows.size() - 1; i >= 0; i--) {
        RawRow row = rows.get(i);
        if (row.filled() == 0) {
          continue;
        }
        if (row.line() > titles && isTotal(row, usual)) {
          evidence.add(
              new Evidence(
                  "lastRow",
                  "before line " + row.line(),
                  "line " + row.line() + " begins “" + firstText(row) + "” and is hardly filled"));
          return row.line() - 1;
        }
        return row.line();
      }
    }
    return 0;
  }

  private static boolean isTotal(RawRow row, long usual) {
    return row.filled() < usual && TOTAL.matcher(firstText(row)).matches();
  }

  private static String firstText(RawRow row) {
    return row.cells().stream().filter(c -> !c.isBlank()).findFirst().map(Cell::text).orElse("");
  }

  private static List<RawRow> rows(SourceCache cache, int chunk) {
    List<RawRow> rows = new ArrayList<>();
    if (chunk >= cache.chunks()) {
      return rows;
    }
    long[] lines = cache.lines(chunk);
    int from = chunk == 0 ? 0 : Math.max(0, lines.length - SEARCHED_ROWS);
    int to =
        chunk == 0 && cache.chunks() > 1 ? Math.min(lines.length, SEARCHED_ROWS) : lines.length;
    for (int r = from; r < to; r++) {
      List<Cell> cells = new ArrayList<>();
      for (int c = 0; c < cache.width(chunk); c++) {
        cells.add(cache.column(chunk, c).cell(r));
      }
      rows.add(new RawRow(lines[r], cells));
    }
    return rows;
  }
}
