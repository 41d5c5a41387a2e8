package org.zestyporter.core.source.layout;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.cache.CellSigns;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.RowTest;
import org.zestyporter.core.source.reading.SheetPart;
import org.zestyporter.core.source.reading.SkippedLine;
import org.zestyporter.core.source.reading.Span;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.LocaleSettings;

/**
 * Tells which rows of the file are records, in one pass over the cache, and what a column holds in
 * them once grouped cells are filled down.
 */
public final class RowSelector {
  /** Why a row between the first and the last record is none. */
  public enum LeftOut {
    BLANK,
    TITLES,
    SECTION,
    PAGE,
    TOTAL,
    LINE,
    CONDITION,
    NUMBER
  }

  /** Total lines are looked for in the first columns only. */
  private static final int TOTAL_COLUMNS = 3;

  private static final int TITLES_OF_PART = 60;

  private final SourceCache cache;
  private final Titles titles;
  private final Layout.Found layout;
  private final Reading reading;
  private final LocaleSettings locale;
  private final List<SheetPart> parts;
  private final Sections sections;

  /** Columns of the sheet that are none of the table's. */
  private final BitSet omit = new BitSet();

  private final int[] testColumns;
  private final @Nullable RowFilter filter;

  /** Rows that are records, a set of row indexes for each chunk; null if all are. */
  private final BitSet[] kept;

  private final FillDown fillDown;

  private final Map<LeftOut, long[]> leftOut = new TreeMap<>();
  private long records;
  private boolean ended;
  private int blankRun;

  public RowSelector(
      SourceCache cache,
      Titles titles,
      Layout.Found layout,
      Reading reading,
      LocaleSettings locale,
      List<SheetPart> parts,
      Sections sections) {
    this.cache = cache;
    this.sections = sections;
    this.titles = titles;
    this.layout = layout;
    this.reading = reading;
    this.locale = locale;
    this.parts = parts;
    Arrays.stream(titles.present(reading.omit())).forEach(omit::set);
    List<RowTest> tests = reading.leaveOut() == null ? List.of() : reading.leaveOut();
    this.testColumns =
        tests.stream().mapToInt(t -> titles.require(t.column(), "a condition")).toArray();
    this.filter =
        reading.where() == null || reading.where().isBlank()
            ? null
            : new RowFilter(reading.where(), titles.names(), locale);
    this.kept = new BitSet[cache.chunks()];
    this.fillDown = new FillDown(cache, titles.present(reading.fillDown()));
    for (int chunk = 0; chunk < kept.length; chunk++) {
      select(chunk);
    }
  }

  private void select(int chunk) {
    long[] lines = cache.lines(chunk);
    BitSet rows = new BitSet(lines.length);
    boolean whole =
        lines.length > 0
            && lines[0] >= layout.firstRow()
            && lines[lines.length - 1] <= layout.lastRow();
    if (whole) {
      rows.set(0, lines.length);
    } else {
      for (int r = 0; r < lines.length; r++) {
        rows.set(r, lines[r] >= layout.firstRow() && lines[r] <= layout.lastRow());
      }
    }
    for (long line : layout.titleRows()) {
      clear(rows, lines, line);
    }
    clear(rows, lines, layout.unitsRow());
    dropSkipped(chunk, lines, rows);
    BitSet blank = Blanks.of(cache, chunk, rows, omit);
    dropBlank(lines, rows, blank);
    dropTitlesOfParts(chunk, lines, rows);
    dropRepeatedTitles(chunk, lines, rows);
    dropLines(LeftOut.SECTION, sections.lines(), lines, rows);
    dropLines(LeftOut.PAGE, sections.pages(), lines, rows);
    if (!Boolean.TRUE.equals(reading.totals())) {
      dropTotals(chunk, lines, rows);
    }
    fillDown.carryOn(chunk, rows);
    if (testColumns.length > 0) {
      dropTested(chunk, lines, rows);
    }
    if (filter != null) {
      dropFiltered(chunk, lines, rows);
    }
    if (reading.records() != null) {
      dropNumbers(lines, rows, reading.records());
    } else {
      records += rows.cardinality();
    }
    kept[chunk] = rows.cardinality() == lines.length ? null : rows;
  }

  private static void clear(BitSet rows, long[] lines, long line) {
    int at = Arrays.binarySearch(lines, line);
    if (at >= 0) {
      rows.clear(at);
    }
  }

  private void dropLines(LeftOut why, long[] left, long[] lines, BitSet rows) {
    for (long line : left) {
      int at = Arrays.binarySearch(lines, line);
      if (at >= 0 && rows.get(at)) {
        rows.clear(at);
        leave(why, line);
      }
    }
  }

