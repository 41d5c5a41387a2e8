package org.zestyporter.core.source;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.layout.Beside;
import org.zestyporter.core.source.layout.Layout;
import org.zestyporter.core.source.layout.OutColumns;
import org.zestyporter.core.source.layout.RowSelector;
import org.zestyporter.core.source.layout.Sections;
import org.zestyporter.core.source.layout.Titles;
import org.zestyporter.core.source.reading.CellFormat;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Letters;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetInfo;
import org.zestyporter.core.source.reading.SheetPart;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Lately;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.Softly;
import org.zestyporter.core.value.ValueType;

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
public final class SourceTable implements Columns, Rows, AutoCloseable {
  private static final int COMBINATIONS_KEPT = 6;

  /** Columns that are profiled one by one. */
  private static final int FEW = 4;

  private final SourceCache cache;
  private final Reading reading;
  private final SourceReader.Parsed parsed;
  private final List<Evidence> evidence;
  private final Titles titles;
  private final Sections sections;
  private final RowSelector selector;
  private final @Nullable Beside beside;
  private final OutColumns out;
  private final Layout.Found layout;

  /** What was found out first, until somebody asks; null if the columns had not to be profiled. */
  private @Nullable Profiling first;

  private boolean isProfiledFirst;

  /** What takes much memory is found out again where that was short. */
  private final Softly<Profiling> profiling = new Softly<>();

  private final Softly<Profiled> profiled = new Softly<>();

  /** The types of columns of which nothing else was asked. */
  private final Map<Integer, ValueType> types = new HashMap<>();

  private @Nullable Judged judged;
  private final long[] recordsBefore;
  private final Corrections corrections;

  /** The file as it stands; null if this is it. */
  private final @Nullable SourceTable uncorrected;

  private final Softly<DistinctValues[]> correctedValues = new Softly<>();

  /** The combinations that were asked for last; more would take too much memory. */
  private final Lately<List<Integer>, Combinations> combinations = new Lately<>(COMBINATIONS_KEPT);

  /** What the columns hold: found out once somebody asks. */
  private record Profiled(
      DistinctValues[] distinct, List<ColumnProfile> profiles, List<Ambiguity> ambiguities) {}

  /** What follows from it. */
  private record Judged(List<Evidence> evidence, List<Warning> warnings, Proposals proposals) {}

  SourceTable(SourceCache cache, SourceReader.Parsed parsed) {
    this.cache = cache;
    this.corrections = Corrections.NONE;
    this.uncorrected = null;
    this.parsed = parsed;
    this.evidence = new ArrayList<>(parsed.evidence());
    Reading wanted = parsed.reading();
    this.layout = Layout.find(cache, wanted, !parsed.names().isEmpty(), parsed.marks());
    evidence.addAll(layout.evidence());
    Map<String, String> renamed = wanted.renamed() == null ? Map.of() : wanted.renamed();
    this.titles = new Titles(cache, layout.titleRows(), parsed.names(), renamed, parsed.marks());
    this.sections = new Sections(cache, layout, wanted, parsed.marks(), parsed.parts().size() > 1);
    LocaleSettings forTests = wanted.locale() == null ? LocaleSettings.DEFAULT : wanted.locale();
    RowSelector all =
        new RowSelector(
            cache, titles, layout, wanted.withOmit(null), forTests, parsed.parts(), sections);
    this.beside =
        wanted.fold() == null && titles.levels() > 0 ? new Beside(cache, titles, all) : null;
    List<String> found =
        wanted.omit() != null || beside == null ? List.of() : beside.omitted(evidence);
    Reading kept = wanted.omit() == null ? wanted.withOmit(found) : wanted;
    this.selector =
        kept.omit().isEmpty()
            ? all
            : new RowSelector(cache, titles, layout, kept, forTests, parsed.parts(), sections);
    this.out = new OutColumns(cache, titles, selector, layout, kept, parsed.parts(), sections);
    if (wanted.blankWords() != null) {
      out.blankWords(wanted.blankWords());
    }
    LocaleSettings locale;
    List<String> blankWords;
    this.isProfiledFirst = Profiling.isNeeded(cache, out, wanted);
    if (isProfiledFirst) {
      this.first = new Profiling(cache, out, wanted);
      locale = first.settle();
      blankWords = first.blankWords();
    } else {
      locale = wanted.locale().inCentury(wanted.century());
      blankWords = wanted.blankWords() == null ? List.of() : wanted.blankWords();
    }
    // a fold makes no record of a word for blank, so the words come first
    this.recordsBefore = new long[cache.chunks() + 1];
    for (int i = 0; i < cache.chunks(); i++) {
      int count = out.isFolded() ? out.records(i).count() : selector.count(i);
      recordsBefore[i + 1] = recordsBefore[i] + count;
    }
    this.reading = complete(kept, locale, blankWords);
  }

