package org.zestyporter.core.run;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.source.ReturnTitles;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetPart;
import org.zestyporter.core.source.reading.SourceFormat;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * The file of a run's rejected rows, made to be corrected and brought back.
 *
 * <p>It is laid out as the file was that the rows came from: what stood above the records stands
 * there again, each column has its place, grouped cells are filled down, a row's section heads it,
 * and it stands on the sheet that it came from, so that the same plan reads it. Behind the columns
 * stand the reasons, and in the last one the line that each row had; that column's title names the
 * run. Sorting, deleted lines and further columns do no harm.
 *
 * <pre>{@code
 * Returns returns = new Returns(opened, "Run 2026-0003");
 * returns.add(0, entry);         // for every entry of the ledger
 * returns.write(out, Returns.Format.XLSX);
 * }</pre>
 */
public final class Returns {
  private static final int MOST_ROWS = 1_000_000;

  /** Kinds of files. */
  public enum Format {
    /** A workbook, ECMA-376. */
    XLSX,
    /** Text, RFC 4180, with the delimiter and the encoding of the file if that was text. */
    CSV
  }

  /** Why a line was rejected, and by which fields. */
  record Rejected(Set<String> reasons, Set<Place> fields) {}

  /** A field of a destination, by the destination's place in the plan. */
  record Place(int destination, String field) {}

  /** Takes the lines of the file, one after the other. */
  interface Lines {
    /** Begins the next sheet, if sheets are told apart. */
    default void sheet(String name) {}

    /**
     * @param line its number, from 1
     * @param rejected why it was rejected; null if it is none of the rows
     */
    void line(long line, List<Cell> cells, @Nullable Rejected rejected) throws IOException;
  }

  private final OpenedPlan opened;
  private final SourceTable source;
  private final SourceCache raw;
  private final Reading reading;
  private final String run;
  private final TreeMap<Long, Rejected> rejected = new TreeMap<>();

  /** The columns of the sheet that stand in the file again. */
  private final List<Integer> kept = new ArrayList<>();

  /** By their places among these, the columns of the source. */
  private final Map<Integer, Integer> columns = new LinkedHashMap<>();

  private final Map<Place, List<Integer>> feeding = new LinkedHashMap<>();

  /** True if a row says from which sheet it is, where it can't stand on one of its own. */
  private boolean namesSheets;

  /**
   * @param opened the plan as the run had it, with the file it ran on
   * @param run what the run is called, such as {@code Run 2026-0003}
   */
  public Returns(OpenedPlan opened, String run) {
    this.opened = opened;
    this.source = opened.source();
    this.raw = source.raw();
    this.reading = source.reading();
    this.run = run;
    List<SourceTable.ColumnInFile> inFile = source.columnsInFile();
    for (int c = 0; c < raw.width(); c++) {
      String title = c < inFile.size() ? inFile.get(c).title().strip() : "";
      // what was said when these rows came back before is said anew
      if (!ReturnTitles.isOurs(title)) {
        int column = c < inFile.size() ? source.column(inFile.get(c).name()) : -1;
        if (column >= 0) {
          columns.put(kept.size(), column);
        }
        kept.add(c);
      }
    }
  }

  /**
   * Takes a row of the ledger, if it was rejected.
   *
   * @param destination the place of its destination in the plan, from 0
   * @throws PorterException with code {@code too-much} if they are too many for a file
   */
  public void add(int destination, LedgerEntry entry) {
    if (entry.outcome() != Outcome.REJECTED) {
      return;
    }
    if (rejected.size() == MOST_ROWS) {
      throw ErrorCode.TOO_MUCH.error(
          "Over a million rows were rejected, which is more than a workbook holds.",
          "Look at the problems first: most of the rows may have the same one.");
    }
    Rejected one =
        rejected.computeIfAbsent(
            entry.line(), l -> new Rejected(new LinkedHashSet<>(), new LinkedHashSet<>()));
    for (LedgerEntry.Note note : entry.notes()) {
      if (!note.softened()) {
        String field = note.field();
        one.reasons().add((field == null ? "" : field + ": ") + said(note));
        if (field != null) {
          one.fields().add(new Place(destination, field));
        }
      }
    }
  }

  private static String said(LedgerEntry.Note note) {
    boolean names = note.value() != null && !note.value().isEmpty() && !note.code().isOfMatch();
    return names && !note.reason().contains(note.value())
        ? "“" + note.value() + "” " + note.reason()
        : note.reason();
  }

  /** How many lines it has. */
  public int size() {
    return rejected.size();
  }

  /** Writes the file; the stream stays open. */
  public void write(OutputStream out, Format format) throws IOException {
    namesSheets = format == Format.CSV && source.parts().size() > 1;
    if (format == Format.CSV) {
      csv(out);
    } else {
      ReturnsWorkbook book = new ReturnsWorkbook(out, opened, this::feeding, kept);
      go(book);
      book.finish();
    }
  }

  private void go(Lines lines) throws IOException {
    List<SheetPart> parts = source.parts();
    if (parts.size() < 2 || namesSheets) {
      lines.sheet(reading.sheet() == null ? "Returns" : reading.sheet());
      rows(rejected, heading(lines), reading.firstRow() - 1, lines);
      return;
    }
    // a reader who looks at one sheet should meet rows there
    List<SheetPart> ordered = new ArrayList<>(parts);
    ordered.sort(Comparator.comparing(part -> rowsOf(part).isEmpty()));
    for (SheetPart part : ordered) {
      lines.sheet(part.sheet());
      boolean isFirst = part == parts.get(0);
      long next = isFirst ? heading(lines) : headingOf(part, lines);
      rows(rowsOf(part), next, isFirst ? reading.firstRow() - 1 : part.linesBefore(), lines);
    }
  }

