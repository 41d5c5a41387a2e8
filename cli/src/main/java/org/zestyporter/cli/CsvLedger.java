package org.zestyporter.cli;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerEntry;

/** Writes a ledger as CSV, one line a row and destination. */
final class CsvLedger implements Ledger, AutoCloseable {
  private final CsvWriter out;
  private String table = "";

  CsvLedger(Path file) throws IOException {
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
  public void begin(int destination, String name, List<String> fields) {
    table = name;
  }

  @Override
  public void append(LedgerChunk chunk) {
    for (LedgerEntry entry : chunk.entries()) {
      LedgerEntry.Note note = entry.notes().isEmpty() ? null : entry.notes().get(0);
      out.writeRecord(
          Long.toString(entry.line()),
          table,
          entry.outcome().word(),
          entry.matchedBy() == 0 ? "" : Integer.toString(entry.matchedBy()),
          entry.recordKey() == null ? "" : entry.recordKey(),
          note == null ? "" : note.code().word(),
          note == null || note.field() == null ? "" : note.field(),
          note == null ? "" : note.reason());
    }
  }

  @Override
  public void close() throws IOException {
    out.close();
  }
}
