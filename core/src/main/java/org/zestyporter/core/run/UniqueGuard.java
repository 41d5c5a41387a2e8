package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.zestyporter.core.database.Database;
import org.zestyporter.core.database.TableInfo;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.ProblemCode;

/**
 * Tells beforehand which rows the table's unique constraints would refuse.
 *
 * <p>Fields by which rows are matched need no guard: a row that shares them is a match.
 */
final class UniqueGuard {
  private record Guard(List<String> fields, Matcher matcher) {}

  private final List<Guard> guards = new ArrayList<>();

  UniqueGuard(TableInfo table, List<CompiledFill> fills, List<MatchKey> keys) {
    Set<String> filled = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    fills.forEach(f -> filled.add(f.field().name()));
    Set<List<String>> sets = new HashSet<>(table.uniques());
    sets.add(table.primaryKey());
    for (List<String> set : sets) {
      boolean matched =
          keys.size() == 1
              && new TreeSet<>(lower(keys.get(0).fields())).equals(new TreeSet<>(lower(set)));
      if (!set.isEmpty() && filled.containsAll(set) && !matched) {
        guards.add(new Guard(set, new Matcher(List.of(new MatchKey(set, List.of())), table)));
      }
    }
  }

  private static List<String> lower(List<String> names) {
    return names.stream().map(n -> n.toLowerCase(java.util.Locale.ROOT)).toList();
  }

  void note(long line, Object[] byField) {
    guards.forEach(g -> g.matcher().note(line, byField));
  }

  void look(Database database) {
    guards.forEach(g -> g.matcher().look(database));
  }

  /**
   * Why a row can't be written beside the others; null if it can.
   *
   * @param record primary key of the record that it updates; null for a new one
   */
  LedgerEntry.Note clash(long line, Object[] byField, List<Object> record) {
    for (Guard guard : guards) {
      Matcher.Match match = guard.matcher().match(line, byField);
      String fields = String.join(" with ", guard.fields());
      String value = match.key() == 0 ? "" : guard.matcher().describe(byField);
      boolean taken = match.records().stream().anyMatch(r -> !r.equals(record));
      if (taken) {
        return new LedgerEntry.Note(
            ProblemCode.TAKEN, fields, value, "another record has it already", false);
      }
      if (match.firstLine() < line) {
        return new LedgerEntry.Note(
            ProblemCode.TAKEN,
            fields,
            value,
            "line " + match.firstLine() + " has it too, and it must be unique",
            false);
      }
    }
    return null;
  }
}
