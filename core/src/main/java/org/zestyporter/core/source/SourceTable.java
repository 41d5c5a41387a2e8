package org.zestyporter.core.source;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.ColumnProfiler;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.PorterException;

/**
 * A source under a reading: named columns and records, taken from the cache.
 *
 * <pre>{@code
 * try (SourceTable table = SourceReader.open(file, cacheFile, Reading.FIND)) {
 *   table.columns();              // "Reg No", "Boat name", …
 *   for (int i = 0; i < table.batches(); i++) {
 *     Batch batch = table.batch(i); // 0 to 4,096 records each, in the order of the file
 *   }
 * }
 * }</pre>
 */
public final class SourceTable implements AutoCloseable {
  private final SourceCache cache;
  private final Reading reading;
  private final List<SheetInfo> sheets;
  private final List<Evidence> evidence;
  private final List<Warning> warnings = new ArrayList<>();
  private final List<String> columns;
  private final List<ColumnProfile> profiles;
  private final List<DistinctValues> distinct;
  private final long[] recordsBefore;
  private long blankRows;

  SourceTable(
      SourceCache cache, Reading parsed, List<SheetInfo> sheets, List<Evidence> parseEvidence) {
    this.cache = cache;
    this.sheets = sheets;
    this.evidence = new ArrayList<>(parseEvidence);
    Layout.Found layout = Layout.find(cache, parsed);
    evidence.addAll(layout.evidence());
    this.recordsBefore = new long[cache.chunks() + 1];
    this.columns = names(layout);
    this.distinct = tally(layout);
    LocaleSettings locale = parsed.locale() != null ? parsed.locale() : findLocale();
    this.reading =
        new Reading(
            parsed.format(),
            parsed.encoding(),
            parsed.delimiter(),
            parsed.quote(),
            parsed.sheet(),
            layout.titleRows(),
            layout.firstRow(),
            layout.lastRow(),
            locale);
    this.profiles = new ArrayList<>();
    for (int c = 0; c < columns.size(); c++) {
      profiles.add(ColumnProfiler.profile(columns.get(c), Letters.of(c), distinct.get(c), locale));
    }
  }

  private List<String> names(Layout.Found layout) {
    int width = 0;
    for (int i = 0; i < cache.chunks(); i++) {
      width = Math.max(width, cache.width(i));
    }
    List<String> names = new ArrayList<>();
    Set<String> taken = new HashSet<>();
    for (int c = 0; c < width; c++) {
      StringBuilder title = new StringBuilder();
      for (long line : layout.titleRows()) {
        title.append(' ').append(cellAt(line, c).text().strip());
      }
      String name = title.toString().strip().replaceAll("\\s+", " ");
      if (name.isEmpty() || !taken.add(name.toLowerCase(Locale.ROOT))) {
        name = name.isEmpty() ? "Column " + Letters.of(c) : name + " (" + Letters.of(c) + ")";
        taken.add(name.toLowerCase(Locale.ROOT));
      }
      names.add(name);
    }
    return names;
  }

  private Cell cellAt(long line, int column) {
    int chunk = cache.chunkOfLine(line);
    if (chunk == cache.chunks()) {
      return Cell.BLANK;
    }
    int row = Arrays.binarySearch(cache.lines(chunk), line);
    return row < 0 ? Cell.BLANK : cache.column(chunk, column).cell(row);
  }

  private List<DistinctValues> tally(Layout.Found layout) {
    List<DistinctValues> tallies = new ArrayList<>();
    for (int c = 0; c < columns.size(); c++) {
      tallies.add(new DistinctValues());
    }
    for (int i = 0; i < cache.chunks(); i++) {
      Batch batch = select(i, layout.titleRows(), layout.firstRow(), layout.lastRow(), true);
      recordsBefore[i + 1] = recordsBefore[i] + batch.rows();
      for (int c = 0; c < columns.size(); c++) {
        tally(tallies.get(c), batch.columns()[c], batch.lines());
      }
    }
    return tallies;
  }

  private static void tally(DistinctValues values, ColumnChunk column, long[] lines) {
    int[] counts = new int[column.distinct().length];
    long[] first = new long[counts.length];
    for (int r = 0; r < lines.length; r++) {
      int code = column.codes()[r];
      if (counts[code]++ == 0) {
        first[code] = lines[r];
      }
    }
    for (int code = 0; code < counts.length; code++) {
      if (counts[code] > 0) {
        values.add(column.distinct()[code], counts[code], first[code]);
      }
    }
  }

