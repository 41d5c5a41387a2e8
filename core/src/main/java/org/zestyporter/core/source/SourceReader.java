package org.zestyporter.core.source;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.CancellationException;
import org.zestyporter.core.source.cache.CacheException;
import org.zestyporter.core.source.cache.CacheWriter;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.layout.LayoutSigns;
import org.zestyporter.core.source.parse.Archive;
import org.zestyporter.core.source.parse.CellNote;
import org.zestyporter.core.source.parse.DelimitedParser;
import org.zestyporter.core.source.parse.Encodings;
import org.zestyporter.core.source.parse.Enough;
import org.zestyporter.core.source.parse.FileFormat;
import org.zestyporter.core.source.parse.FixedWidth;
import org.zestyporter.core.source.parse.JsonParser;
import org.zestyporter.core.source.parse.NoteCode;
import org.zestyporter.core.source.parse.OldWorkbookParser;
import org.zestyporter.core.source.parse.OpenDocumentParser;
import org.zestyporter.core.source.parse.RowParser;
import org.zestyporter.core.source.parse.RowSink;
import org.zestyporter.core.source.parse.SheetErrors;
import org.zestyporter.core.source.parse.TextFiles;
import org.zestyporter.core.source.parse.WorkbookParser;
import org.zestyporter.core.source.reading.CellFormat;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetInfo;
import org.zestyporter.core.source.reading.SheetMarks;
import org.zestyporter.core.source.reading.SheetPart;
import org.zestyporter.core.source.reading.SourceFormat;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * Opens a file as a table.
 *
 * <p>The file is parsed once into a cache; changing titles, first or last record, folds and the
 * like later works on the cache alone.
 */
public final class SourceReader {
  static final long PEEKED_BYTES = 8 << 20;
  private static final int LONGEST_LINE = 2_000;

  private SourceReader() {}

  /** Reads the rows of a format. */
  static RowParser parser(SourceFormat format) {
    return switch (format) {
      case DELIMITED -> new DelimitedParser();
      case FIXED -> new FixedWidth();
      case XLSX -> new WorkbookParser();
      case XLS -> new OldWorkbookParser();
      case ODS -> new OpenDocumentParser();
      case JSON -> new JsonParser();
    };
  }

  /**
   * How a file's bytes were turned into cells, and why so.
   *
   * @param entries files of the archive that can be tables; empty if the source is none
   * @param names names of the columns where the format itself has them
   * @param parts the sheets that the rows came from, if they are read as one
   * @param formats how a workbook shows numbers and moments
   */
  public record Parsed(
      Reading reading,
      List<SheetInfo> sheets,
      List<String> entries,
      List<String> names,
      List<SheetPart> parts,
      List<Evidence> evidence,
      List<CellNote> notes,
      List<RowParser.RowWidth> widths,
      SheetMarks marks,
      List<CellFormat> formats) {

    public Parsed {
      // a cache of an earlier version has none
      marks = marks == null ? SheetMarks.NONE : marks;
      formats = formats == null ? List.of() : formats;
    }

    /** What is settled before any cell is parsed. */
    static Parsed begun(
        Reading reading, List<SheetInfo> sheets, List<String> entries, List<Evidence> evidence) {
      return new Parsed(
          reading,
          sheets,
          entries,
          List.of(),
          List.of(),
          evidence,
          List.of(),
          List.of(),
          SheetMarks.NONE,
          List.of());
    }

    /** The same cells with the titles, range and locale of another reading. */
    public Parsed withLayout(Reading wanted) {
      return with(reading.withLayout(wanted), evidence);
    }

    Parsed with(Reading other, List<Evidence> found) {
      return new Parsed(other, sheets, entries, names, parts, found, notes, widths, marks, formats);
    }
  }

  /**
   * Parses a file into a cache and opens it, to be used once: the cache is not packed.
   *
   * @param cacheFile where the cache is kept; an older one is replaced
   * @param wanted what the person or plan has said; the rest is found
   * @throws PorterException if the file holds no table, with a code such as {@code empty-file}
   */
  public static SourceTable open(Path file, Path cacheFile, Reading wanted) throws IOException {
    ReadProgress progress = new ReadProgress().forOnce();
    Parsed parsed = parse(file, cacheFile, wanted, progress);
    return table(SourceCache.openOnce(cacheFile), parsed);
  }

