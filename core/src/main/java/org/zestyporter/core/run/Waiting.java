package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.fill.Awaited;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.fill.LinkKey;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.match.Match;
import org.zestyporter.core.match.RowIndex;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.value.LongMap;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;

/**
 * Knows which records rows make that others need: by links of other rows, in whatever order they
 * stand, and by the records that belong to them.
 */
final class Waiting {
  private final List<Target> targets;
  private final BitSet decided;
  private final BitSet written;
  private final boolean needed;

  /** Records that links await, by what they are looked up by. */
  private final Map<LinkKey, LongMap<RowRecord>> records = new HashMap<>();

  /** Why records that links await are not made yet: their rows wait for an answer. */
  private final Map<LinkKey, Map<Long, String>> keptBack = new HashMap<>();

  /** Links of records that go round in circles, to be set once all of them are there. */
  private final List<Circle> circles = new ArrayList<>();

  private final Set<TargetRows> held = new HashSet<>();

  private record Circle(TargetRows rows, int r, int fill, Awaited awaited) {}

  Waiting(List<Target> targets, BitSet decided, BitSet written) {
    this.targets = targets;
    this.decided = decided;
    this.written = written;
    this.needed = targets.stream().anyMatch(t -> t.awaiting.length > 0 || t.parent != null);
  }

  /** True if any record can need that of another row. */
  boolean isNeeded() {
    return needed;
  }

  /** The row that has to be written before another one; -1 if there is none. */
  int rowThatKeeps(ChunkRows chunk, int row) {
    for (TargetRows rows : chunk.targets()) {
      for (int r = rows.from(row); r < rows.to(row); r++) {
        int on = rowThatKeeps(chunk, rows, r, row);
        if (on >= 0) {
          return on;
        }
      }
    }
    return -1;
  }

  private int rowThatKeeps(ChunkRows chunk, TargetRows rows, int r, int row) {
    Target target = rows.target;
    int own = chunk.first() + row;
    for (int f : target.awaiting) {
      if (rows.value(f, r) instanceof Awaited awaited) {
        int on = maker(chunk, row, target, awaited);
        if (on >= 0) {
          return on;
        }
      }
    }
    if (target.parent == null || target.parent.target().destination.distinct()) {
      return -1;
    }
    Target parent = target.parent.target();
    TargetRows above = chunk.targets().get(parent.index);
    int p = above.from(row);
    if (above.isRejected(p)) {
      return -1;
    }
    Match match = parent.matcher.match(above.first + p, above.byField, p);
    int kept = match.repeated() ? match.kept(parent.destination.policies()) : -1;
    int source = kept < 0 ? own : parent.sources.source(kept);
    return source != own && !decided.get(source) ? source : -1;
  }

  /** The row that makes an awaited record and has not done so; -1 if there is none. */
  private int maker(ChunkRows chunk, int row, Target target, Awaited awaited) {
    for (Target makes : targets) {
      RowIndex index = makes.made.get(awaited.by());
      if (index == null) {
        continue;
      }
      long hashed = index.hash(awaited.parts());
      int[] found = index.rows(hashed);
      boolean before = makes.index < target.index;
      boolean known = record(awaited.by(), hashed) != null;
      if (found == null || before && (known || inRow(chunk, row, makes, index, hashed))) {
        continue;
      }
      BitSet done = before ? decided : written;
      Policies.OnRepeat onRepeat = makes.destination.policies().onRepeat();
      boolean lastFirst =
          onRepeat == Policies.OnRepeat.KEEP_LAST || onRepeat == Policies.OnRepeat.ASK;
      for (int place : lastFirst ? new int[] {found[1], found[0]} : found) {
        int source = makes.sources.source(place);
        if (before && source == chunk.first() + row) {
          break;
        }
        if (!done.get(source)) {
          return source;
        }
      }
    }
    return -1;
  }

  /** True if a row itself makes a record, or its like is made by the first row that stands. */
  private static boolean inRow(
      ChunkRows chunk, int row, Target makes, RowIndex index, long hashed) {
    if (!makes.destination.distinct()) {
      return false;
    }
    TargetRows rows = chunk.targets().get(makes.index);
    for (int r = rows.from(row); r < rows.to(row); r++) {
      if (index.hash(rows.byField, r) == hashed) {
        return true;
      }
    }
    return false;
  }

  /** Puts what is known now in the place of links that awaited it. */
  void settle(TargetRows rows, int r) {
    for (int f : rows.target.awaiting) {
      if (rows.value(f, r) instanceof Awaited awaited) {
        Object link = known(awaited);
        rows.settle(f, r, link == null ? missing(awaited) : new Filled(link, null, false, false));
      }
    }
  }

