package org.zestyporter.cli;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerCodec;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.undo.Past;

/** What a run of the command line did, by the ledger in its folder. */
final class FolderPast implements Past, AutoCloseable {
  /** Bytes before a chunk: its destination, its batch, whether it was open, its length. */
  static final int HEAD = 13;

  private final RunDescription run;
  private final RandomAccessFile file;
  private final RunDescription.Part part;
  private final List<Piece> pieces = new ArrayList<>();

  /** Where a chunk lies. */
  private record Piece(int destination, boolean isOpen, long at, int length) {}

  /** What stands of a run. */
  FolderPast(KeptRun kept) throws IOException {
    this(kept, kept.description().stands());
  }

  /** A run up to the end of a part of it. */
  FolderPast(KeptRun kept, RunDescription.Part part) throws IOException {
    this.run = kept.description();
    this.part = part;
    this.file = new RandomAccessFile(kept.ledger().toFile(), "r");
    boolean isDone = part.report() != null && part.report().state().equals("done");
    List<Piece> open = new ArrayList<>();
    for (long at = 0; at < part.bytes(); ) {
      file.seek(at);
      int destination = file.readInt();
      int batch = file.readInt();
      Piece piece = new Piece(destination, file.readBoolean(), at + HEAD, file.readInt());
      if (!piece.isOpen()) {
        pieces.add(piece);
      } else if (!isDone && batch == part.batches()) {
        // what was open before was told anew since
        open.add(piece);
      }
      at = piece.at() + piece.length();
    }
    pieces.addAll(open);
  }

  @Override
  public String plan() {
    return run.plan();
  }

  @Override
  public String source() {
    return run.context().fileName();
  }

  @Override
  public List<LedgerLayout> layouts() {
    return Past.asWritten(run.layouts(), isUndo());
  }

  private List<Piece> piecesOf(LedgerLayout layout) {
    return pieces.stream().filter(p -> p.destination() == layout.destination()).toList();
  }

  @Override
  public int chunks(LedgerLayout layout) {
    return piecesOf(layout).size();
  }

  @Override
  public int closed(LedgerLayout layout) {
    return (int) piecesOf(layout).stream().filter(p -> !p.isOpen()).count();
  }

  @Override
  public LedgerChunk chunk(LedgerLayout layout, int number) {
    return read(piecesOf(layout).get(number), layout);
  }

  /** Tells a ledger that is written anew what stands. */
  void tell(Ledger anew) {
    for (LedgerLayout layout : layouts()) {
      for (int number = 0; anew.isKept() && !layout.isMade() && number < closed(layout); number++) {
        anew.append(chunk(layout, number));
      }
    }
  }

  /** True if rows wait for others further on. */
  boolean waits() {
    return pieces.stream().anyMatch(Piece::isOpen);
  }

  /** All entries of a part. */
  Stream<LedgerEntry> entries(LedgerLayout layout) {
    return IntStream.range(0, chunks(layout))
        .mapToObj(number -> chunk(layout, number))
        .flatMap(chunk -> chunk.entries().stream());
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
    return part.report().destinations().stream()
        .mapToLong(d -> d.added() + d.changed() + (d.removed() == null ? 0 : d.removed()))
        .sum();
  }

  @Override
  public void close() throws IOException {
    file.close();
  }
}
