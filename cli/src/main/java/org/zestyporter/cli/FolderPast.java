package org.zestyporter.cli;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.function.Consumer;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerCodec;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.undo.Past;

/** What a run of the command line did, by the ledger in its folder. */
final class FolderPast implements Past, AutoCloseable {
  private final KeptRun.Description run;
  private final RandomAccessFile file;
  private final List<Piece> pieces = new ArrayList<>();

  /** Where a chunk lies. */
  private record Piece(int destination, long at, int length) {}

  FolderPast(KeptRun kept) throws IOException {
    this.run = kept.description();
    this.file = new RandomAccessFile(kept.ledger().toFile(), "r");
    for (long at = 0; at < file.length(); ) {
      file.seek(at);
      Piece piece = new Piece(file.readInt(), at + 8, file.readInt());
      pieces.add(piece);
      at = piece.at() + piece.length();
    }
  }

  @Override
  public String plan() {
    return run.plan();
  }

  @Override
  public String source() {
    return run.source();
  }

  @Override
  public List<LedgerLayout> layouts() {
    return Past.asWritten(run.layouts(), isUndo());
  }

  @Override
  public void fromTheLast(LedgerLayout layout, Consumer<LedgerChunk> chunk) {
    List<Piece> own =
        new ArrayList<>(
            pieces.stream().filter(p -> p.destination() == layout.destination()).toList());
    Collections.reverse(own);
    own.forEach(piece -> chunk.accept(read(piece, layout)));
  }

  private LedgerChunk read(Piece piece, LedgerLayout layout) {
    byte[] packed = new byte[piece.length()];
    try {
      file.seek(piece.at());
      file.readFully(packed);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return LedgerCodec.decode(packed, layout);
  }

  @Override
  public boolean isUndo() {
    return run.undoes() != null;
  }

  /** Number of records that the run added, changed or removed. */
  long size() {
    return run.report().destinations().stream()
        .mapToLong(d -> d.added() + d.changed() + (d.removed() == null ? 0 : d.removed()))
        .sum();
  }

  @Override
  public void close() throws IOException {
    file.close();
  }
}
