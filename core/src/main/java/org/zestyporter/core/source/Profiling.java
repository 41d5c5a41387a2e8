package org.zestyporter.core.source;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.zestyporter.core.source.cache.CellSigns;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.layout.OutColumns;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.ColumnProfiler;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.Votes;

/** Profiles all columns; they are shared out to the processors. */
final class Profiling {
  private final SourceCache cache;
  private final OutColumns out;
  private final Reading wanted;
  private final LocaleSettings[] locales;
  private final ColumnProfiler[] profilers;
  private final DistinctValues[] distinct;
  private Votes votes = Votes.NONE;
  private List<String> blankWords;
  private final LocaleSettings said;

  Profiling(SourceCache cache, OutColumns out, Reading wanted) {
    this(cache, out, wanted, IntStream.range(0, out.names().size()).toArray());
  }

  private Profiling(SourceCache cache, OutColumns out, Reading wanted, int[] columns) {
    this.cache = cache;
    this.out = out;
    this.locales = new LocaleSettings[out.names().size()];
    this.profilers = new ColumnProfiler[locales.length];
    this.distinct = new DistinctValues[locales.length];
    this.wanted = wanted;
    this.blankWords = wanted.blankWords();
    this.said = wanted.locale() == null ? null : wanted.locale().inCentury(wanted.century());
    LocaleSettings guess = said == null ? guess() : said;
    tally(columns, guess);
  }

  /** What one column holds, where the columns {@link #isNeeded need not} be profiled together. */
  static ColumnProfile of(SourceCache cache, OutColumns out, Reading wanted, int column) {
    Profiling alone = new Profiling(cache, out, wanted, new int[] {column});
    return alone.profile(column, alone.said);
  }

  /**
   * True if the columns have to be profiled before the rows are known: to find out how numbers and
   * dates are written, or which words stand for a blank.
   */
  static boolean isNeeded(SourceCache cache, OutColumns out, Reading wanted) {
    if (wanted.locale() == null || out.isFolded()) {
      return true;
    }
    return wanted.blankWords() == null && mayHoldBlankWords(cache, out);
  }

  private static boolean mayHoldBlankWords(SourceCache cache, OutColumns out) {
    for (int chunk = 0; chunk < cache.chunks(); chunk++) {
      OutColumns.Records records = out.records(chunk);
      for (int c = 0; c < out.names().size(); c++) {
        if (!out.mayHold(chunk, c, CellSigns.BLANK_WORD)) {
          continue;
        }
        ColumnChunk cells = out.column(chunk, c, records);
        for (int code = 0; code < cells.entries(); code++) {
          if (ColumnProfiler.mayBeBlankWord(cells.bytes(), cells.starts()[code], cells.ends()[code])
              && ColumnProfiler.isBlankWord(cells.entry(code))) {
            return true;
          }
        }
      }
    }
    return false;
  }

  /** What the first records say; if all of them say otherwise, columns are profiled again. */
  private LocaleSettings guess() {
    if (cache.chunks() == 0) {
      return LocaleSettings.DEFAULT;
    }
    OutColumns.Records records = out.records(0);
    Votes all = Votes.NONE;
    for (int c = 0; c < Math.min(50, profilers.length); c++) {
      ColumnProfiler profiler = new ColumnProfiler(LocaleSettings.DEFAULT);
      DistinctValues values = new DistinctValues();
      add(profiler, values, out.column(0, c, records), cache.lines(0), records);
      judge(profiler, values);
      all = all.plus(profiler.votes());
    }
    return locale(all, LocaleSettings.DEFAULT);
  }

  private LocaleSettings locale(Votes all, LocaleSettings otherwise) {
    return new LocaleSettings(
        all.decimal(otherwise.decimal()), all.dateOrder(otherwise.dateOrder()), wanted.century());
  }

