package org.zestyporter.server.run;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.LocalDateTime;
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
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.value.ErrorCode;

/** Reads pages of a ledger, passing over chunks that hold nothing of what is asked. */
@Component
class LedgerReader {
  private static final int DIFFERENCES_SHOWN = 50;
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
        ? Integer.valueOf(chunk.count(filter.outcome() == null ? -1 : filter.outcome().ordinal()))
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

  private List<LedgerEntry> entries(long execution, LedgerLayout layout, int number) {
    byte[] packed = runs.chunk(execution, layout.destination(), number).entries();
    return LedgerCodec.isOurs(packed)
        ? LedgerCodec.decode(packed, layout).entries()
        : OldLedger.entries(packed);
  }

  /**
   * A row that came out otherwise than it was rehearsed.
   *
   * @param why what changed in between, in words
   */
  record Difference(long line, Outcome rehearsed, Outcome came, String why) {}

  /**
   * Differences between a rehearsal and the run that followed; {@code first} holds some of them.
   */
  record Differences(long total, List<Difference> first) {}

  /** How a run differs from what was rehearsed, if it follows a rehearsal. */
  Differences differences(@Nullable ExecutionRecord run) {
    return run == null || run.rehearsalId() == null
        ? new Differences(0, List.of())
        : differences(run.rehearsalId(), run.id());
  }

  /** Compares a run with its rehearsal, reading only the chunks that differ. */
  Differences differences(long rehearsal, long run) {
    List<Difference> first = new ArrayList<>();
    long total = 0;
    for (int destination : runs.destinations(run)) {
      total += differences(rehearsal, run, destination, first);
    }
    return new Differences(total, first);
  }

  private long differences(long rehearsal, long run, int destination, List<Difference> first) {
    List<ChunkRecord> rehearsed = runs.chunks(rehearsal, destination);
    List<ChunkRecord> came =
        runs.chunks(run, destination).stream().filter(c -> !c.isOpen()).toList();
    LedgerLayout layout = layout(rehearsal, destination);
    long total = 0;
    for (int i = 0; i < Math.min(rehearsed.size(), came.size()); i++) {
      if (rehearsed.get(i).fates() == came.get(i).fates()) {
        continue;
      }
      List<LedgerEntry> before = entries(rehearsal, layout, rehearsed.get(i).number());
      List<LedgerEntry> after = entries(run, layout, came.get(i).number());
      for (int r = 0; r < Math.min(before.size(), after.size()); r++) {
        if (differ(before.get(r), after.get(r))) {
          total++;
          if (first.size() < DIFFERENCES_SHOWN) {
            first.add(difference(before.get(r), after.get(r)));
          }
        }
      }
    }
    return total;
  }

  private static boolean differ(LedgerEntry a, LedgerEntry b) {
    return a.outcome() != b.outcome() || !a.changed().equals(b.changed());
  }

  private static Difference difference(LedgerEntry rehearsed, LedgerEntry came) {
    String why;
    if (rehearsed.before() == null && came.before() != null) {
      why = "the record was added in between";
    } else if (rehearsed.before() != null && came.before() == null) {
      why = "the record was removed in between";
    } else if (rehearsed.before() != null && !rehearsed.before().equals(came.before())) {
      why = "the record was edited in between";
    } else {
      why = "a linked or unique value changed in between";
    }
    return new Difference(came.line(), rehearsed.outcome(), came.outcome(), why);
  }

  /** What becomes of the fields of a destination, those of most records first. */
  List<FieldSummary.Changed> fields(long execution, int destination) {
    LedgerLayout layout = layout(execution, destination);
    FieldSummary summary = new FieldSummary();
    for (ChunkRecord chunk : runs.chunks(execution, destination)) {
      if (chunk.changed() + chunk.unchanged() > 0) {
        summary.add(chunk(execution, layout, chunk.number()));
      }
    }
    return summary.result();
  }

  /**
   * Rows that come out otherwise than in the rehearsal before.
   *
   * @param table what the destination is called
   * @param from an outcome, or {@code waiting}
   * @param lines the first of them
   */
  record Move(String table, String from, String to, long rows, List<Long> lines) {}

  /**
   * How a rehearsal differs from the one before.
   *
   * @param comparable false if other rows were read then
   * @param moves most rows first
   */
  record Since(LocalDateTime at, boolean comparable, List<Move> moves) {}

  /** How a rehearsal differs from the one before; null if there is none, or it is no rehearsal. */
  @Nullable Since since(ExecutionRecord rehearsal) {
    ExecutionRecord before =
        rehearsal.kind().equals(RunService.REHEARSAL) ? runs.doneBefore(rehearsal) : null;
    if (before == null) {
      return null;
    }
    Moves moves = new Moves();
    for (int destination : runs.destinations(rehearsal.id())) {
      if (rehearsal.sourceId() != before.sourceId()
          || !compare(before.id(), rehearsal.id(), destination, moves)) {
        return new Since(before.startedAt(), false, List.of());
      }
    }
    return new Since(before.startedAt(), true, moves.told());
  }

  /** Compares the entries of two ledgers; false if they are not of the same rows. */
  private boolean compare(long before, long now, int destination, Moves moves) {
    List<ChunkRecord> then = runs.chunks(before, destination);
    List<ChunkRecord> came = runs.chunks(now, destination);
    if (then.size() != came.size()) {
      return false;
    }
    LedgerLayout ofThen = layout(before, destination);
    LedgerLayout ofNow = layout(now, destination);
    for (int i = 0; i < came.size(); i++) {
      // who waits and who is rejected for good is the same for the fates
      boolean mayDiffer = then.get(i).fates() != came.get(i).fates() || came.get(i).rejected() > 0;
      if (mayDiffer
          && !moves.add(
              ofNow.label(),
              entries(before, ofThen, then.get(i).number()),
              entries(now, ofNow, came.get(i).number()))) {
        return false;
      }
    }
    return true;
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