  private synchronized Profiling profiling() {
    return profiling.get(
        () -> {
          Profiling found = first == null ? profiledAgain() : first;
          first = null;
          return found;
        });
  }

  private Profiling profiledAgain() {
    if (isProfiledFirst) {
      // the columns themselves know by now which words are blank
      return new SourceTable(cache, parsed).profiling();
    }
    Profiling again = new Profiling(cache, out, parsed.reading());
    again.settle();
    return again;
  }

  /** Lets go of what is found out again, as when memory is short. */
  synchronized void forget() {
    first = null;
    profiling.forget();
    profiled.forget();
    correctedValues.forget();
  }

  private synchronized Profiled profiled() {
    return profiled.get(
        () -> {
          Profiling of = profiling();
          List<ColumnProfile> profiles = new ArrayList<>();
          of.profile(profiles);
          List<Ambiguity> ambiguities = Ambiguity.find(profiles, of, parsed.reading());
          return new Profiled(of.distinct(), profiles, ambiguities);
        });
  }

  private synchronized Judged judged() {
    if (judged == null) {
      Profiling of = profiling();
      Findings findings = new Findings(this, layout, parsed, parsed.reading(), of.votes());
      List<Evidence> all = new ArrayList<>(evidence);
      all.addAll(findings.evidence());
      judged = new Judged(all, findings.warnings(), Proposals.find(this, layout, titles, others()));
    }
    return judged;
  }

  /** The tables that stand below or beside the one that is read. */
  private List<Layout.OtherTable> others() {
    List<Layout.OtherTable> others = new ArrayList<>(layout.others());
    if (beside != null) {
      others.addAll(beside.others(Collections.max(layout.titleRows()), reading.omit()));
    }
    return others;
  }

  /** The same rows with some cells corrected. */
  private SourceTable(SourceTable of, List<Correction> wanted) {
    this.cache = of.cache;
    this.parsed = of.parsed;
    this.evidence = of.evidence;
    this.titles = of.titles;
    this.sections = of.sections;
    this.selector = of.selector;
    this.beside = of.beside;
    this.out = of.out;
    this.reading = of.reading;
    this.layout = of.layout;
    this.recordsBefore = of.recordsBefore;
    this.uncorrected = of;
    this.corrections = Corrections.of(of, wanted);
  }

  /**
   * The file's rows with these cells corrected and no others; shares all else with this table.
   * Corrections are made on the file as it stands, so that making them twice changes nothing.
   */
  public SourceTable corrected(List<Correction> wanted) {
    SourceTable bare = bare();
    if (wanted.equals(corrections.wanted())) {
      return this;
    }
    return wanted.isEmpty() ? bare : new SourceTable(bare, wanted);
  }

  /** Corrections that don't fit the file any more, because their cells hold something else. */
  public List<Correction> lapsed() {
    return corrections.lapsed();
  }

  @Override
  public Combinations combinations(List<Integer> columns) {
    return combinations.get(columns, c -> Combinations.of(this, c));
  }

  private Reading complete(Reading wanted, LocaleSettings locale, List<String> blankWords) {
    return wanted.with(
        b ->
            b.titleRows(layout.titleRows())
                .unitsRow(layout.unitsRow())
                .firstRow(layout.firstRow())
                .lastRow(layout.lastRow())
                .section(sections.name())
                .blankWords(blankWords)
                .locale(locale));
  }

  /** The complete reading: nothing in it is left open. */
  public Reading reading() {
    return reading;
  }

  public List<SheetInfo> sheets() {
    return parsed.sheets();
  }

  /** How a workbook shows most numbers and most moments of a column; empty for other files. */
  public List<CellFormat> formats() {
    return parsed.formats();
  }

  /** Files of the archive that can be tables; empty if the source is none. */
  public List<String> entries() {
    return parsed.entries();
  }

  public List<Evidence> evidence() {
    return bare().judged().evidence();
  }

  public List<Warning> warnings() {
    return bare().judged().warnings();
  }

  /** Columns that read in two ways, of which nobody has said yet how they are meant. */
  public List<Ambiguity> ambiguities() {
    return Ambiguity.areOpen(parsed.reading()) ? bare().profiled().ambiguities() : List.of();
  }

  /** What could be done with the file and is not yet. */
  public Proposals proposals() {
    return bare().judged().proposals();
  }

