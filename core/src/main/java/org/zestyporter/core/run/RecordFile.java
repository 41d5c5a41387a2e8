package org.zestyporter.core.run;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.zestyporter.core.value.HarmlessCells;

/**
 * The record of a rehearsal or run as a file that can be put by: what it was of, its books, its
 * problems, and its ledger row by row.
 */
public final class RecordFile {
  /** Lines of a sheet; a workbook has room for 1,048,576 (ECMA-376). */
  private static final int LINES = 1_000_000;

  /** Letters of a cell; a workbook has room for 32,767. */
  private static final int LETTERS = 32_000;

  /** Lines that are held in memory. */
  private static final int FLUSHED = 5_000;

  private static final String CHANGES = "changes";

  private final List<Map.Entry<String, String>> facts;
  private final RunReport report;
  private final List<Part> parts;

  /** The ledger of a destination. */
  public record Part(LedgerLayout layout, Supplier<Stream<LedgerEntry>> entries) {}

  /**
   * @param facts what it was of, each with its label
   */
  public RecordFile(List<Map.Entry<String, String>> facts, RunReport report, List<Part> parts) {
    this.facts = List.copyOf(facts);
    this.report = report;
    this.parts = List.copyOf(parts);
  }

  /** Writes the ledger as text (RFC 4180, UTF-8), cells that could be formulas made harmless. */
  public void csv(OutputStream out) throws IOException {
    CsvWriter csv = CsvWriter.builder().build(new OutputStreamWriter(out, StandardCharsets.UTF_8));
    csv.writeRecord(titles());
    for (Part part : parts) {
      try (Stream<LedgerEntry> entries = part.entries().get()) {
        for (Iterator<LedgerEntry> all = entries.iterator(); all.hasNext(); ) {
          csv.writeRecord(
              line(part.layout(), all.next()).stream().map(HarmlessCells::guard).toList());
        }
      }
    }
    csv.flush();
  }

  private static List<String> titles() {
    List<String> titles = new ArrayList<>(LedgerLines.TITLES);
    titles.add(CHANGES);
    return titles;
  }

  private static List<String> line(LedgerLayout layout, LedgerEntry entry) {
    List<String> line = new ArrayList<>(LedgerLines.of(layout, entry));
    line.add(LedgerLines.changes(layout, entry));
    return line;
  }

  /** Writes a workbook (ECMA-376): a sheet with the summary, and the ledger behind it. */
  public void workbook(OutputStream out) throws IOException {
    Workbook book = new Workbook(out, "Zesty Porter", "1.0");
    new Summary(book.newWorksheet("Summary")).write();
    Lines lines = new Lines(book);
    for (Part part : parts) {
      try (Stream<LedgerEntry> entries = part.entries().get()) {
        for (Iterator<LedgerEntry> all = entries.iterator(); all.hasNext(); ) {
          lines.add(line(part.layout(), all.next()));
        }
      }
    }
    lines.finish();
    book.finish();
  }

  private static String fitting(String text) {
    return text.length() <= LETTERS ? text : text.substring(0, LETTERS) + "…";
  }

  /** The ledger, on as many sheets as it takes. */
  private static final class Lines {
    private final Workbook book;
    private Worksheet sheet;
    private int sheets;
    private int next;

    Lines(Workbook book) {
      this.book = book;
      begin();
    }

    private void begin() {
      sheets++;
      sheet = book.newWorksheet(sheets == 1 ? "Ledger" : "Ledger " + sheets);
      sheet.freezePane(0, 1);
      next = 0;
      put(titles(), false);
      sheet.range(0, 0, 0, titles().size() - 1).style().bold().set();
    }

    void add(List<String> line) throws IOException {
      if (next > LINES) {
        sheet.finish();
        begin();
      }
      put(line, true);
      if (next % FLUSHED == 0) {
        sheet.flush();
      }
    }

    private void put(List<String> line, boolean numbered) {
      for (int c = 0; c < line.size(); c++) {
        if (c == 0 && numbered) {
          sheet.value(next, c, Long.valueOf(line.get(c)));
        } else if (!line.get(c).isEmpty()) {
          sheet.value(next, c, fitting(line.get(c)));
        }
      }
      next++;
    }

    void finish() throws IOException {
      sheet.finish();
    }
  }

  /** What it was of, the equation, the sums and the problems. */
  private final class Summary {
    private final Worksheet sheet;
    private int row;

    Summary(Worksheet sheet) {
      this.sheet = sheet;
    }

    void write() throws IOException {
      sheet.width(0, 26);
      sheet.width(1, 30);
      facts.forEach(fact -> line(fact.getKey(), fact.getValue()));
      row++;
      heads("Table", "Rows", "New", "Changed", "Unchanged", "Skipped", "Rejected", "Left over");
      for (RunReport.DestinationReport d : report.destinations()) {
        line(
            d.table(),
            d.rows(),
            d.added(),
            d.changed(),
            d.unchanged(),
            d.skipped(),
            d.rejected(),
            d.rows() - d.total());
      }
      if (!report.controlTotals().isEmpty()) {
        row++;
        heads("Sum of", "In table", "From the file", "By the application", "Written");
        for (RunReport.ControlTotal t : report.controlTotals()) {
          line(t.field(), t.destination(), t.source(), t.altered(), t.written());
        }
      }
      if (!report.problems().isEmpty()) {
        row++;
        heads("Problem", "Field", "Rows", "First line", "Value", "Reason");
        for (RunReport.ProblemGroup p : report.problems()) {
          line(
              p.code().word().replace('-', ' ') + (p.softened() ? ", let go" : ""),
              p.destination() + (p.field() == null ? "" : "." + p.field()),
              p.rows(),
              p.sample().row(),
              p.sample().value(),
              p.sample().reason());
        }
      }
      if (!report.questions().isEmpty()) {
        row++;
        heads("Not answered", "Field", "Rows");
        report
            .questions()
            .forEach(q -> line(q.value(), q.destination() + "." + q.field(), q.rows()));
      }
      row++;
      heads("Field", "In table", "Records that change in it");
      for (RunReport.DestinationReport d : report.destinations()) {
        d.fieldsChanged().forEach(f -> line(f.field(), d.table(), f.records()));
      }
      sheet.finish();
    }

    private void heads(String... titles) {
      line((Object[]) titles);
      sheet.range(row - 1, 0, row - 1, titles.length - 1).style().bold().set();
    }

    private void line(Object... cells) {
      for (int c = 0; c < cells.length; c++) {
        if (cells[c] instanceof BigDecimal number) {
          sheet.value(row, c, number);
        } else if (cells[c] instanceof Long number) {
          sheet.value(row, c, number);
        } else if (cells[c] != null) {
          sheet.value(row, c, fitting(cells[c].toString()));
        }
      }
      row++;
    }
  }
}
