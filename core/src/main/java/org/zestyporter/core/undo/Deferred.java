package org.zestyporter.core.undo;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import org.zestyporter.core.application.Halving;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.application.WriteSession.Change;
import org.zestyporter.core.application.WriteSession.Refusal;
import org.zestyporter.core.application.WriteSession.Removal;
import org.zestyporter.core.run.Outcome;

/**
 * Has what was decided written. What the database refuses may only have to wait for something else
 * that is taken back later, so it is tried again once all the rest is done.
 */
final class Deferred {
  /** Entries that may wait; with more, what is refused is told at once. */
  private static final int MOST = 50_000;

  private final WriteSession session;
  private final boolean backwards;

  /** The entries that were refused, with the last reason, by their chunks. */
  private final Map<UndoneChunk, Map<Integer, String>> refused = new LinkedHashMap<>();

  private int waiting;

  /**
   * @param backwards true if what was written last in a chunk goes first
   */
  Deferred(WriteSession session, boolean backwards) {
    this.session = session;
    this.backwards = backwards;
  }

  /** Writes a chunk; true if some of it has to wait. */
  boolean write(UndoneChunk chunk) {
    List<Integer> all = new ArrayList<>();
    for (int e = 0; e < chunk.size(); e++) {
      if (isOpen(chunk, e)) {
        all.add(e);
      }
    }
    Map<Integer, String> reasons = attempt(chunk, all);
    if (reasons.isEmpty()) {
      return false;
    }
    if (waiting + reasons.size() > MOST) {
      reasons.forEach(chunk::hold);
      return false;
    }
    waiting += reasons.size();
    refused.put(chunk, reasons);
    return true;
  }

  private static boolean isOpen(UndoneChunk chunk, int e) {
    return chunk.change(e) != null || chunk.outcome(e) == Outcome.REMOVED;
  }

  /** Tries what was refused again, as long as that helps. */
  void retry() {
    boolean helps = true;
    while (helps) {
      helps = false;
      for (Map.Entry<UndoneChunk, Map<Integer, String>> one : refused.entrySet()) {
        Set<Integer> entries = one.getValue().keySet();
        Map<Integer, String> still = attempt(one.getKey(), entries);
        helps |= still.size() < entries.size();
        one.setValue(still);
      }
    }
    refused.forEach((chunk, reasons) -> reasons.forEach(chunk::hold));
  }

  /** The chunks of which something had to wait. */
  List<UndoneChunk> rest() {
    return List.copyOf(refused.keySet());
  }

  /** Writes entries; gives those that are refused, and why. */
  private Map<Integer, String> attempt(UndoneChunk chunk, Collection<Integer> entries) {
    List<Integer> inTurn = new ArrayList<>(entries);
    if (backwards) {
      Collections.reverse(inTurn);
    }
    TableInfo table = chunk.part.table;
    Map<Integer, String> reasons = new TreeMap<>();
    BiConsumer<Integer, Refusal> refused = (e, refusal) -> reasons.put(e, refusal.told());
    Halving.write(
        session,
        inTurn.stream().filter(e -> chunk.change(e) == null).toList(),
        some -> {
          unlink(chunk, some);
          session.remove(
              table, some.stream().map(e -> new Removal(chunk.line(e), chunk.key(e))).toList());
        },
        refused);
    Halving.write(
        session,
        inTurn.stream().filter(e -> chunk.change(e) != null).toList(),
        some -> session.write(table, some.stream().map(chunk::change).toList(), false),
        refused);
    return reasons;
  }

  /**
   * Has records that go give up their links to others of their table first, since these may go
   * round in circles, point at themselves, or at what goes before them.
   */
  private void unlink(UndoneChunk chunk, List<Integer> entries) {
    TableInfo table = chunk.part.table;
    List<Integer> links =
        table.linksTo(table).stream()
            .filter(f -> f.nullable() && f.isFillable())
            .map(table.fields()::indexOf)
            .toList();
    List<Change> unlinked =
        entries.stream()
            .filter(e -> links.stream().anyMatch(link -> chunk.holds(e, link)))
            .map(
                e ->
                    new Change(
                        chunk.line(e),
                        chunk.key(e),
                        links,
                        Collections.nCopies(links.size(), null)))
            .toList();
    if (!unlinked.isEmpty()) {
      session.write(table, unlinked, false);
    }
  }
}
