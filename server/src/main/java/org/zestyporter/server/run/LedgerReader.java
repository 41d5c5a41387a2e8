package org.zestyporter.server.run;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.zestyporter.core.run.FieldSummary;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerCodec;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.value.ErrorCode;

/** Reads pages of a ledger, passing over chunks that hold nothing of what is asked. */
@Component
class LedgerReader {
  private static final int COUNTS_KEPT = 100_000;

  private final RunMapper runs;

  /** How many entries of closed chunks fit what was looked for, so that no page counts again. */
  private final Cache<Counted, Integer> counted =
      Caffeine.newBuilder().maximumSize(COUNTS_KEPT).build();

  /** A chunk that was cut off may be written anew, so what came of its rows tells it as well. */
  private record Counted(
      long execution, int destination, int chunk, long fates, LedgerFilter filter) {
    Counted(ChunkRecord chunk, LedgerFilter filter) {
      this(chunk.executionId(), chunk.destination(), chunk.number(), chunk.fates(), filter);
    }
  }

  LedgerReader(RunMapper runs) {
    this.runs = runs;
  }

  /** A page of a ledger; {@code total} counts all entries that fit. */
  record LedgerPage(List<String> fields, long total, List<LedgerEntry> entries) {}

  /**
   * @param destination index of the destination in the plan
   */
  LedgerPage page(long execution, int destination, LedgerFilter filter, long offset, int limit) {
    LedgerLayout layout = layout(execution, destination);
    List<LedgerEntry> found = new ArrayList<>();
    long total = 0;
    for (ChunkRecord chunk : runs.chunks(execution, destination)) {
      if (filter.passesOver(chunk)) {
        continue;
      }
      Integer count = count(chunk, filter);
      if (count != null && !within(total, count, offset, limit)) {
        total += count;
        continue;
      }
      int fitting = 0;
      for (LedgerEntry entry : entries(execution, layout, chunk.number())) {
        if (filter.takes(entry, layout.fields())) {
          if (total + fitting >= offset && found.size() < limit) {
            found.add(entry);
          }
          fitting++;
        }
      }
      total += fitting;
      if (!chunk.isOpen()) {
        counted.put(new Counted(chunk, filter), fitting);
      }
    }
    return new LedgerPage(layout.fields(), total, found);
  }

  /** How many entries of a chunk fit, if that is known without reading it. */
  private @Nullable Integer count(ChunkRecord chunk, LedgerFilter filter) {
    return filter.isToldByCounts()
        ? Integer.valueOf(filter.atMost(chunk))
        : counted.getIfPresent(new Counted(chunk, filter));
  }

  private static boolean within(long before, int count, long offset, int limit) {
    return before + count > offset && before < offset + limit;
  }

  /** A chunk as it is kept. */
  LedgerChunk chunk(long execution, LedgerLayout layout, int number) {
    byte[] packed = runs.chunk(execution, layout.destination(), number).entries();
    if (!LedgerCodec.holdsLeft(packed)) {
      throw ErrorCode.CANT_UNDO.error(
          "This run was made before runs could be undone: its ledger does not hold the records as"
              + " it left them.",
          "Undo what it did by hand, with the help of its ledger.");
    }
    return LedgerCodec.decode(packed, layout);
  }

  /** What the entries of a destination hold; of no fields if there is no ledger. */
  LedgerLayout layout(long execution, int destination) {
    LedgerLayout layout = StoredLedger.layout(runs.fields(execution, destination));
    return layout == null
        ? new LedgerLayout(destination, "", "", List.of(), List.of(), List.of(), List.of())
        : layout;
  }

  /** All entries of a destination, in the order of the file. */
  Stream<LedgerEntry> all(long execution, LedgerLayout layout) {
    return runs.chunks(execution, layout.destination()).stream()
        .flatMap(chunk -> entries(execution, layout, chunk.number()).stream());
  }

  /** The entries of a chunk. */
  List<LedgerEntry> entries(long execution, LedgerLayout layout, int number) {
    byte[] packed = runs.chunk(execution, layout.destination(), number).entries();
    return LedgerCodec.isOurs(packed)
        ? LedgerCodec.decode(packed, layout).entries()
        : OldLedger.entries(packed);
  }

  /** What becomes of the fields of a destination, those of most records first. */
  List<FieldSummary.Changed> fields(long execution, int destination) {
    LedgerLayout layout = layout(execution, destination);
    FieldSummary summary = new FieldSummary();
    for (ChunkRecord chunk : runs.chunks(execution, destination)) {
      byte[] packed =
          chunk.changed() == 0 && chunk.unchanged() == 0
              ? null
              : runs.chunk(execution, destination, chunk.number()).entries();
      // ledgers of early versions hold no records
      if (packed != null && LedgerCodec.isOurs(packed)) {
        summary.add(LedgerCodec.decode(packed, layout));
      }
    }
    return summary.result();
  }

  /** The first entry of a line in the first destination. */
  LedgerEntry line(long execution, long line) {
    LedgerLayout layout = layout(execution, 0);
    for (ChunkRecord chunk : runs.chunks(execution, 0)) {
      if (line >= chunk.firstLine() && line <= chunk.lastLine()) {
        for (LedgerEntry entry : entries(execution, layout, chunk.number())) {
          if (entry.line() == line) {
            return entry;
          }
        }
      }
    }
    throw ErrorCode.NO_SUCH_LINE.error("The ledger has no line " + line + ".");
  }
}
