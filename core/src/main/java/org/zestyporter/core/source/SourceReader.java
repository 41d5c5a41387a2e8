package org.zestyporter.core.source;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.PorterException;

/**
 * Opens a file as a table.
 *
 * <p>The file is parsed once into a cache; changing titles, first or last record, folds and the
 * like later works on the cache alone.
 */
public final class SourceReader {
  private static final JsonParser JSON = new JsonParser();
  private static final Map<SourceFormat, RowParser> PARSERS =
      Map.of(
          SourceFormat.DELIMITED, new DelimitedParser(),
          SourceFormat.FIXED, new FixedWidth(),
          SourceFormat.XLSX, new WorkbookParser(),
          SourceFormat.XLS, new OldWorkbookParser(),
          SourceFormat.ODS, new OpenDocumentParser(),
          SourceFormat.JSON, JSON);
  private static final long PEEKED_BYTES = 8 << 20;
  private static final int LONGEST_LINE = 2_000;

  private SourceReader() {}

  /**
   * How a file's bytes were turned into cells, and why so.
   *
   * @param entries files of the archive that can be tables; empty if the source is none
   * @param names names of the columns where the format itself has them
   * @param parts the sheets that the rows came from, if they are read as one
   */
  public record Parsed(
      Reading reading,
      List<SheetInfo> sheets,
      List<String> entries,
      List<String> names,
      List<SheetPart> parts,
      List<Evidence> evidence,
      List<CellNote> notes,
      List<RowParser.RowWidth> widths) {

    /** The same cells with the titles, range and locale of another reading. */
    public Parsed withLayout(Reading wanted) {
      return with(reading.withLayout(wanted), evidence);
    }

    Parsed with(Reading other, List<Evidence> found) {
      return new Parsed(other, sheets, entries, names, parts, found, notes, widths);
    }
  }

  /**
   * Parses a file into a cache and opens it.
   *
   * @param cacheFile where the cache is kept; an older one is replaced
   * @param wanted what the person or plan has said; the rest is found
   * @throws PorterException if the file holds no table, with a code such as {@code empty-file}
   */
  public static SourceTable open(Path file, Path cacheFile, Reading wanted) throws IOException {
    return reopen(cacheFile, parse(file, cacheFile, wanted));
  }

  /** Parses a file into a cache. */
  public static Parsed parse(Path file, Path cacheFile, Reading wanted) throws IOException {
    return parse(file, cacheFile, wanted, new ReadProgress());
  }

  /** Parses a file into a cache, telling how far it is. */
  public static Parsed parse(Path file, Path cacheFile, Reading wanted, ReadProgress progress)
      throws IOException {
    return unpacked(
        file,
        cacheFile,
        wanted,
        Long.MAX_VALUE,
        (plain, settled) -> parsePlain(plain, cacheFile, settled, progress, Long.MAX_VALUE));
  }

  /**
   * Opens the first rows of a file, however large it is. Encoding and layout are told from its
   * beginning alone and may be found otherwise once it is read to the end.
   *
   * @param rows how many rows at least, if the file has them
   */
  public static SourceTable peek(Path file, Path cacheFile, Reading wanted, long rows)
      throws IOException {
    Parsed parsed =
        unpacked(
            file,
            cacheFile,
            wanted,
            PEEKED_BYTES,
            (plain, settled) -> parsePlain(plain, cacheFile, settled, new ReadProgress(), rows));
    return reopen(cacheFile, parsed);
  }

  /** The first lines of a text as they are, before they are parted into cells. */
  public static List<String> text(Path file, Reading reading, int lines) throws IOException {
    if (reading.format() == null || !reading.format().isText() || reading.entry() != null) {
      return List.of();
    }
    String head = TextFiles.headText(TextFiles.head(file), TextFiles.charset(reading.encoding()));
    return TextFiles.lines(head, false, lines).stream()
        .map(l -> l.length() > LONGEST_LINE ? l.substring(0, LONGEST_LINE) : l)
        .toList();
  }

  @FunctionalInterface
  private interface Use {
    Parsed of(Path plain, Parsed settled) throws IOException;
  }