  /** Parses a file into a cache. */
  public static Parsed parse(Path file, Path cacheFile, Reading wanted) throws IOException {
    return parse(file, cacheFile, wanted, new ReadProgress());
  }

  /** Parses a file into a cache, telling how far it is. */
  public static Parsed parse(Path file, Path cacheFile, Reading wanted, ReadProgress progress)
      throws IOException {
    progress.budget(Files.size(file));
    return bounded(
        () ->
            unpacked(
                file,
                cacheFile,
                wanted,
                Long.MAX_VALUE,
                (plain, settled) ->
                    parsePlain(plain, cacheFile, settled, progress, Long.MAX_VALUE)));
  }

  /** What asks for more memory than there is ends alone, with its sentence. */
  private static <T> T bounded(Call<T> call) throws IOException {
    try {
      return call.get();
    } catch (OutOfMemoryError | StackOverflowError e) {
      throw ErrorCode.TOO_MUCH.error(
          "Reading the file needs more memory than there is here. It holds something"
              + " that is far larger than in other tables.",
          e);
    }
  }

  /**
   * Opens the first rows of a file, however large it is. Encoding and layout are told from its
   * beginning alone and may be found otherwise once it is read to the end.
   *
   * @param rows how many rows at least, if the file has them
   */
  public static SourceTable peek(Path file, Path cacheFile, Reading wanted, long rows)
      throws IOException {
    ReadProgress progress = new ReadProgress();
    progress.budget(0);
    return bounded(
        () ->
            reopen(
                cacheFile,
                unpacked(
                    file,
                    cacheFile,
                    wanted,
                    PEEKED_BYTES,
                    (plain, settled) -> parsePlain(plain, cacheFile, settled, progress, rows))));
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

  /**
   * The encoding of that name, as files are written in that are called so.
   *
   * @throws PorterException if there is none
   */
  public static Charset charset(String name) {
    return TextFiles.charset(name);
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
      return use.of(
          file, Parsed.begun(wanted.withEntry(null), List.of(), List.of(), new ArrayList<>()));
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
      return use.of(plain, Parsed.begun(wanted.withEntry(entry), List.of(), entries, evidence));
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

  private static String entry(Reading wanted, List<String> entries, List<Evidence> evidence) {
    if (entries.isEmpty()) {
      throw ErrorCode.NOT_A_TABLE.error(
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
    Parsed parsed = Settling.settle(file, settled, rows == Long.MAX_VALUE ? rows : PEEKED_BYTES);
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
    try (CacheWriter writer =
        new CacheWriter(cacheFile, progress, progress.packs(), new LayoutSigns())) {
      RowParser.Told told = RowParser.Told.NOTHING;
      RowSink sink = rows == Long.MAX_VALUE ? writer : new FirstRows(writer, rows);
      try {
        Reading reading = parsed.reading();
        RowParser parser = parser(reading.format());
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
          told.widths(),
          writer.marks(),
          writer.formats());
    }
  }

  @FunctionalInterface
  interface Call<T> {
    T get() throws IOException;
  }

  /** Takes any trouble in reading a workbook for a workbook that is broken. */
  static <T> T unbroken(Call<T> call) throws IOException {
    try {
      return call.get();
    } catch (CacheException | PorterException | Enough | CancellationException e) {
      throw e;
    } catch (IOException | RuntimeException e) {
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
    public void text(int column, byte[] bytes, int from, int to, boolean whole) {
      writer.text(column, bytes, from, to, whole);
    }

    @Override
    public void note(NoteCode code, int column, String sample) {
      writer.note(code, column, sample);
    }

    @Override
    public void format(int column, boolean moment, String code) {
      writer.format(column, moment, code);
    }

    @Override
    public void marks(SheetMarks marks) {
      writer.marks(marks);
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
    return table(SourceCache.open(cacheFile), parsed);
  }

  private static SourceTable table(SourceCache cache, Parsed parsed) throws IOException {
    try {
      SourceTable table = new SourceTable(cache, parsed);
      if (table.columns().isEmpty()
          || (cache.rows() == 0 || table.isBlank()) && table.reading().titleRows().isEmpty()) {
        throw ErrorCode.EMPTY_FILE.error("The file holds no cells.");
      }
      return table;
    } catch (RuntimeException e) {
      cache.close();
      throw e;
    }
  }
}
