package org.zestyporter.core.source.layout;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.cache.RawRow;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetMarks;
import org.zestyporter.core.value.Cell;

/** Finds the titles, the units below them, the first and the last record in a sheet. */
public final class Layout {
  public static final int SEARCHED_ROWS = 200;
  private static final int COMPARED_ROWS = 30;
  private static final int SHOWN_WORDS = 4;

  /** How many times longer than the first a table must be to be taken instead. */
  private static final int LONGER = 3;

  private static final Pattern UNIT =
      Pattern.compile(
          "(?i)[\\[(].{1,16}[\\])]|[munkcd]?m[²³23]?|ft|feet|in|inch(es)?|yd|mi|nm|kn|km/h|kg|g|t|lbs?|"
              + "l|litres?|gal|[mkg]?wh?|[mk]?va?|a|hz|h|hrs?|min|s|days?|months?|years?|%|°c|°f|bar|"
              + "€|\\$|£|eur|usd|gbp|chf|pcs|each|no\\.?|text|string|char|varchar|number|numeric|"
              + "integer|int|decimal|double|date|datetime|time|timestamp|bool(ean)?|yes/no|y/n|"
              + "(var)?char\\(\\d+\\)|decimal\\(\\d+,\\d+\\)|[dmyh./: -]{4,16}|€/.{1,8}|m/s|kwh/.{1,8}");

  /**
   * What was found.
   *
   * @param titleRows lines of the titles; empty if there are none
   * @param unitsRow line of the units; 0 if there is none
   * @param usual how many cells most lines have filled
   * @param others other tables of the sheet
   */
  public record Found(
      List<Long> titleRows,
      long unitsRow,
      long firstRow,
      long lastRow,
      long usual,
      List<OtherTable> others,
      List<Evidence> evidence) {

    boolean isInside(long line) {
      return line >= firstRow && line <= lastRow && !titleRows.contains(line) && line != unitsRow;
    }
  }

  /**
   * A table that stands beside the one that is read.
   *
   * @param titles line of its titles
   * @param words the titles
   * @param lines how many lines it takes below them
   * @param omit columns to leave out to read it; null if it has all columns to itself
   */
  public record OtherTable(
      long titles, List<String> words, long lines, @Nullable List<String> omit) {}

  private Layout() {}

  /** Completes what a reading leaves open. */
  public static Found find(
      SourceCache cache, Reading wanted, boolean namesGiven, SheetMarks marks) {
    List<Evidence> evidence = new ArrayList<>();
    List<RawRow> head = RawRow.of(cache, 0, SEARCHED_ROWS, false);
    long usual = usualFill(head);
    if (namesGiven) {
      return completed(cache, wanted, List.of(), null, usual, List.of(), evidence);
    }
    List<Evidence> forTitles = new ArrayList<>();
    List<Long> first = new TitleFinder(head, usual, marks).find(forTitles);
    List<Blocks.Start> starts = starts(cache, head, first, marks);
    List<Long> titles = wanted.titleRows();
    if (titles == null) {
      titles = first;
      Long largest = largest(starts, cache.lastLine());
      if (largest != null) {
        titles = List.of(largest);
        forTitles.clear();
        forTitles.add(
            new Evidence(
                "titles",
                "line " + largest,
                "it begins the largest of " + starts.size() + " tables on the sheet"));
      }
      evidence.addAll(forTitles);
    }
    long last = titles.stream().mapToLong(Long::longValue).max().orElse(0);
    Blocks.Start next =
        starts.stream().filter(s -> s.titles() > last && last > 0).findFirst().orElse(null);
    List<OtherTable> others = new ArrayList<>();
    for (int i = 0; i < starts.size(); i++) {
      long start = starts.get(i).titles();
      long end = i + 1 < starts.size() ? starts.get(i + 1).first() - 1 : cache.lastLine();
      if (!titles.contains(start)) {
        others.add(new OtherTable(start, words(cache, start), end - start, null));
      }
    }
    return completed(cache, wanted, titles, next, usual, others, evidence);
  }

  private static Found completed(
      SourceCache cache,
      Reading wanted,
      List<Long> titles,
      Blocks.@Nullable Start next,
      long usual,
      List<OtherTable> others,
      List<Evidence> evidence) {
    long below = titles.stream().mapToLong(Long::longValue).max().orElse(0);
    long units = 0;
    if (wanted.unitsRow() != null) {
      units = wanted.unitsRow();
    } else if (!titles.isEmpty()) {
      units = unitsRow(RawRow.of(cache, 0, SEARCHED_ROWS, false), below, evidence);
    }
    long first = wanted.firstRow() != null ? wanted.firstRow() : Math.max(below, units) + 1;
    long last =
        wanted.lastRow() != null ? wanted.lastRow() : lastRow(cache, below, next, usual, evidence);
    return new Found(titles, units, first, last, usual, others, evidence);
  }