  /** Unpacks an archive beside the cache for as long as it is used. */
  private static Parsed unpacked(Path file, Path cacheFile, Reading wanted, long mostBytes, Use use)
      throws IOException {
    byte[] head = TextFiles.head(file);
    Archive.Kind kind = head.length == 0 ? Archive.Kind.NONE : Archive.kind(file, head);
    if (kind != Archive.Kind.GZIP && kind != Archive.Kind.ZIP) {
      return use.of(file, start(wanted.withEntry(null), List.of(), new ArrayList<>()));
    }
    List<Evidence> evidence = new ArrayList<>();
    List<String> entries = kind == Archive.Kind.ZIP ? Archive.entries(file) : List.of();
    String entry = null;
    if (kind == Archive.Kind.ZIP) {
      entry = entry(wanted, entries, evidence);
    } else {
      evidence.add(new Evidence("entry", "gzip", "the file is packed and is unpacked to be read"));
    }
    Path plain = cacheFile.resolveSibling(cacheFile.getFileName() + ".unpacked");
    try {
      // the end of a workbook's or archive's package is needed to open it
      boolean text = kind == Archive.Kind.GZIP || !startsLikePackage(file, entry, plain);
      Archive.unpack(file, entry, plain, text ? mostBytes : Long.MAX_VALUE);
      return use.of(plain, start(wanted.withEntry(entry), entries, evidence));
    } finally {
      Files.deleteIfExists(plain);
    }
  }

  private static boolean startsLikePackage(Path file, String entry, Path plain) throws IOException {
    Archive.unpack(file, entry, plain, 8);
    byte[] head = TextFiles.head(plain);
    return Encodings.startsWith(head, (byte) 'P', (byte) 'K')
        || Encodings.startsWith(head, FileFormat.OLE2);
  }

  private static Parsed start(Reading reading, List<String> entries, List<Evidence> evidence) {
    return new Parsed(
        reading, List.of(), entries, List.of(), List.of(), evidence, List.of(), List.of());
  }

  private static String entry(Reading wanted, List<String> entries, List<Evidence> evidence) {
    if (entries.isEmpty()) {
      throw PorterException.input(
          "not-a-table",
          "The archive holds neither text nor a workbook, so there is no table in it.");
    }
    if (wanted.entry() != null) {
      return wanted.entry();
    }
    evidence.add(
        new Evidence(
            "entry",
            entries.get(0),
            entries.size() == 1
                ? "the only table in the archive"
                : "the first of " + entries.size() + " tables in the archive"));
    return entries.get(0);
  }

  private static Parsed parsePlain(
      Path file, Path cacheFile, Parsed settled, ReadProgress progress, long rows)
      throws IOException {
    Parsed parsed = settle(file, settled, rows == Long.MAX_VALUE ? rows : PEEKED_BYTES);
    try {
      return fill(file, cacheFile, parsed, progress, rows);
    } catch (DelimitedParser.UnclosedQuoteException e) {
      if (settled.reading().quote() != null) {
        throw e;
      }
      List<Evidence> evidence = new ArrayList<>(parsed.evidence());
      evidence.removeIf(x -> "quote".equals(x.setting()));
      evidence.add(
          new Evidence(
              "quote",
              "",
              String.format(
                  Locale.ROOT,
                  "a quote is opened on line %,d and never closed, so quotes are taken as text",
                  e.line())));
      Parsed plain = parsed.with(parsed.reading().withQuote(""), evidence);
      return fill(file, cacheFile, plain, progress, rows);
    }
  }

  private static Parsed fill(
      Path file, Path cacheFile, Parsed parsed, ReadProgress progress, long rows)
      throws IOException {
    try (CacheWriter writer = new CacheWriter(cacheFile, progress)) {
      RowParser.Told told = RowParser.Told.NOTHING;
      RowSink sink = rows == Long.MAX_VALUE ? writer : new FirstRows(writer, rows);
      try {
        Reading reading = parsed.reading();
        RowParser parser = PARSERS.get(reading.format());
        told =
            reading.format().isWorkbook()
                ? unbroken(() -> parser.parse(file, reading, sink, progress))
                : parser.parse(file, reading, sink, progress);
      } catch (Enough e) {
        // the rows that were wanted are there
      }
      writer.finish();
      List<Evidence> evidence = new ArrayList<>(parsed.evidence());
      evidence.addAll(told.evidence());
      return new Parsed(
          parsed.reading(),
          parsed.sheets(),
          parsed.entries(),
          told.names(),
          told.parts(),
          evidence,
          writer.notes(),
          told.widths());
    }
  }

