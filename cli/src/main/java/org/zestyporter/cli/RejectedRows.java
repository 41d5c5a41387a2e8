package org.zestyporter.cli;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.run.Returns;

/** Keeps the rejected rows of a run for the file of its returns, and hands all on to a ledger. */
final class RejectedRows implements Ledger {
  private record Row(int destination, LedgerEntry entry) {}

  private final Ledger ledger;
  private final @Nullable Path file;
  private final List<Row> rows = new ArrayList<>();

  /**
   * @param file where the returns are written; null if nobody wants them
   */
  RejectedRows(Ledger ledger, @Nullable Path file) {
    this.ledger = ledger;
    this.file = file;
  }

  @Override
  public void begin(LedgerLayout layout) {
    ledger.begin(layout);
  }

  @Override
  public void append(LedgerChunk chunk) {
    ledger.append(chunk);
    if (file != null) {
      for (LedgerEntry entry : chunk.entries()) {
        if (entry.outcome() == Outcome.REJECTED) {
          rows.add(new Row(chunk.destination(), entry));
        }
      }
    }
  }

  @Override
  public boolean isKept() {
    return file != null || ledger.isKept();
  }

  /** Writes the file, if one is wanted and any row was rejected. */
  void write(OpenedPlan opened, String run) throws IOException {
    if (file == null || rows.isEmpty()) {
      return;
    }
    Returns returns = new Returns(opened, run);
    rows.forEach(r -> returns.add(r.destination(), r.entry()));
    boolean isText = file.toString().toLowerCase(Locale.ROOT).endsWith(".csv");
    try (OutputStream out = Files.newOutputStream(file)) {
      returns.write(out, isText ? Returns.Format.CSV : Returns.Format.XLSX);
    }
  }
}