  /** The first lines of the titles of all tables of the sheet; none if there is but one. */
  private static List<Blocks.Start> starts(
      SourceCache cache, List<RawRow> head, List<Long> titles, SheetMarks marks) {
    if (titles.isEmpty()) {
      return List.of();
    }
    long last = titles.get(titles.size() - 1);
    List<RawRow> body = head.stream().filter(r -> r.line() > last).limit(COMPARED_ROWS).toList();
    RawRow row = head.stream().filter(r -> r.line() == last).findFirst().orElseThrow();
    List<Blocks.Start> further = new Blocks(cache, body, row, marks).below(last);
    List<Blocks.Start> all = new ArrayList<>();
    if (!further.isEmpty()) {
      all.add(new Blocks.Start(titles.get(0), titles.get(0)));
      all.addAll(further);
    }
    return all;
  }

  /** Where a further table begins that is far longer than the first; null if none is. */
  private static @Nullable Long largest(List<Blocks.Start> starts, long lastLine) {
    Long best = null;
    long most = 0;
    for (int i = 0; i < starts.size(); i++) {
      long end = i + 1 < starts.size() ? starts.get(i + 1).first() : lastLine + 1;
      long lines = end - starts.get(i).first();
      if (i == 0 || lines > most * LONGER) {
        most = lines;
        best = i == 0 ? null : starts.get(i).titles();
      }
    }
    return best;
  }

  private static List<String> words(SourceCache cache, long line) {
    List<String> words = new ArrayList<>();
    for (int c = 0; c < cache.width() && words.size() < SHOWN_WORDS; c++) {
      String text = cache.cellAt(line, c).text().strip();
      if (!text.isEmpty()) {
        words.add(text);
      }
    }
    return words;
  }

  /** The number of cells that most rows have filled. */
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

  private static long unitsRow(List<RawRow> head, long titles, List<Evidence> evidence) {
    for (RawRow row : head) {
      if (row.line() <= titles || row.filled() == 0) {
        continue;
      }
      List<Cell> cells = row.cells().stream().filter(c -> !c.isBlank()).toList();
      long units =
          cells.stream()
              .filter(c -> c.kind() == Cell.Kind.TEXT && UNIT.matcher(c.text().strip()).matches())
              .count();
      boolean isUnits = units * 10 >= cells.size() * 8L && isUnlikeBelow(head, row);
      if (isUnits) {
        evidence.add(
            new Evidence(
                "unitsRow",
                "line " + row.line(),
                "holds units or types, such as “" + row.firstText().strip() + "”, and no record"));
        return row.line();
      }
      return 0;
    }
    return 0;
  }

  /** True if the rows below hold something else in the row's columns. */
  private static boolean isUnlikeBelow(List<RawRow> head, RawRow row) {
    int at = head.indexOf(row);
    for (int i = at + 1; i < Math.min(head.size(), at + 4); i++) {
      for (int c = 0; c < row.cells().size(); c++) {
        Cell cell = row.cell(c);
        if (!cell.isBlank() && cell.equals(head.get(i).cell(c))) {
          return false;
        }
      }
    }
    return at + 1 < head.size();
  }

  private static long lastRow(
      SourceCache cache,
      long titles,
      Blocks.@Nullable Start next,
      long usual,
      List<Evidence> evidence) {
    if (next != null) {
      evidence.add(
          new Evidence(
              "lastRow",
              "before line " + next.first(),
              "line "
                  + next.titles()
                  + " begins another table: “"
                  + String.join("”, “", words(cache, next.titles()))
                  + "”"));
    }
    long before = next == null ? Long.MAX_VALUE : next.first();
    for (int chunk = cache.chunks() - 1; chunk >= 0; chunk--) {
      int at = Arrays.binarySearch(cache.lines(chunk), before);
      int end = at < 0 ? -at - 1 : at;
      List<RawRow> rows =
          RawRow.range(cache, chunk, Math.max(0, end - SEARCHED_ROWS), end).stream()
              .sorted(Comparator.comparingLong(r -> -r.line()))
              .toList();
      for (int i = 0; i < rows.size(); i++) {
        RawRow row = rows.get(i);
        if (row.filled() == 0) {
          continue;
        }
        if (row.line() <= titles) {
          return Math.max(row.line(), titles);
        }
        if (TotalWords.begins(row, usual)) {
          evidence.add(
              new Evidence(
                  "lastRow",
                  "before line " + row.line(),
                  "line "
                      + row.line()
                      + " begins “"
                      + row.firstText().strip()
                      + "” and is hardly filled"));
          return row.line() - 1;
        }
        if (isFootnote(rows, i, usual)) {
          evidence.add(
              new Evidence(
                  "lastRow",
                  "before line " + row.line(),
                  "what stands below a gap at the end is one note: “" + shortened(row) + "”"));
          continue;
        }
        return row.line();
      }
    }
    return titles;
  }

  private static String shortened(RawRow row) {
    String text = row.firstText().strip();
    return text.length() > 40 ? text.substring(0, 40) + "…" : text;
  }

  /** One cell of words below a blank line, where records have four or more. */
  private static boolean isFootnote(List<RawRow> fromEnd, int at, long usual) {
    RawRow row = fromEnd.get(at);
    if (usual < 4 || row.filled() != 1 || !row.firstText().strip().contains(" ")) {
      return false;
    }
    if (at + 1 == fromEnd.size()) {
      return false;
    }
    RawRow above = fromEnd.get(at + 1);
    return above.filled() == 0
        || row.line() - above.line() > 1
        || above.filled() == 1 && isFootnote(fromEnd, at + 1, usual);
  }
}
