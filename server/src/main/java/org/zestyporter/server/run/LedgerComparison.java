package org.zestyporter.server.run;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.Outcome;

/** Compares ledgers of the same rows, reading only the chunks that differ. */
@Component
class LedgerComparison {
  private static final int DIFFERENCES_SHOWN = 50;

  private final RunMapper runs;
  private final LedgerReader ledgers;

  LedgerComparison(RunMapper runs, LedgerReader ledgers) {
    this.runs = runs;
    this.ledgers = ledgers;
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
    LedgerLayout layout = ledgers.layout(rehearsal, destination);
    long total = 0;
    for (int i = 0; i < Math.min(rehearsed.size(), came.size()); i++) {
      if (rehearsed.get(i).fates() == came.get(i).fates()) {
        continue;
      }
      List<LedgerEntry> before = ledgers.entries(rehearsal, layout, rehearsed.get(i).number());
      List<LedgerEntry> after = ledgers.entries(run, layout, came.get(i).number());
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
    LedgerLayout ofThen = ledgers.layout(before, destination);
    LedgerLayout ofNow = ledgers.layout(now, destination);
    for (int i = 0; i < came.size(); i++) {
      // who waits and who is rejected for good is the same for the fates
      boolean mayDiffer = then.get(i).fates() != came.get(i).fates() || came.get(i).rejected() > 0;
      if (mayDiffer
          && !moves.add(
              ofNow.label(),
              ledgers.entries(before, ofThen, then.get(i).number()),
              ledgers.entries(now, ofNow, came.get(i).number()))) {
        return false;
      }
    }
    return true;
  }
}
