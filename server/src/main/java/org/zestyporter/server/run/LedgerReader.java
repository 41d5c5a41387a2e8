package org.zestyporter.server.run;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.AbstractList;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.zestyporter.core.run.FieldSummary;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerCodec;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.SideBySide;

/** Reads pages of a ledger, passing over chunks that hold nothing of what is asked. */
@Component
class LedgerReader {
  private static final int COUNTS_KEPT = 100_000;
  private static final int CHUNKS_KEPT = 8;

  private final RunMapper runs;

  /** How many entries of closed chunks fit what was looked for, so that no page counts again. */
  private final Cache<Counted, Integer> counted =
      Caffeine.newBuilder().maximumSize(COUNTS_KEPT).build();

  /** Whoever goes through a ledger sees one chunk for a while. */
  private final Cache<Shown, LedgerChunk> shown =
      Caffeine.newBuilder()
          .maximumSize(CHUNKS_KEPT)
          .expireAfterAccess(Duration.ofMinutes(1))
          .executor(Runnable::run)
          .build();

  private record Shown(long execution, int destination, int chunk, long fates) {}

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
    List<ChunkRecord> chunks =
        runs.chunks(execution, destination).stream().filter(c -> !filter.passesOver(c)).toList();
    int[] counts = counts(layout, chunks, filter);
    List<LedgerEntry> found = new ArrayList<>();
    long total = 0;
    for (int i = 0; i < counts.length; i++) {
      if (counts[i] > 0 && total + counts[i] > offset && found.size() < limit) {
        List<LedgerEntry> fitting = fitting(chunks.get(i), layout, filter);
        int from = (int) Math.max(0, offset - total);
        int most = Math.min(counts[i] - from, limit - found.size());
        found.addAll(fitting.subList(from, from + most));
      }
      total += counts[i];
    }
    return new LedgerPage(layout.fields(), total, found);
  }

  /** How many entries of each chunk fit; those that nobody has counted are read side by side. */
  private int[] counts(LedgerLayout layout, List<ChunkRecord> chunks, LedgerFilter filter) {
    int[] counts = new int[chunks.size()];
    List<Integer> unknown = new ArrayList<>();
    for (int i = 0; i < counts.length; i++) {
      ChunkRecord chunk = chunks.get(i);
      Integer known =
          filter.isToldByCounts()
              ? Integer.valueOf(filter.atMost(chunk))
              : counted.getIfPresent(new Counted(chunk, filter));
      counts[i] = known == null ? 0 : known;
      if (known == null) {
        unknown.add(i);
      }
    }
    SideBySide.go(
        unknown.size(),
        1,
        (from, to) -> {
          for (int at : unknown.subList(from, to)) {
            ChunkRecord chunk = chunks.get(at);
            counts[at] = count(chunk, layout, filter);
            if (!chunk.isOpen()) {
              counted.put(new Counted(chunk, filter), counts[at]);
            }
          }
        });
    return counts;
  }

  private int count(ChunkRecord chunk, LedgerLayout layout, LedgerFilter filter) {
    byte[] packed = packed(chunk);
    return LedgerCodec.isOurs(packed)
        ? filter.wanted(LedgerCodec.decodeRows(packed, layout)).cardinality()
        : old(packed, layout, filter).size();
  }

  private List<LedgerEntry> fitting(ChunkRecord chunk, LedgerLayout layout, LedgerFilter filter) {
    Shown key = new Shown(chunk.executionId(), chunk.destination(), chunk.number(), chunk.fates());
    LedgerChunk kept = chunk.isOpen() ? null : shown.getIfPresent(key);
    byte[] packed = kept == null ? packed(chunk) : null;
    if (kept == null && !LedgerCodec.isOurs(packed)) {
      return old(packed, layout, filter);
    }
    LedgerChunk decoded = kept == null ? LedgerCodec.decode(packed, layout) : kept;
    if (!chunk.isOpen()) {
      shown.put(key, decoded);
    }
    int[] wanted = filter.wanted(decoded).stream().toArray();
    return new AbstractList<>() {
      @Override
      public LedgerEntry get(int index) {
        return decoded.entries().get(wanted[index]);
      }

      @Override
      public int size() {
        return wanted.length;
      }
    };
  }

  private static List<LedgerEntry> old(byte[] packed, LedgerLayout layout, LedgerFilter filter) {
    return OldLedger.entries(packed).stream()
        .filter(entry -> filter.takes(entry, layout.fields()))
        .toList();
  }

  private byte[] packed(ChunkRecord chunk) {
    return runs.chunk(chunk.executionId(), chunk.destination(), chunk.number()).entries();
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
