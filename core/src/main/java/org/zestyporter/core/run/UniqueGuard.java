package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.Inquiry;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.ProblemCode;

/**
 * Tells beforehand which rows the table's unique constraints would refuse, as the table stands once
 * the rows before them are written: what one of these has taken is taken, and what it has given up
 * is free.
 *
 * <p>Fields by which rows are matched need no guard: a row that shares them is a match.
 */
final class UniqueGuard {
  private static final class Guard {
    private final List<String> fields;
    private final Matcher matcher;

    /** Lines that have taken a value, by the value. */
    private final Map<String, Long> taken = new HashMap<>();

    /** Records that have given a value up, by the value. */
    private final Map<String, Set<List<Object>>> freed = new HashMap<>();

    Guard(List<String> fields, Matcher matcher) {
      this.fields = fields;
      this.matcher = matcher;
    }
  }

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
    guards.forEach(g -> g.matcher.note(line, byField));
  }

  List<Inquiry> inquiries() {
    return guards.stream().flatMap(g -> g.matcher.inquiries().stream()).toList();
  }

  /**
   * Why a row can't be written beside the others; null if it can.
   *
   * @param after the record as it would stand
   * @param record primary key of the record that it updates; null for a new one
   */
  LedgerEntry.@Nullable Note clash(long line, Object[] after, @Nullable List<Object> record) {
    for (Guard guard : guards) {
      String value = guard.matcher.prepared(after);
      if (value == null) {
        continue;
      }
      Set<List<Object>> freed = guard.freed.getOrDefault(value, Set.of());
      boolean held =
          guard.matcher.match(line, after).records().stream()
              .anyMatch(r -> !r.equals(record) && !freed.contains(r));
      Long other = guard.taken.get(value);
      if (held || other != null) {
        return new LedgerEntry.Note(
            ProblemCode.TAKEN,
            String.join(" with ", guard.fields),
            guard.matcher.describe(after),
            other == null
                ? "another record has it already"
                : "line " + other + " has it too, and it must be unique",
            false);
      }
    }
    return null;
  }

  /**
   * Notes that a row is written.
   *
   * @param before the record that it updates; null for a new one
   * @return true if it takes what an earlier row gives up, so that it must be written after it
   */
  boolean take(
      long line, Object[] after, @Nullable List<Object> record, Object @Nullable [] before) {
    boolean waits = false;
    for (Guard guard : guards) {
      String value = guard.matcher.prepared(after);
      String old = before == null ? null : guard.matcher.prepared(before);
      if (value != null && value.equals(old)) {
        continue;
      }
      if (value != null) {
        guard.taken.put(value, line);
        waits |= guard.freed.containsKey(value);
      }
      if (old != null) {
        guard.freed.computeIfAbsent(old, o -> new HashSet<>(1)).add(record);
      }
    }
    return waits;
  }
}
