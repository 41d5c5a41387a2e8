package org.zestyporter.core.source;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.ColumnProfiler;
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
 *     Batch batch = table.batch(i); // its records, in the order of the file
 *   }
 * }
 * }</pre>
 */
public final class SourceTable implements AutoCloseable {
  private final SourceCache cache;
  private final Reading reading;
  private final SourceReader.Parsed parsed;
  private final List<Evidence> evidence;
  private final List<Warning> warnings;
  private final Titles titles;
  private final RowSelector selector;
  private final OutColumns out;
  private final DistinctValues[] distinct;
  private final List<ColumnProfile> profiles = new ArrayList<>();
  private final Proposals proposals;
  private final long[] recordsBefore;

  SourceTable(SourceCache cache, SourceReader.Parsed parsed) {
    this.cache = cache;
    this.parsed = parsed;
    this.evidence = new ArrayList<>(parsed.evidence());
    Reading wanted = parsed.reading();
    Layout.Found layout = Layout.find(cache, wanted, !parsed.names().isEmpty());
    evidence.addAll(layout.evidence());
    Map<String, String> renamed = wanted.renamed() == null ? Map.of() : wanted.renamed();
    this.titles = new Titles(cache, layout.titleRows(), parsed.names(), renamed);
    LocaleSettings forTests = wanted.locale() == null ? LocaleSettings.DEFAULT : wanted.locale();
    this.selector = new RowSelector(cache, titles, layout, wanted, forTests, parsed.parts());
    this.out = new OutColumns(cache, titles, selector, layout, wanted, parsed.parts());
    if (wanted.blankWords() != null) {
      out.blankWords(wanted.blankWords());
    }
    Profiling profiling = new Profiling(wanted);
    this.distinct = profiling.distinct;
    LocaleSettings locale = profiling.settle();
    // a fold makes no record of a word for blank, so the words come first
    this.recordsBefore = new long[cache.chunks() + 1];
    for (int i = 0; i < cache.chunks(); i++) {
      int count = out.isFolded() ? out.records(i).count() : selector.count(i);
      recordsBefore[i + 1] = recordsBefore[i] + count;
    }
    profiling.profile(profiles);
    this.reading = complete(wanted, layout, locale, profiling.blankWords);
    Findings findings = new Findings(this, layout, parsed, wanted, profiling.votes);
    evidence.addAll(findings.evidence());
    this.warnings = findings.warnings();
    this.proposals = Proposals.find(this, layout, titles);
  }

  private static Reading complete(
      Reading wanted, Layout.Found layout, LocaleSettings locale, List<String> blankWords) {
    return wanted.with(
        b ->
            b.titleRows(layout.titleRows())
                .unitsRow(layout.unitsRow())
                .firstRow(layout.firstRow())
                .lastRow(layout.lastRow())
                .blankWords(blankWords)
                .locale(locale));
  }

  /** Profiles all columns; they are shared out to the processors. */
  private final class Profiling {
    private final Reading wanted;
    private final LocaleSettings[] locales = new LocaleSettings[out.names().size()];
    private final ColumnProfiler[] profilers = new ColumnProfiler[out.names().size()];
    private final DistinctValues[] distinct = new DistinctValues[profilers.length];
    private final DistinctValues.Budget budget = new DistinctValues.Budget();
    private ColumnProfiler.Votes votes = ColumnProfiler.Votes.NONE;
    private List<String> blankWords;
    private final LocaleSettings said;

    Profiling(Reading wanted) {
      this.wanted = wanted;
      this.blankWords = wanted.blankWords();
      this.said = wanted.locale() == null ? null : wanted.locale().inCentury(wanted.century());
      LocaleSettings guess = said == null ? guess() : said;
      tally(IntStream.range(0, profilers.length).toArray(), guess);
    }