  private SortedMap<Long, Rejected> rowsOf(SheetPart part) {
    List<SheetPart> parts = source.parts();
    int after = parts.indexOf(part) + 1;
    long end = after == parts.size() ? Long.MAX_VALUE : parts.get(after).linesBefore() + 1;
    return rejected.subMap(part.linesBefore() + 1, end);
  }

  /** What stands above the records, and where these begin. */
  private long heading(Lines lines) throws IOException {
    if (reading.format() == SourceFormat.JSON) {
      // its members have names, but no line that holds them
      lines.line(
          1, titled(kept.stream().map(c -> inFile(c).name()).map(Cell::text).toList()), null);
      return 2;
    }
    long titles = lastTitles();
    for (long line = 1; line < reading.firstRow(); line++) {
      lines.line(line, line == titles ? titled(cells(line)) : cells(line), null);
    }
    return reading.firstRow();
  }

  private long lastTitles() {
    return reading.titleRows().isEmpty() ? 0 : Collections.max(reading.titleRows());
  }

  /** The same of a further sheet: all up to the titles, if it repeats those of the first. */
  private long headingOf(SheetPart part, Lines lines) throws IOException {
    long titles = source.titlesOf(part);
    for (long line = part.linesBefore() + 1; line <= titles; line++) {
      lines.line(
          line - part.linesBefore(), line == titles ? titled(cells(line)) : cells(line), null);
    }
    return Math.max(titles - part.linesBefore(), 0) + 1;
  }

  /**
   * @param next the line that the first of them gets
   * @param seen the line of the source after which they may stand
   */
  private void rows(SortedMap<Long, Rejected> rows, long next, long seen, Lines lines)
      throws IOException {
    long at = next;
    long section = 0;
    long above = seen;
    for (Map.Entry<Long, Rejected> one : rows.entrySet()) {
      long line = one.getKey();
      long heads = section;
      for (above++; above < line; above++) {
        heads = source.isSection(above) ? above : heads;
      }
      if (heads != section) {
        section = heads;
        lines.line(at++, cells(section), null);
      }
      lines.line(at++, record(line, one.getValue()), one.getValue());
    }
  }

  private List<Cell> titled(List<Cell> titles) {
    List<Cell> all = new ArrayList<>(titles);
    if (namesSheets) {
      all.add(Cell.text(source.columns().get(source.columns().size() - 1)));
    }
    all.add(Cell.text(ReturnTitles.REASONS));
    all.add(Cell.text(ReturnTitles.mark(run)));
    return all;
  }

  private SourceTable.ColumnInFile inFile(int column) {
    return source.columnsInFile().get(column);
  }

  private List<Cell> cells(long line) {
    List<Cell> cells = new ArrayList<>();
    for (int c : kept) {
      cells.add(raw.cellAt(line, c));
    }
    return cells;
  }

  /**
   * A record's cells, with what the plan corrects in them and what is filled down, why it was
   * rejected, and its line.
   */
  private List<Cell> record(long line, Rejected why) {
    List<Cell> cells = cells(line);
    long row = source.rowOfLine(line);
    Batch batch = source.batch(source.batchOf(row));
    int at = (int) (row - batch.firstRow());
    columns.forEach(
        (place, column) -> {
          Cell cell = batch.columns()[column].cell(at);
          // a word that means blank stays as it is written
          if (!cell.isBlank()) {
            cells.set(place, cell);
          }
        });
    if (namesSheets) {
      cells.add(Cell.text(source.part(line).sheet()));
    }
    cells.add(Cell.text(String.join("; ", why.reasons())));
    cells.add(new Cell(Cell.Kind.NUMBER, String.valueOf(line)));
    return cells;
  }

  /** The columns of the file that feed a field. */
  private List<Integer> feeding(Place place) {
    return feeding.computeIfAbsent(
        place,
        p -> {
          List<Integer> places = new ArrayList<>();
          Fill fill = fill(p);
          for (String name : fill == null ? List.<String>of() : fill.origin().columns()) {
            int column = source.column(name);
            columns.forEach(
                (at, c) -> {
                  if (c == column) {
                    places.add(at);
                  }
                });
          }
          return places;
        });
  }

  private @Nullable Fill fill(Place place) {
    Destination destination = opened.plan().destinations().get(place.destination());
    return destination.fills().stream()
        .filter(f -> f.field().equals(place.field()))
        .findFirst()
        .orElse(null);
  }

  private void csv(OutputStream out) throws IOException {
    String delimiter = reading.delimiter() == null ? "," : reading.delimiter();
    Charset charset =
        reading.encoding() == null
            ? StandardCharsets.UTF_8
            : SourceReader.charset(reading.encoding());
    Writer writer = new OutputStreamWriter(out, charset);
    CsvWriter csv = CsvWriter.builder().fieldSeparator(delimiter.charAt(0)).build(writer);
    long[] written = {0};
    go(
        (line, cells, why) -> {
          // lines that are blank keep their place
          for (; written[0] < line - 1; written[0]++) {
            csv.writeRecord("");
          }
          csv.writeRecord(cells.stream().map(Cell::text).toList());
          written[0]++;
        });
    csv.flush();
    writer.flush();
  }
}