  private void tally(int[] columns, LocaleSettings locale) {
    List<DistinctValues> counted = new ArrayList<>();
    for (int c : columns) {
      profilers[c] = new ColumnProfiler(locale);
      distinct[c] = new DistinctValues();
      counted.add(distinct[c]);
    }
    DistinctValues.Budget budget = new DistinctValues.Budget();
    for (int chunk = 0; chunk < cache.chunks(); chunk++) {
      budget.share(counted);
      int number = chunk;
      OutColumns.Records records = out.records(chunk);
      shared(columns).forEach(c -> tally(number, c, records));
    }
    shared(columns).forEach(c -> judge(profilers[c], distinct[c]));
  }

  /** The columns of a sheet by several threads; those of a fold share what they are made of. */
  private IntStream shared(int[] columns) {
    return out.isFolded() ? Arrays.stream(columns) : Arrays.stream(columns).parallel();
  }

  /** Each distinct value is judged once; those that were not kept have been judged already. */
  private static void judge(ColumnProfiler profiler, DistinctValues values) {
    values.each(
        (cell, rows, line) -> {
          byte[] text = cell.text().getBytes(StandardCharsets.UTF_8);
          profiler.add(cell.kind(), text, 0, text.length, rows, line);
        });
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
    int[] counts = new int[cells.entries()];
    int[] first = new int[counts.length];
    int[] codes = cells.codes();
    int[] rows = records.rows();
    byte[] bytes = cells.bytes();
    int[] starts = cells.starts();
    int[] ends = cells.ends();
    for (int r = 0; r < codes.length; r++) {
      if (counts[codes[r]]++ == 0) {
        first[codes[r]] = r;
      }
    }
    long[] hashes = new long[counts.length];
    for (int code = 0; code < counts.length; code++) {
      if (counts[code] > 0 && cells.isBlank(code)) {
        values.addBlank(counts[code]);
        counts[code] = 0;
      }
      hashes[code] = DistinctValues.hash(cells.kind(code), bytes, starts[code], ends[code]);
    }
    boolean[] other = new boolean[counts.length];
    boolean full = values.isFull();
    values.addKept(hashes, counts, other);
    for (int code = 0; code < counts.length; code++) {
      if (!other[code]) {
        continue;
      }
      Cell.Kind kind = cells.kind(code);
      int from = starts[code];
      int to = ends[code];
      long line = lines[rows[first[code]]];
      if (full || !values.add(hashes[code], kind, bytes, from, to, counts[code], line)) {
        profiler.add(kind, bytes, from, to, counts[code], line);
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
      // NA may be a country in one column and nothing in the next
      out.blankWords(Arrays.stream(profilers).map(p -> p.blankWords().keySet()).toList());
    }
    boolean refolded =
        out.isFolded() && Arrays.stream(profilers).anyMatch(p -> !p.blankWords().isEmpty());
    for (int c = 0; c < profilers.length; c++) {
      LocaleSettings own = said != null ? file : locale(own(c), file);
      locales[c] = own;
      boolean otherwise = !own.equals(profilers[c].locale()) && profilers[c].dependsOnLocale();
      boolean worded = wordsFound && (refolded || !profilers[c].blankWords().isEmpty());
      if (otherwise || worded) {
        tally(new int[] {c}, own);
      }
    }
    return file;
  }

  /**
   * What a column says by itself of how it is read, though others of the file may say otherwise.
   */
  private Votes own(int column) {
    Votes own = profilers[column].votes();
    boolean isOpen = own.comma() == own.point() && own.eitherSign() > 0;
    // where nothing in the file tells, it is asked
    return isOpen && votes.comma() + votes.point() > 0
        ? own.plus(SignBySize.of(distinct[column]))
        : own;
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
      target.add(profile(c, locales[c]));
    }
  }

  private ColumnProfile profile(int c, LocaleSettings locale) {
    return profilers[c].profile(out.names().get(c), out.letter(c), locale, distinct[c]);
  }

  /** The distinct cells of each column. */
  DistinctValues[] distinct() {
    return distinct;
  }

  /** Words that mean blank, found or said. */
  List<String> blankWords() {
    return blankWords;
  }

  /** What a column said about decimal sign and date order. */
  Votes votes(int column) {
    return profilers[column].votes();
  }

  /** What all columns said about decimal sign and date order. */
  Votes votes() {
    return votes;
  }
}