  private Batch select(int chunk, List<Long> titles, long first, long last, boolean count) {
    ColumnChunk[] chunks = new ColumnChunk[columns.size()];
    long[] lines = cache.lines(chunk);
    boolean[] filled = new boolean[lines.length];
    for (int c = 0; c < chunks.length; c++) {
      ColumnChunk column = cache.column(chunk, c);
      chunks[c] = column;
      boolean[] blank = new boolean[column.distinct().length];
      for (int d = 0; d < blank.length; d++) {
        blank[d] = column.distinct()[d].isBlank();
      }
      for (int r = 0; r < lines.length; r++) {
        filled[r] |= !blank[column.codes()[r]];
      }
    }
    int[] rows = new int[lines.length];
    int n = 0;
    for (int r = 0; r < lines.length; r++) {
      boolean inside = lines[r] >= first && lines[r] <= last && !titles.contains(lines[r]);
      if (inside && filled[r]) {
        rows[n++] = r;
      } else if (inside && count) {
        blankRows++;
      }
    }
    if (n == lines.length) {
      return new Batch(recordsBefore[chunk], lines, chunks);
    }
    int[] picked = Arrays.copyOf(rows, n);
    for (int c = 0; c < chunks.length; c++) {
      chunks[c] = chunks[c].select(picked);
    }
    long[] pickedLines = Arrays.stream(picked).mapToLong(r -> lines[r]).toArray();
    return new Batch(recordsBefore[chunk], pickedLines, chunks);
  }

  private LocaleSettings findLocale() {
    ColumnProfiler.Votes votes = ColumnProfiler.Votes.NONE;
    for (DistinctValues values : distinct) {
      votes = votes.plus(ColumnProfiler.votes(values));
    }
    String decimal = votes.comma() > votes.point() ? "," : ".";
    if (votes.comma() + votes.point() > 0) {
      evidence.add(
          new Evidence(
              "decimal",
              ",".equals(decimal) ? "comma" : "point",
              String.format(
                  Locale.ROOT,
                  "before decimals, %,d cells have a comma and %,d a point",
                  votes.comma(),
                  votes.point())));
    }
    boolean monthFirst = votes.monthFirst() > votes.dayFirst();
    if (votes.dayFirst() + votes.monthFirst() > 0) {
      evidence.add(
          new Evidence(
              "dateOrder",
              monthFirst ? "month, day, year" : "day, month, year",
              String.format(
                  Locale.ROOT,
                  "%,d dates can only be day first, %,d only month first",
                  votes.dayFirst(),
                  votes.monthFirst())));
    } else if (votes.eitherWay() > 0) {
      evidence.add(
          new Evidence(
              "dateOrder", "day, month, year", "assumed: no date has a part greater than 12"));
      warnings.add(
          new Warning(
              0,
              "ambiguous-dates",
              "No date tells day from month. Say which comes first before you rehearse."));
    }
    return new LocaleSettings(
        decimal, monthFirst ? DateOrder.MONTH_DAY_YEAR : DateOrder.DAY_MONTH_YEAR);
  }

  /** The complete reading: nothing in it is left open. */
  public Reading reading() {
    return reading;
  }

  public List<SheetInfo> sheets() {
    return sheets;
  }

  public List<Evidence> evidence() {
    return evidence;
  }

  public List<Warning> warnings() {
    return warnings;
  }

  /** Names of the columns: their titles, or their letters where there is none. */
  public List<String> columns() {
    return columns;
  }

  /** What each column holds, over all records. */
  public List<ColumnProfile> profiles() {
    return profiles;
  }

  /** Index of a column, ignoring capitals; -1 if there is none of that name. */
  public int column(String name) {
    for (int i = 0; i < columns.size(); i++) {
      if (columns.get(i).equalsIgnoreCase(name)) {
        return i;
      }
    }
    return -1;
  }

  /** The distinct cells of a column over all records. */
  public DistinctValues distinct(int column) {
    return distinct.get(column);
  }

  /** Number of records. */
  public long rowCount() {
    return recordsBefore[cache.chunks()];
  }

  /** Blank lines between the first and the last record. */
  public long blankRows() {
    return blankRows;
  }

  /** Number of batches; some may hold no record. */
  public int batches() {
    return cache.chunks();
  }

  /** The records of one batch, in the order of the file. */
  public Batch batch(int number) {
    return select(number, reading.titleRows(), reading.firstRow(), reading.lastRow(), false);
  }

  /**
   * Number of the batch that holds a record.
   *
   * @param row index of the record, from 0
   */
  public int batchOf(long row) {
    if (row < 0 || row >= rowCount()) {
      throw PorterException.missing(
          "no-such-row", "There is no record " + (row + 1) + " among " + rowCount() + ".");
    }
    int at = Arrays.binarySearch(recordsBefore, row);
    if (at < 0) {
      return -at - 2;
    }
    while (recordsBefore[at + 1] == row) {
      at++;
    }
    return at;
  }

  /** Index of the first record at or after a line; {@link #rowCount()} if there is none. */
  public long rowOfLine(long line) {
    for (int chunk = cache.chunkOfLine(line); chunk < cache.chunks(); chunk++) {
      Batch batch = batch(chunk);
      int at = Arrays.binarySearch(batch.lines(), line);
      int row = at < 0 ? -at - 1 : at;
      if (row < batch.rows()) {
        return recordsBefore[chunk] + row;
      }
    }
    return rowCount();
  }

  /** The cells as they stand in the file, with titles, blank lines and all. */
  public SourceCache raw() {
    return cache;
  }

  @Override
  public void close() {
    try {
      cache.close();
    } catch (java.io.IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }
}
