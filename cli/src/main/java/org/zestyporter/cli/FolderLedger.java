package org.zestyporter.cli;

import java.io.BufferedOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerCodec;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.server.store.Lasting;
import org.zestyporter.server.store.OwnerOnly;

/**
 * Keeps the ledger of a run in its folder: for each chunk the number of its destination, its length
 * and its bytes. It and the books are on the disk before the run is made lasting. What it hears it
 * tells another ledger too.
 */
final class FolderLedger implements Ledger, AutoCloseable {
  private final KeptRun run;
  private final Ledger other;
  private final List<LedgerLayout> layouts = new ArrayList<>();
  private final DataOutputStream out;

  FolderLedger(KeptRun run, Ledger other) throws IOException {
    this.run = run;
    this.other = other;
    this.out =
        new DataOutputStream(
            new BufferedOutputStream(Files.newOutputStream(OwnerOnly.file(run.ledger()))));
  }

  @Override
  public void begin(LedgerLayout layout) {
    layouts.add(layout);
    other.begin(layout);
  }

  @Override
  public void append(LedgerChunk chunk) {
    write(chunk);
    if (other.isKept()) {
      other.append(chunk);
    }
  }

  @Override
  public void made(LedgerChunk chunk) {
    if (!layouts.contains(chunk.layout())) {
      layouts.add(chunk.layout());
    }
    write(chunk);
    other.made(chunk);
  }

  private void write(LedgerChunk chunk) {
    byte[] packed = LedgerCodec.encode(chunk);
    try {
      out.writeInt(chunk.destination());
      out.writeInt(packed.length);
      out.write(packed);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Override
  public void beforeCommit(RunReport report, @Nullable String mark) {
    try {
      out.close();
      Lasting.force(run.ledger());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    KeptRun.Description d = run.description();
    run.write(
        new KeptRun.Description(
            d.number(),
            d.plan(),
            d.source(),
            d.url(),
            "committing",
            mark,
            d.undoes(),
            d.undoneBy(),
            layouts,
            report));
    other.beforeCommit(report, mark);
  }

  @Override
  public void close() throws IOException {
    out.close();
  }
}
