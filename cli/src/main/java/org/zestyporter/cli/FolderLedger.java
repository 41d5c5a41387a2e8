package org.zestyporter.cli;

import java.io.BufferedOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.run.Batch;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerCodec;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.server.store.Lasting;
import org.zestyporter.server.store.OwnerOnly;

/**
 * Keeps the ledger of a run in its folder, as pieces one after the other. It and the books of a
 * batch are on the disk before the batch is made lasting. What it hears it tells another ledger
 * too.
 */
final class FolderLedger implements Ledger, AutoCloseable {
  private final KeptRun run;
  private final Ledger other;
  private final List<LedgerLayout> layouts;
  private final DataOutputStream out;
  private long bytes;
  private int batch;

  /** Begins a ledger, or goes on with what stands of it. */
  FolderLedger(KeptRun run, Ledger other) throws IOException {
    RunDescription d = run.description();
    this.run = run;
    this.other = other;
    this.layouts = new ArrayList<>(d.layouts());
    this.bytes = d.stands().bytes();
    this.batch = d.stands().batches() + 1;
    if (!Files.exists(run.ledger())) {
      OwnerOnly.file(run.ledger());
    }
    try (FileChannel channel = FileChannel.open(run.ledger(), StandardOpenOption.WRITE)) {
      channel.truncate(bytes);
    }
    this.out =
        new DataOutputStream(
            new BufferedOutputStream(
                Files.newOutputStream(run.ledger(), StandardOpenOption.APPEND)));
  }

  @Override
  public void begin(LedgerLayout layout) {
    if (!layouts.contains(layout)) {
      layouts.add(layout);
    }
    other.begin(layout);
  }

  @Override
  public void append(LedgerChunk chunk) {
    write(chunk, false);
    if (other.isKept()) {
      other.append(chunk);
    }
  }

  @Override
  public void open(LedgerChunk chunk) {
    write(chunk, true);
  }

  @Override
  public void made(LedgerChunk chunk) {
    if (!layouts.contains(chunk.layout())) {
      layouts.add(chunk.layout());
    }
    write(chunk, false);
    other.made(chunk);
  }

  private void write(LedgerChunk chunk, boolean isOpen) {
    byte[] packed = LedgerCodec.encode(chunk);
    try {
      out.writeInt(chunk.destination());
      out.writeInt(batch);
      out.writeBoolean(isOpen);
      out.writeInt(packed.length);
      out.write(packed);
      bytes += FolderPast.HEAD + packed.length;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Override
  public void beforeCommit(Batch next, RunReport report, @Nullable String mark) {
    try {
      out.flush();
      Lasting.force(run.ledger());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    RunDescription.Part part = new RunDescription.Part(next.number(), next.rows(), bytes, report);
    run.write(run.description().committing(part, mark, layouts));
    other.beforeCommit(next, report, mark);
  }

  @Override
  public void committed(Batch stands) {
    run.write(run.description().committed(stands.last()));
    batch = stands.number() + 1;
    other.committed(stands);
  }

  @Override
  public void close() throws IOException {
    out.close();
  }
}