  /** Names of the columns: their titles, or their letters where there is none. */
  @Override
  public List<String> columns() {
    return out.names();
  }

  /**
   * What a column is called beneath the titles that it shares with others, where it has its name
   * from lines that stand above one another; otherwise its name.
   */
  public String lowestTitle(int column) {
    String name = columns().get(column);
    int inSheet = out.inSheet(column);
    return inSheet >= 0 && titles.title(inSheet).equals(name) ? titles.lowest(inSheet) : name;
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
    return bare().profiled().profiles();
  }

  @Override
  public ValueType type(int column) {
    return bare().typeOf(column);
  }

  /** Few columns are asked for their types, by formulas, and need not all be profiled for that. */
  private synchronized ValueType typeOf(int column) {
    if (isProfiledFirst || profiled.isKept() || types.size() >= FEW && !types.containsKey(column)) {
      return profiled().profiles().get(column).type();
    }
    return types.computeIfAbsent(column, c -> Profiling.of(cache, out, parsed.reading(), c).type());
  }

  @Override
  public LocaleSettings locale(int column) {
    // what is said holds for all columns; else each may have its own
    boolean said = parsed.reading().locale() != null;
    return column < 0 || said ? reading.locale() : profiles().get(column).locale();
  }

  @Override
  public int column(String name) {
    return out.find(name);
  }

  @Override
  public DistinctValues distinct(int column) {
    return distinct()[column];
  }

  private synchronized DistinctValues[] distinct() {
    if (uncorrected == null) {
      return profiled().distinct();
    }
    return correctedValues.get(() -> corrections.distinct(uncorrected.profiled().distinct()));
  }

  /** The file as it stands. */
  private SourceTable bare() {
    return uncorrected == null ? this : uncorrected;
  }

  @Override
  public long rowCount() {
    return recordsBefore[cache.chunks()];
  }

  /** Blank lines between the first and the last record. */
  public long blankRows() {
    long[] blank = selector.leftOut(RowSelector.LeftOut.BLANK);
    return blank == null ? 0 : blank[0];
  }

  Sections sections() {
    return sections;
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

  /** True if a line is no record but heads those below it. */
  public boolean isSection(long line) {
    return sections.isHead(line);
  }

  /** The sheets that are read as one; fewer than two if only one is. */
  public List<SheetPart> parts() {
    return parsed.parts();
  }

  /**
   * Line of the titles that a sheet repeats which is read as one with others before it; the line
   * before its first if it repeats none.
   */
  public long titlesOf(SheetPart part) {
    return selector.titlesOf(part);
  }

  /** Sheet of a line where several are read as one; null if only one is. */
  public SheetPart part(long line) {
    SheetPart found = null;
    for (SheetPart part : parsed.parts()) {
      found = line > part.linesBefore() ? part : found;
    }
    return parsed.parts().size() > 1 ? found : null;
  }

  @Override
  public int batches() {
    return cache.chunks();
  }

  @Override
  public Batch batch(int number) {
    OutColumns.Records records = out.records(number);
    ColumnChunk[] columns = new ColumnChunk[out.names().size()];
    for (int c = 0; c < columns.length; c++) {
      columns[c] = out.column(number, c, records);
    }
    long[] lines = lines(number, records);
    return new Batch(recordsBefore[number], lines, corrections.apply(number, lines, columns));
  }

  /**
   * The records of one batch with some columns only.
   *
   * @param wanted indexes of these; the others are null
   */
  public Batch batch(int number, Collection<Integer> wanted) {
    OutColumns.Records records = out.records(number);
    ColumnChunk[] columns = new ColumnChunk[out.names().size()];
    wanted.forEach(c -> columns[c] = cells(number, c, records));
    return new Batch(recordsBefore[number], lines(number, records), columns);
  }

  private long[] lines(int number, OutColumns.Records records) {
    long[] lines = cache.lines(number);
    return records.whole()
        ? lines
        : Arrays.stream(records.rows()).mapToLong(r -> lines[r]).toArray();
  }

  /** The cells of one column in the records of one batch. */
  public ColumnChunk cells(int batch, int column) {
    return cells(batch, column, out.records(batch));
  }

  private ColumnChunk cells(int batch, int column, OutColumns.Records records) {
    return corrections.touch(batch, column)
        ? batch(batch).columns()[column]
        : out.column(batch, column, records);
  }

  @Override
  public int batchOf(long row) {
    if (row < 0 || row >= rowCount()) {
      throw ErrorCode.NO_SUCH_ROW.error(
          "There is no record " + (row + 1) + " among " + rowCount() + ".");
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
