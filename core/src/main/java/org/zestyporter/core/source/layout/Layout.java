package org.zestyporter.core.source.layout;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.zestyporter.core.source.cache.RawRow;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ValueReader;

/** Finds the titles, the units below them, the first and the last record in a sheet. */
public final class Layout {
  public static final int SEARCHED_ROWS = 200;
  private static final int TITLES_WITHIN = 100;
  private static final int LONGEST_TITLE = 120;
  private static final int COMPARED_ROWS = 30;
  private static final int COMPARED_COLUMNS = 60;
  private static final String TOTAL_WORDS =
      "(?i)\\s*(grand\\s+|sub[- ]?)?(totals?|totaal|totale?|sum|somme|summe|gesamt|zwischensumme|suma)";
  private static final Pattern TOTAL = Pattern.compile(TOTAL_WORDS + "\\b.{0,40}");
  private static final Pattern JUST_TOTAL = Pattern.compile(TOTAL_WORDS + "\\s*[:.]?\\s*");
  private static final Pattern UNIT =
      Pattern.compile(
          "(?i)[\\[(].{1,16}[\\])]|[munkcd]?m[²³23]?|ft|feet|in|inch(es)?|yd|mi|nm|kn|km/h|kg|g|t|lbs?|"
              + "l|litres?|gal|[mkg]?wh?|[mk]?va?|a|hz|h|hrs?|min|s|days?|months?|years?|%|°c|°f|bar|"
              + "€|\\$|£|eur|usd|gbp|chf|pcs|each|no\\.?|text|string|char|varchar|number|numeric|"
              + "integer|int|decimal|double|date|datetime|time|timestamp|bool(ean)?|yes/no|y/n|"
              + "(var)?char\\(\\d+\\)|decimal\\(\\d+,\\d+\\)|[dmyh./: -]{4,16}|€/.{1,8}|m/s|kwh/.{1,8}");

  /** What was found; titles may be none, a units row 0. */
  public record Found(
      List<Long> titleRows,
      long unitsRow,
      long firstRow,
      long lastRow,
      long usual,
      List<Evidence> evidence) {}

  private Layout() {}

  /** Completes what a reading leaves open. */
  public static Found find(SourceCache cache, Reading wanted, boolean namesGiven) {
    List<Evidence> evidence = new ArrayList<>();
    List<RawRow> head = RawRow.of(cache, 0, SEARCHED_ROWS, false);
    long usual = usualFill(head);
    List<Long> titles = wanted.titleRows();
    if (namesGiven) {
      titles = List.of();
    } else if (titles == null) {
      titles = titles(head, usual, evidence);
    }
    long below = titles.stream().mapToLong(Long::longValue).max().orElse(0);
    long units = 0;
    if (wanted.unitsRow() != null) {
      units = wanted.unitsRow();
    } else if (!titles.isEmpty()) {
      units = unitsRow(head, below, evidence);
    }
    long first = wanted.firstRow() != null ? wanted.firstRow() : Math.max(below, units) + 1;
    long last =
        wanted.lastRow() != null ? wanted.lastRow() : lastRow(cache, below, usual, evidence);
    return new Found(titles, units, first, last, usual, evidence);
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

  private static List<Long> titles(List<RawRow> head, long usual, List<Evidence> evidence) {
    int at = titleRow(head, usual);
    if (at < 0) {
      evidence.add(new Evidence("titles", "none", "no line at the top holds only different words"));
      return List.of();
    }
    RawRow row = head.get(at);
    List<Long> lines = new ArrayList<>(List.of(row.line()));
    if (at > 0 && isGroupedBy(head.get(at - 1), row)) {
      lines.add(0, head.get(at - 1).line());
    } else if (at + 1 < head.size() && isGroupedBy(row, head.get(at + 1))) {
      lines.add(head.get(at + 1).line());
    }
    evidence.add(
        lines.size() == 1
            ? new Evidence(
                "titles",
                "line " + row.line(),
                row.filled() + " words, and the lines below are filled like it")
            : new Evidence(
                "titles",
                "lines " + lines.get(0) + " and " + lines.get(1),
                "the upper line groups the columns of the lower one, whose words repeat"));
    return lines;
  }

  private static int titleRow(List<RawRow> rows, long usual) {
    for (int i = 0; i < Math.min(TITLES_WITHIN, rows.size()); i++) {
      RawRow row = rows.get(i);
      boolean full = row.filled() > 0 && row.filled() * 10 >= usual * 6;
      if (full && (isTitles(row) || isSeriesOfTitles(row)) && !isLabels(rows, i, usual)) {
        if (isLikeBelow(rows, i)) {
          return -1;
        }
        return i;
      }
    }
    return -1;
  }

  /**
   * True if a cell is a code of the kind that stands below it, as QH-1 above QH-2: then the line is
   * a record among others.
   */
  private static boolean isLikeBelow(List<RawRow> rows, int at) {
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
  private static String shape(String text) {
    return text.strip().replaceAll("\\p{L}+", "A").replaceAll("\\d+", "9").replaceAll("\\s+", " ");
  }

  /** A line of two words above wider lines is a label with its value, not titles. */
  private static boolean isLabels(List<RawRow> rows, int at, long usual) {
    RawRow row = rows.get(at);
    return row.filled() < usual
        && at + 1 < rows.size()
        && row.filled() <= 2
        && rows.get(at + 1).filled() > row.filled();
  }

  private static boolean isTitles(RawRow row) {
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

  private static boolean isWord(Cell cell) {
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

  /** True if the upper line's words stand above groups of columns, and the lower one's repeat. */
  private static boolean isGroupedBy(RawRow upper, RawRow lower) {
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

  private static long lastRow(SourceCache cache, long titles, long usual, List<Evidence> evidence) {
    for (int chunk = cache.chunks() - 1; chunk >= 0; chunk--) {
      List<RawRow> rows =
          RawRow.of(cache, chunk, SEARCHED_ROWS, true).stream()
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
        if (isTotal(row, usual)) {
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

  static boolean isTotal(RawRow row, long usual) {
    return row.filled() < usual && isTotal(row.firstText());
  }

  static boolean isTotal(String text) {
    int at = 0;
    while (at < text.length() && text.charAt(at) == ' ') {
      at++;
    }
    return at < text.length() && mayBeTotal(text.charAt(at)) && TOTAL.matcher(text).matches();
  }

  /** True if a word for a total can begin with a letter. */
  static boolean mayBeTotal(int letter) {
    return letter > 0 && "tgsz".indexOf(letter | 0x20) >= 0;
  }

  /** True if a line that begins so is a total, seeing how many of the usual cells it has filled. */
  static boolean isTotal(String text, long filled, long usual) {
    return JUST_TOTAL.matcher(text).matches() ? filled < usual : filled * 2 <= usual;
  }
}