    /** What the first records say; if all of them say otherwise, columns are profiled again. */
    private LocaleSettings guess() {
      if (cache.chunks() == 0) {
        return LocaleSettings.DEFAULT;
      }
      OutColumns.Records records = out.records(0);
      ColumnProfiler.Votes all = ColumnProfiler.Votes.NONE;
      for (int c = 0; c < Math.min(50, profilers.length); c++) {
        ColumnProfiler profiler = new ColumnProfiler(LocaleSettings.DEFAULT);
        DistinctValues values = new DistinctValues();
        add(profiler, values, out.column(0, c, records), cache.lines(0), records);
        values.tallies().forEach((cell, tally) -> profiler.add(cell, tally.rows(), tally.line()));
        all = all.plus(profiler.votes());
      }
      return locale(all, LocaleSettings.DEFAULT);
    }

    private LocaleSettings locale(ColumnProfiler.Votes all, LocaleSettings otherwise) {
      return new LocaleSettings(
          all.decimal(otherwise.decimal()), all.dateOrder(otherwise.dateOrder()), wanted.century());
    }

    private void tally(int[] columns, LocaleSettings locale) {
      for (int c : columns) {
        profilers[c] = new ColumnProfiler(locale);
        distinct[c] = new DistinctValues(budget);
      }
      if (out.isFolded()) {
        for (int chunk = 0; chunk < cache.chunks(); chunk++) {
          OutColumns.Records records = out.records(chunk);
          for (int c : columns) {
            tally(chunk, c, records);
          }
        }
        for (int c : columns) {
          judge(c);
        }
        return;
      }
      Arrays.stream(columns)
          .parallel()
          .forEach(
              c -> {
                for (int chunk = 0; chunk < cache.chunks(); chunk++) {
                  tally(chunk, c, out.records(chunk));
                }
                judge(c);
              });
    }

    /** Each distinct value is judged once; those that were not kept have been judged already. */
    private void judge(int column) {
      distinct[column]
          .tallies()
          .forEach((cell, tally) -> profilers[column].add(cell, tally.rows(), tally.line()));
    }

    private void tally(int chunk, int column, OutColumns.Records records) {
      if (records.count() > 0) {
        ColumnChunk cells = out.column(chunk, column, records);
        add(profilers[column], distinct[column], cells, cache.lines(chunk), records);
      }
    }

    private static void add(
        ColumnProfiler profiler,
        DistinctValues values,
        ColumnChunk cells,
        long[] lines,
        OutColumns.Records records) {
      int[] counts = new int[cells.distinct().length];
      int[] first = new int[counts.length];
      int[] codes = cells.codes();
      for (int r = 0; r < codes.length; r++) {
        if (counts[codes[r]]++ == 0) {
          first[codes[r]] = r;
        }
      }
      for (int code = 0; code < counts.length; code++) {
        if (counts[code] > 0) {
          long line = lines[records.rows()[first[code]]];
          if (!values.add(cells.distinct()[code], counts[code], line)) {
            profiler.add(cells.distinct()[code], counts[code], line);
          }
        }
      }
    }

    /** The locale of the file; columns that were judged in another one are judged again. */
    LocaleSettings settle() {
      for (ColumnProfiler profiler : profilers) {
        votes = votes.plus(profiler.votes());
      }
      LocaleSettings file = said != null ? said : locale(votes, LocaleSettings.DEFAULT);
      boolean wordsFound = blankWords == null;
      if (wordsFound) {
        blankWords = findBlankWords();
        out.blankWords(blankWords);
      }
      boolean refolded = out.isFolded() && !blankWords.isEmpty();
      for (int c = 0; c < profilers.length; c++) {
        LocaleSettings own = said != null ? file : locale(profilers[c].votes(), file);
        locales[c] = own;
        boolean otherwise = !own.equals(profilers[c].locale()) && profilers[c].dependsOnLocale();
        boolean worded = wordsFound && (refolded || !profilers[c].blankWords().isEmpty());
        if (otherwise || worded) {
          tally(new int[] {c}, own);
        }
      }
      return file;
    }

    /** Words that mean blank in every column that has them. */
    private List<String> findBlankWords() {
      Map<String, Integer> found = new LinkedHashMap<>();
      for (ColumnProfiler profiler : profilers) {
        profiler.blankWords().keySet().forEach(w -> found.merge(w, 1, Integer::sum));
      }
      for (ColumnProfiler profiler : profilers) {
        profiler.wordsThatMayBeValues().forEach(found::remove);
      }
      return List.copyOf(found.keySet());
    }