  @FunctionalInterface
  private interface Call<T> {
    T get() throws IOException;
  }

  /** Takes any trouble in reading a workbook for a workbook that is broken. */
  private static <T> T unbroken(Call<T> call) throws IOException {
    try {
      return call.get();
    } catch (CacheException e) {
      throw e;
    } catch (IOException e) {
      throw SheetErrors.unreadable(e);
    }
  }

  /** Passes rows on until there are enough. */
  private record FirstRows(CacheWriter writer, long most) implements RowSink {
    @Override
    public void cell(int column, Cell cell) {
      writer.cell(column, cell);
    }

    @Override
    public void text(int column, char[] chars, int from, int to, boolean whole) {
      writer.text(column, chars, from, to, whole);
    }

    @Override
    public void endRow(long line) throws IOException {
      writer.endRow(line);
      if (writer.rows() >= most) {
        throw new Enough();
      }
    }
  }

  /** Opens a file that is already parsed. */
  public static SourceTable reopen(Path cacheFile, Parsed parsed) throws IOException {
    SourceCache cache = SourceCache.open(cacheFile);
    try {
      SourceTable table = new SourceTable(cache, parsed);
      if (table.columns().isEmpty()
          || (cache.rows() == 0 || table.isBlank()) && table.reading().titleRows().isEmpty()) {
        throw PorterException.input(
            "empty-file", "The file holds no cells. Ask for it to be sent again.");
      }
      return table;
    } catch (RuntimeException e) {
      cache.close();
      throw e;
    }
  }

  /** Settles what decides how the bytes become cells. */
  private static Parsed settle(Path file, Parsed start, long most) throws IOException {
    byte[] head = TextFiles.head(file);
    Reading wanted = start.reading();
    List<Evidence> evidence = new ArrayList<>(start.evidence());
    SourceFormat found = FileFormat.find(file, head);
    if (found.isWorkbook()) {
      SheetParser parser = (SheetParser) PARSERS.get(found);
      List<SheetInfo> sheets = unbroken(() -> parser.sheets(file));
      Reading reading =
          wanted.with(b -> b.format(found).encoding(null).delimiter(null).quote(null));
      return done(start, sheet(reading, sheets, evidence), sheets, evidence);
    }
    String encoding = wanted.encoding();
    if (encoding == null) {
      Evidence why = Encodings.find(file, most);
      evidence.add(why);
      encoding = why.value();
    }
    Charset charset = TextFiles.charset(encoding);
    Reading text = wanted.withEncoding(charset.name());
    SourceFormat said = wanted.format();
    if (found == SourceFormat.JSON && (said == null || said == SourceFormat.JSON)) {
      List<SheetInfo> arrays = JSON.arrays(file, charset);
      if (arrays.isEmpty()) {
        throw PorterException.input(
            "not-a-table", "The JSON holds no list and no object with values, so no table.");
      }
      Reading reading = text.with(b -> b.format(SourceFormat.JSON).delimiter(null).quote(null));
      return done(start, array(reading, arrays, evidence), arrays, evidence);
    }
    return done(start, lines(text, head, charset, evidence), List.of(), evidence);
  }

  private static Parsed done(
      Parsed start, Reading reading, List<SheetInfo> sheets, List<Evidence> evidence) {
    return new Parsed(
        reading, sheets, start.entries(), List.of(), List.of(), evidence, List.of(), List.of());
  }

