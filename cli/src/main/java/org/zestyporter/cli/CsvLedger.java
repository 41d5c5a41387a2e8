package org.zestyporter.cli;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.nio.file.Path;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.LedgerLines;
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
    out.writeRecord(LedgerLines.TITLES);
  }

  @Override
  public void begin(LedgerLayout layout) {
    // each entry says where it belongs
  }

  @Override
  public void append(LedgerChunk chunk) {
    for (LedgerEntry entry : chunk.entries()) {
      out.writeRecord(LedgerLines.of(chunk.layout(), entry).stream().map(this::cell).toList());
    }
  }

  private String cell(String text) {
    return raw ? text : HarmlessCells.guard(text);
  }

  @Override
  public void close() throws IOException {
    if (!closed) {
      closed = true;
      out.close();
    }
  }
}