    void profile(List<ColumnProfile> target) {
      for (int c = 0; c < profilers.length; c++) {
        String name = out.names().get(c);
        target.add(profilers[c].profile(name, out.letter(c), locales[c], distinct[c]));
      }
    }
  }

  /** The complete reading: nothing in it is left open. */
  public Reading reading() {
    return reading;
  }

  public List<SheetInfo> sheets() {
    return parsed.sheets();
  }

  /** Files of the archive that can be tables; empty if the source is none. */
  public List<String> entries() {
    return parsed.entries();
  }

  public List<Evidence> evidence() {
    return evidence;
  }

  public List<Warning> warnings() {
    return warnings;
  }

  /** What could be done with the file and is not yet. */
  public Proposals proposals() {
    return proposals;
  }

  /** Names of the columns: their titles, or their letters where there is none. */
  public List<String> columns() {
    return out.names();
  }

  /** The columns of the sheet as the file has them, before anything is folded or left out. */
  public List<ColumnInFile> columnsInFile() {
    return IntStream.range(0, titles.width())
        .mapToObj(c -> new ColumnInFile(titles.name(c), titles.title(c), Letters.of(c)))
        .toList();
  }

  /**
   * A column of the sheet.
   *
   * @param name the name by which the plan knows it
   * @param title its title in the file, empty if it has none
   */
  public record ColumnInFile(String name, String title, String letter) {}

  /** What each column holds, over all records. */
  public List<ColumnProfile> profiles() {
    return profiles;
  }

  /** The locale in which a column's texts are read. */
  public LocaleSettings locale(int column) {
    return column < 0 ? reading.locale() : profiles.get(column).locale();
  }

  /** Index of a column, ignoring capitals; -1 if there is none of that name. */
  public int column(String name) {
    return out.find(name);
  }

  /** The distinct cells of a column over all records. */
  public DistinctValues distinct(int column) {
    return distinct[column];
  }

  /** Number of records. */
  public long rowCount() {
    return recordsBefore[cache.chunks()];
  }

  /** Blank lines between the first and the last record. */
  public long blankRows() {
    long[] blank = selector.leftOut(RowSelector.LeftOut.BLANK);
    return blank == null ? 0 : blank[0];
  }

  RowSelector selector() {
    return selector;
  }

  /** True if no row holds anything. */
  boolean isBlank() {
    return rowCount() == 0
        && selector.reasons().stream().allMatch(RowSelector.LeftOut.BLANK::equals);
  }

  /** True if the row of a line is a record. */
  public boolean isRecord(long line) {
    int chunk = cache.chunkOfLine(line);
    int row = chunk == cache.chunks() ? -1 : Arrays.binarySearch(cache.lines(chunk), line);
    return row >= 0 && selector.isRecord(chunk, row);
  }

  /** Sheet of a line where several are read as one; null if only one is. */
  public SheetPart part(long line) {
    SheetPart found = null;
    for (SheetPart part : parsed.parts()) {
      found = line > part.linesBefore() ? part : found;
    }
    return parsed.parts().size() > 1 ? found : null;
  }

  /** Number of batches; some may hold no record. */
  public int batches() {
    return cache.chunks();
  }

  /** The records of one batch, in the order of the file. */
  public Batch batch(int number) {
    OutColumns.Records records = out.records(number);
    ColumnChunk[] columns = new ColumnChunk[out.names().size()];
    for (int c = 0; c < columns.length; c++) {
      columns[c] = out.column(number, c, records);
    }
    long[] lines = cache.lines(number);
    if (!records.whole()) {
      long[] all = lines;
      lines = Arrays.stream(records.rows()).mapToLong(r -> all[r]).toArray();
    }
    return new Batch(recordsBefore[number], lines, columns);
  }

  /** The cells of one column in the records of one batch. */
  public ColumnChunk cells(int batch, int column) {
    return out.column(batch, column, out.records(batch));
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
      long[] lines = cache.lines(chunk);
      int[] rows = out.records(chunk).rows();
      for (int i = 0; i < rows.length; i++) {
        if (lines[rows[i]] >= line) {
          return recordsBefore[chunk] + i;
        }
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
