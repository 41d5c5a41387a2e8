package org.zestyporter.cli;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.nio.file.Path;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.value.HarmlessCells;

/** Writes a ledger as CSV, one line a row and destination. */
final class CsvLedger implements Ledger, AutoCloseable {
  private final CsvWriter out;
  private final boolean raw;
  private boolean closed;

  /**
   * @param raw true if cells are written as they are, even if a spreadsheet takes them for formulas
   */
  CsvLedger(Path file, boolean raw) throws IOException {
    this.raw = raw;
    out = CsvWriter.builder().build(file);
    out.writeRecord(
        "row",
        "destination",
        "outcome",
        "matched_by",
        "record_key",
        "problem_code",
        "field",
        "reason");
  }

  @Override
  public void begin(LedgerLayout layout) {
    // each entry says where it belongs
  }

  @Override
  public void append(LedgerChunk chunk) {
    for (LedgerEntry entry : chunk.entries()) {
      out.writeRecord(
          Long.toString(entry.line()),
          cell(chunk.layout().label()),
          entry.outcome().word(),
          entry.matchedBy() == 0 ? "" : Integer.toString(entry.matchedBy()),
          cell(entry.recordKey()),
          cell(all(entry, note -> note.code().word())),
          cell(all(entry, LedgerEntry.Note::field)),
          cell(all(entry, LedgerEntry.Note::reason)));
    }
  }

  /** What all notes of a row say, in their order, so that the parts of the columns correspond. */
  private static String all(LedgerEntry entry, Function<LedgerEntry.Note, String> part) {
    return entry.notes().stream()
        .map(part)
        .map(p -> p == null ? "" : p)
        .collect(Collectors.joining("; "));
  }

  private String cell(String text) {
    String bare = text == null ? "" : text;
    return raw ? bare : HarmlessCells.guard(bare);
  }

  @Override
  public void close() throws IOException {
    if (!closed) {
      closed = true;
      out.close();
    }
  }
}