  private void dropSkipped(int chunk, long[] lines, BitSet rows) {
    for (SkippedLine skipped : reading.skip() == null ? List.<SkippedLine>of() : reading.skip()) {
      int at = Arrays.binarySearch(lines, skipped.line());
      if (at >= 0 && rows.get(at) && firstText(chunk, at).equals(skipped.text().strip())) {
        rows.clear(at);
        leave(LeftOut.LINE, skipped.line());
      }
    }
  }

  private String firstText(int chunk, int row) {
    for (int c = 0; c < cache.width(chunk); c++) {
      if (!cache.isBlank(chunk, c) && !cache.column(chunk, c).cell(row).isBlank()) {
        return cache.column(chunk, c).cell(row).text().strip();
      }
    }
    return "";
  }

  private void leave(LeftOut why, long line) {
    long[] seen = leftOut.computeIfAbsent(why, w -> new long[] {0, line});
    seen[0]++;
  }

  private void dropBlank(long[] lines, BitSet rows, BitSet blank) {
    int stop = reading.stopAfterBlank() == null ? 0 : reading.stopAfterBlank();
    if (stop == 0) {
      for (int r = blank.nextSetBit(0); r >= 0; r = blank.nextSetBit(r + 1)) {
        leave(LeftOut.BLANK, lines[r]);
      }
      rows.andNot(blank);
      return;
    }
    for (int r = rows.nextSetBit(0); r >= 0; r = rows.nextSetBit(r + 1)) {
      boolean gap = r > 0 && lines[r] - lines[r - 1] > stop;
      if (ended || gap && records + rows.get(0, r).cardinality() > 0) {
        ended = true;
        rows.clear(r, lines.length);
        return;
      }
      if (blank.get(r)) {
        rows.clear(r);
        leave(LeftOut.BLANK, lines[r]);
        blankRun++;
        ended = blankRun >= stop;
      } else {
        blankRun = 0;
      }
    }
  }

  /** In the sheets after the first, all up to the titles that they repeat is left out. */
  private void dropTitlesOfParts(int chunk, long[] lines, BitSet rows) {
    if (parts.size() < 2 || titles.levels() == 0 || lines.length == 0) {
      return;
    }
    for (SheetPart part : parts.subList(1, parts.size())) {
      long from = part.linesBefore() + 1;
      if (lines[lines.length - 1] < from || lines[0] > from + TITLES_OF_PART) {
        continue;
      }
      long last = titlesOf(part);
      for (int r = rows.nextSetBit(0); r >= 0; r = rows.nextSetBit(r + 1)) {
        if (lines[r] >= from && lines[r] <= last) {
          rows.clear(r);
        }
      }
    }
  }

  /** Line of the titles that a sheet repeats; the line before its first if it repeats none. */
  public long titlesOf(SheetPart part) {
    long before = part.linesBefore();
    int next = parts.indexOf(part) + 1;
    long end = next == parts.size() ? Long.MAX_VALUE : parts.get(next).linesBefore();
    for (long line = before + 1; line <= Math.min(before + TITLES_OF_PART, end); line++) {
      int chunk = cache.chunkOfLine(line);
      int row = chunk == cache.chunks() ? -1 : Arrays.binarySearch(cache.lines(chunk), line);
      if (row >= 0 && isTitles(chunk, row)) {
        return line;
      }
    }
    return before;
  }

  private boolean isTitles(int chunk, int row) {
    for (int level = titles.levels() - 1; level >= 0; level--) {
      if (isTitles(chunk, row, level)) {
        return true;
      }
    }
    return false;
  }

  private boolean isTitles(int chunk, int row, int level) {
    boolean any = false;
    for (int c = 0; c < titles.width(); c++) {
      String title = titles.level(level, c).text().strip();
      boolean spread = level + 1 < titles.levels();
      String text = cache.column(chunk, c).cell(row).text().strip();
      if (!text.equalsIgnoreCase(title) && !(spread && text.isEmpty())) {
        return false;
      }
      any |= !text.isEmpty();
    }
    return any;
  }

  /** The titles again in the middle, as page breaks leave them. */
  private void dropRepeatedTitles(int chunk, long[] lines, BitSet rows) {
    for (int level = 0; level < titles.levels(); level++) {
      int first = 0;
      while (first < titles.width() && titles.level(level, first).isBlank()) {
        first++;
      }
      if (first == titles.width() || cache.isBlank(chunk, first)) {
        continue;
      }
      String title = titles.level(level, first).text().strip();
      int begins = title.isEmpty() || title.charAt(0) >= 0x80 ? -1 : title.charAt(0) | 0x20;
      if (begins >= 0 && !cache.mayBegin(chunk, first, begins)) {
        continue;
      }
      ColumnChunk column = cache.column(chunk, first);
      for (int code = 0; code < column.entries(); code++) {
        boolean other = begins >= 0 && (column.first(code) | 0x20) != begins;
        if (other || !column.entry(code).text().strip().equalsIgnoreCase(title)) {
          continue;
        }
        for (int r = rows.nextSetBit(0); r >= 0; r = rows.nextSetBit(r + 1)) {
          if (column.codes()[r] == code && isTitles(chunk, r, level)) {
            rows.clear(r);
            leave(LeftOut.TITLES, lines[r]);
          }
        }
      }
    }
  }