  /** Text in lines: parted by a delimiter, or at fixed places. */
  private static Reading lines(
      Reading wanted, byte[] head, Charset charset, List<Evidence> evidence) {
    boolean cutShort = head.length == TextFiles.HEAD_BYTES;
    String text = TextFiles.headText(head, charset);
    if (text.isBlank() && !cutShort) {
      throw PorterException.input(
          "empty-file", "The file holds only blank lines. Ask for it to be sent again.");
    }
    if (wanted.delimiter() != null) {
      require("delimiter", wanted.delimiter(), 1, 5);
    }
    if (wanted.quote() != null) {
      require("quote", wanted.quote(), 0, 1);
    }
    boolean saidFixed = wanted.format() == SourceFormat.FIXED || wanted.borders() != null;
    boolean saidDelimited = wanted.format() == SourceFormat.DELIMITED || wanted.delimiter() != null;
    FixedWidth.Found fixed = saidDelimited ? null : FixedWidth.find(text, cutShort);
    DelimitedSniffer.Found parted =
        saidFixed ? null : DelimitedSniffer.find(text, cutShort, wanted);
    if (saidFixed || !saidDelimited && isFixed(fixed, parted)) {
      if (wanted.borders() == null) {
        evidence.add(fixed.evidence());
      }
      List<Integer> borders = wanted.borders() == null ? fixed.borders() : borders(wanted);
      return wanted.with(
          b -> b.format(SourceFormat.FIXED).borders(borders).delimiter(null).quote(null));
    }
    evidence.addAll(parted.evidence());
    return wanted.with(
        b ->
            b.format(SourceFormat.DELIMITED)
                .borders(null)
                .delimiter(parted.delimiter())
                .quote(parted.quote())
                .escape(parted.escape())
                .comment(parted.comment()));
  }

  private static boolean isFixed(FixedWidth.Found fixed, DelimitedSniffer.Found parted) {
    if (fixed.borders().isEmpty() || fixed.agreement() < 0.95) {
      return false;
    }
    boolean clearlyParted = parted.cells() > 1 && parted.agreement() >= 0.7;
    return !clearlyParted || parted.cells() == 2 && fixed.borders().size() > 2;
  }

  private static List<Integer> borders(Reading wanted) {
    List<Integer> sorted = wanted.borders().stream().distinct().sorted().toList();
    if (!sorted.isEmpty() && sorted.get(0) < 1) {
      throw PorterException.input("borders", "A border stands behind at least one character.");
    }
    return sorted;
  }

  private static void require(String setting, String value, int least, int most) {
    if (value.length() < least || value.length() > most) {
      throw PorterException.input(
          setting,
          "The "
              + setting
              + " must be "
              + (most == 1 ? "one character" : "one to five characters")
              + ", not “"
              + value
              + "”.");
    }
  }

  private static Reading array(Reading wanted, List<SheetInfo> arrays, List<Evidence> evidence) {
    if (wanted.sheet() != null) {
      return wanted;
    }
    SheetInfo first = arrays.get(0);
    String because =
        arrays.size() == 1
            ? "the only list in the file"
            : "the longest of " + arrays.size() + " lists in the file";
    evidence.add(new Evidence("sheet", first.name(), because));
    return wanted.withSheet(first.name());
  }

  private static Reading sheet(Reading wanted, List<SheetInfo> sheets, List<Evidence> evidence) {
    List<String> several = wanted.sheets();
    if (several != null && !several.isEmpty()) {
      for (String name : several) {
        if (sheets.stream().noneMatch(s -> s.name().equals(name))) {
          throw SheetErrors.noSuchSheet(name);
        }
      }
      return wanted.withSheet(null);
    }
    if (wanted.sheet() != null) {
      return wanted;
    }
    SheetInfo chosen =
        sheets.stream()
            .filter(s -> !s.hidden() && !isEmpty(s))
            .findFirst()
            .or(() -> sheets.stream().filter(s -> !s.hidden()).findFirst())
            .or(() -> sheets.stream().findFirst())
            .orElseThrow(
                () -> PorterException.input("empty-file", "The workbook has no sheet with cells."));
    evidence.add(
        new Evidence(
            "sheet",
            chosen.name(),
            sheets.size() == 1
                ? "the only one"
                : "the first of " + sheets.size() + " that is not hidden and not empty"));
    return wanted.withSheet(chosen.name());
  }

  private static boolean isEmpty(SheetInfo sheet) {
    return sheet.lines() != null
        && sheet.lines() <= 1
        && sheet.columns() != null
        && sheet.columns() <= 1;
  }
}
