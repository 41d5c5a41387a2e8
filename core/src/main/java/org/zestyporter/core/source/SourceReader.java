package org.zestyporter.core.source;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.UnsupportedCharsetException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.value.PorterException;

/**
 * Opens a file as a table.
 *
 * <p>The file is parsed once into a cache; changing titles, first or last record later works on the
 * cache alone.
 */
public final class SourceReader {
  private static final WorkbookParser WORKBOOK = new WorkbookParser();
  private static final DelimitedParser DELIMITED = new DelimitedParser();

  private SourceReader() {}

  /** How a file's bytes were turned into cells, and why so. */
  public record Parsed(Reading reading, List<SheetInfo> sheets, List<Evidence> evidence) {

    /** The same cells with the titles, range and locale of another reading. */
    public Parsed withLayout(Reading wanted) {
      return new Parsed(reading.withLayout(wanted), sheets, evidence);
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
    Parsed parsed = parse(file, cacheFile, wanted);
    return reopen(cacheFile, parsed);
  }

  /** Parses a file into a cache. */
  public static Parsed parse(Path file, Path cacheFile, Reading wanted) throws IOException {
    Parsed parsed = settle(file, wanted);
    try (CacheWriter writer = new CacheWriter(cacheFile)) {
      RowParser parser = parsed.reading().format() == SourceFormat.XLSX ? WORKBOOK : DELIMITED;
      parser.parse(file, parsed.reading(), writer);
      writer.finish();
    }
    return parsed;
  }

  /** Opens a file that is already parsed. */
  public static SourceTable reopen(Path cacheFile, Parsed parsed) throws IOException {
    SourceCache cache = SourceCache.open(cacheFile);
    try {
      SourceTable table =
          new SourceTable(cache, parsed.reading(), parsed.sheets(), parsed.evidence());
      if (table.columns().isEmpty()
          || (table.rowCount() == 0 && table.reading().titleRows().isEmpty())) {
        throw PorterException.input(
            "empty-file", "The file holds no cells. Ask for it to be sent again.");
      }
      return table;
    } catch (RuntimeException e) {
      cache.close();
      throw e;
    }
  }

  private static Parsed settle(Path file, Reading wanted) throws IOException {
    List<Evidence> evidence = new ArrayList<>();
    SourceFormat format = Sniffer.format(file);
    if (format == SourceFormat.XLSX) {
      List<SheetInfo> sheets = WORKBOOK.sheets(file);
      String sheet = wanted.sheet();
      if (sheet == null) {
        sheet = chooseSheet(sheets);
        evidence.add(
            new Evidence(
                "sheet",
                sheet,
                sheets.size() == 1
                    ? "the only one"
                    : "the first of " + sheets.size() + " that is not hidden"));
      }
      return new Parsed(with(wanted, format, null, null, null, sheet), sheets, evidence);
    }
    String quote = wanted.quote() == null ? "\"" : one("quote", wanted.quote());
    String encoding = wanted.encoding();
    if (encoding == null) {
      Evidence found = Sniffer.encoding(file);
      evidence.add(found);
      encoding = found.value();
    }
    Charset charset = charset(encoding);
    String delimiter = wanted.delimiter() == null ? null : one("delimiter", wanted.delimiter());
    if (delimiter == null) {
      Evidence found = Sniffer.delimiter(file, charset, quote.charAt(0));
      evidence.add(found);
      delimiter = found.value();
    }
    return new Parsed(with(wanted, format, encoding, delimiter, quote, null), List.of(), evidence);
  }

  private static String chooseSheet(List<SheetInfo> sheets) {
    return sheets.stream()
        .filter(s -> !s.hidden())
        .findFirst()
        .or(() -> sheets.stream().findFirst())
        .orElseThrow(
            () -> PorterException.input("empty-file", "The workbook has no sheet with cells."))
        .name();
  }

  private static String one(String setting, String value) {
    if (value.length() != 1) {
      throw PorterException.input(
          setting, "The " + setting + " must be one character, not “" + value + "”.");
    }
    return value;
  }

  private static Charset charset(String name) {
    try {
      return Charset.forName(name);
    } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
      throw new PorterException(
          PorterException.Kind.INPUT, "encoding", "There is no encoding “" + name + "”.", e);
    }
  }

  private static Reading with(
      Reading r,
      SourceFormat format,
      String encoding,
      String delimiter,
      String quote,
      String sheet) {
    return new Reading(
        format,
        encoding,
        delimiter,
        quote,
        sheet,
        r.titleRows(),
        r.firstRow(),
        r.lastRow(),
        r.locale());
  }
}