  /** What a link gives whose record is not there, nor made by any row before. */
  private Filled missing(Awaited awaited) {
    for (Target makes : awaited.missing().rejects() ? targets : List.<Target>of()) {
      RowIndex index = makes.made.get(awaited.by());
      Map<Long, String> known = keptBack.get(awaited.by());
      String why = index == null || known == null ? null : known.get(index.hash(awaited.parts()));
      if (why != null) {
        return new Filled(null, new Problem(ProblemCode.PARENT, awaited.shown(), why), false, true);
      }
    }
    return awaited.missing();
  }

  /**
   * Notes that the record of a row is made once somebody answers, or that it is not after all.
   *
   * @param why what it waits for; null if it is rejected for another reason
   */
  void keepBack(TargetRows rows, int r, @Nullable String why) {
    rows.target.made.forEach(
        (key, index) -> {
          long hashed = index.hash(rows.byField, r);
          if (hashed == 0 || !index.isWanted(hashed)) {
            return;
          }
          Map<Long, String> known = keptBack.computeIfAbsent(key, k -> new HashMap<>());
          if (why == null) {
            known.remove(hashed);
          } else {
            known.put(
                hashed,
                "kept back as the record of "
                    + rows.target.label()
                    + " is that line "
                    + rows.line(r)
                    + " makes: "
                    + why);
          }
        });
  }

  private @Nullable Object known(Awaited awaited) {
    for (Target makes : targets) {
      RowIndex index = makes.made.get(awaited.by());
      RowRecord record = index == null ? null : record(awaited.by(), index.hash(awaited.parts()));
      if (record != null) {
        return record.link(awaited.key());
      }
    }
    return null;
  }

  /** The record that is known by what links look up; null if none is yet. */
  private @Nullable RowRecord record(LinkKey by, long hashed) {
    LongMap<RowRecord> known = records.get(by);
    return known == null ? null : known.get(hashed);
  }

  /** Notes the record that a decided row made or matched. */
  void know(TargetRows rows, int r) {
    if (rows.records != null && rows.records[r] != null) {
      rows.target.made.forEach(
          (key, index) -> {
            long hashed = index.hash(rows.byField, r);
            if (hashed != 0 && index.isWanted(hashed)) {
              records.computeIfAbsent(key, k -> new LongMap<>()).put(hashed, rows.records[r]);
            }
          });
    }
  }

  /** Forgets the record of a row that is not written after all. */
  void forget(TargetRows rows, int r) {
    if (rows.records != null && rows.records[r] != null) {
      rows.target.made.forEach(
          (key, index) -> {
            long hashed = index.hash(rows.byField, r);
            if (record(key, hashed) == rows.records[r]) {
              records.get(key).remove(hashed);
            }
          });
    }
  }

  /** Leaves links open that wait for records which wait for this one. */
  void breakCircle(TargetRows rows, int r) {
    for (int f : rows.target.awaiting) {
      if (rows.value(f, r) instanceof Awaited awaited && known(awaited) == null) {
        boolean open = rows.target.fills.get(f).field().nullable();
        if (open) {
          rows.settle(f, r, new Filled(null, null, false, false));
          circles.add(new Circle(rows, r, f, awaited));
          held.add(rows);
        } else {
          rows.settle(f, r, new Filled(null, inCircle(awaited), false, false));
        }
      }
    }
  }

  private static Problem inCircle(Awaited awaited) {
    return new Problem(
        ProblemCode.CIRCLE,
        awaited.shown(),
        "the record that it points at waits for this one, and neither can be written first");
  }

  /** True if rows of a chunk have links that are still open. */
  boolean isHeld(ChunkRows chunk) {
    return !held.isEmpty() && chunk.targets().stream().anyMatch(held::contains);
  }

  /** Sets the links that go round in circles, now that all records are there. */
  void closeCircles(LastStage last) {
    for (Circle circle : circles) {
      TargetRows rows = circle.rows();
      int r = circle.r();
      if (rows.outcomes[r] > Outcome.CHANGED.ordinal()) {
        continue;
      }
      Object link = known(circle.awaited());
      if (link == null) {
        Problem problem = circle.awaited().missing().problem();
        rows.settle(circle.fill(), r, new Filled(null, problem, true, false));
        rows.note(
            r,
            new LedgerEntry.Note(
                problem.code(),
                rows.target.fills.get(circle.fill()).field().name(),
                problem.value(),
                problem.reason() + "; left blank, since the rest was written already",
                true));
        continue;
      }
      rows.settle(circle.fill(), r, new Filled(link, null, false, false));
      if (last.writes()) {
        Object key = link instanceof Pending pending ? pending.key() : link;
        List<Object> values = new ArrayList<>();
        values.add(key);
        last.write(
            rows.target.table,
            List.of(
                new WriteSession.Change(
                    rows.line(r),
                    rows.keys[r],
                    List.of(rows.target.fills.get(circle.fill()).fieldIndex()),
                    values)),
            false);
        Records now = last.readBack(rows.target.table, List.of(rows.keys[r]));
        if (last.stays() && now.at(rows.keys[r]) >= 0) {
          rows.leave(r, now, now.at(rows.keys[r]));
        }
      }
    }
    circles.clear();
    held.clear();
  }
}
