package org.zestyporter.server.run;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.run.LedgerEntry;

/** Counts rows that come out otherwise than they did before. */
final class Moves {
  private static final int LINES_NAMED = 5;

  private final Map<Of, Rows> moves = new LinkedHashMap<>();

  private record Of(String table, String from, String to) {}

  private static final class Rows {
    private long count;
    private final List<Long> first = new ArrayList<>();
  }

  /**
   * Compares entries of the same rows.
   *
   * @return false if they are not of the same rows
   */
  boolean add(String table, List<LedgerEntry> before, List<LedgerEntry> now) {
    if (before.size() != now.size()) {
      return false;
    }
    for (int i = 0; i < now.size(); i++) {
      LedgerEntry entry = now.get(i);
      if (entry.line() != before.get(i).line() || entry.part() != before.get(i).part()) {
        return false;
      }
      String from = word(before.get(i));
      String to = word(entry);
      if (!from.equals(to)) {
        Rows rows = moves.computeIfAbsent(new Of(table, from, to), of -> new Rows());
        rows.count++;
        if (rows.first.size() < LINES_NAMED) {
          rows.first.add(entry.line());
        }
      }
    }
    return true;
  }

  private static String word(LedgerEntry entry) {
    return entry.awaitsAnswer() ? "waiting" : entry.outcome().word();
  }

  List<LedgerComparison.Move> told() {
    return moves.entrySet().stream()
        .map(
            e ->
                new LedgerComparison.Move(
                    e.getKey().table(),
                    e.getKey().from(),
                    e.getKey().to(),
                    e.getValue().count,
                    e.getValue().first))
        .sorted(Comparator.comparingLong(m -> -m.rows()))
        .toList();
  }
}