  /** Lines that begin with a word for a total and are filled by half at most. */
  private void dropTotals(int chunk, long[] lines, BitSet rows) {
    for (int c = 0; c < Math.min(TOTAL_COLUMNS, titles.width()); c++) {
      if (!cache.mayHold(chunk, c, CellSigns.TOTAL)) {
        continue;
      }
      ColumnChunk column = cache.column(chunk, c);
      for (int code = 0; code < column.entries(); code++) {
        Cell cell = column.entry(code);
        if (cell.kind() != Cell.Kind.TEXT || !TotalWords.begins(cell.text())) {
          continue;
        }
        for (int r = rows.nextSetBit(0); r >= 0; r = rows.nextSetBit(r + 1)) {
          boolean said = reading.lastRow() != null && lines[r] == reading.lastRow();
          if (column.codes()[r] == code && !said && isHardlyFilled(chunk, r, c)) {
            rows.clear(r);
            leave(LeftOut.TOTAL, lines[r]);
          }
        }
      }
    }
  }

  private boolean isHardlyFilled(int chunk, int row, int first) {
    long filled = 0;
    for (int c = 0; c < titles.width(); c++) {
      if (!cache.isBlank(chunk, c) && !cache.column(chunk, c).cell(row).isBlank()) {
        if (c < first) {
          return false;
        }
        filled++;
      }
    }
    String word = cache.column(chunk, first).cell(row).text();
    return TotalWords.isTotal(word, filled, layout.usual());
  }

  private void dropTested(int chunk, long[] lines, BitSet rows) {
    BitSet before = (BitSet) rows.clone();
    for (int i = 0; i < testColumns.length; i++) {
      RowTest test = reading.leaveOut().get(i);
      ColumnChunk column = fillDown.column(chunk, testColumns[i], before);
      boolean[] holds = new boolean[column.entries()];
      for (int d = 0; d < holds.length; d++) {
        holds[d] = test.holds(column.entry(d), locale);
      }
      for (int r = rows.nextSetBit(0); r >= 0; r = rows.nextSetBit(r + 1)) {
        if (holds[column.codes()[r]]) {
          rows.clear(r);
          leave(LeftOut.CONDITION, lines[r]);
        }
      }
    }
  }

  private void dropFiltered(int chunk, long[] lines, BitSet rows) {
    BitSet before = (BitSet) rows.clone();
    Map<Integer, ColumnChunk> columns = new HashMap<>();
    BitSet failing =
        filter.failing(
            lines, before, c -> columns.computeIfAbsent(c, i -> fillDown.column(chunk, i, before)));
    for (int r = failing.nextSetBit(0); r >= 0; r = failing.nextSetBit(r + 1)) {
      leave(LeftOut.CONDITION, lines[r]);
    }
    rows.andNot(failing);
  }

  private void dropNumbers(long[] lines, BitSet rows, Span span) {
    for (int r = rows.nextSetBit(0); r >= 0; r = rows.nextSetBit(r + 1)) {
      records++;
      if (!span.holds(records)) {
        rows.clear(r);
        leave(LeftOut.NUMBER, lines[r]);
      }
    }
  }

  /** Rows of a chunk that are records, as indexes into the chunk. */
  int[] rows(int chunk) {
    if (kept[chunk] == null) {
      int[] all = new int[cache.rows(chunk)];
      Arrays.setAll(all, r -> r);
      return all;
    }
    return kept[chunk].stream().toArray();
  }

  /** True if every row of the chunk is a record. */
  boolean isWhole(int chunk) {
    return kept[chunk] == null;
  }

  public int count(int chunk) {
    return kept[chunk] == null ? cache.rows(chunk) : kept[chunk].cardinality();
  }

  public boolean isRecord(int chunk, int row) {
    return kept[chunk] == null || kept[chunk].get(row);
  }

  /** A column of a chunk, over all of the chunk's rows, with grouped cells filled down. */
  ColumnChunk column(int chunk, int column) {
    return fillDown.column(chunk, column, kept[chunk]);
  }

  /** How many rows were left out for a reason, and the line of the first; null if none were. */
  public long[] leftOut(LeftOut why) {
    return leftOut.get(why);
  }

  /** All reasons that left rows out. */
  public List<LeftOut> reasons() {
    return new ArrayList<>(leftOut.keySet());
  }
}
