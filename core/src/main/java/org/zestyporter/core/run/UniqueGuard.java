package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.Inquiry;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueColumn;

/**
 * Tells beforehand which rows the table's unique constraints would refuse, as the table stands once
 * the rows before them are written: what one of these has taken is taken, and what it has given up
 * is free.
 *
 * <p>Fields by which rows are matched need no guard: a row that shares them is a match. Only values
 * that several rows hold, or that were not foreseen, are remembered.
 */
final class UniqueGuard {
  private static final class Guard {
    private final List<String> fields;
    private final Matcher matcher;

    /** Lines that have taken a value, by its hash. */
    private final Map<Long, Long> taken = new HashMap<>();

    /** Records that have given a value up, by its hash. */
    private final Map<Long, Set<List<Object>>> freed = new HashMap<>();

    Guard(List<String> fields, Matcher matcher) {
      this.fields = fields;
      this.matcher = matcher;
    }

    /**
     * True if it matters to any other row who has a value.
     *
     * @param noted true if it is known to be among the noted values
     */
    boolean matters(long hashed, boolean noted) {
      return matcher.isRepeated(hashed) || !noted && !matcher.isNoted(hashed);
    }
  }

  private final List<Guard> guards = new ArrayList<>();

  UniqueGuard(
      TableInfo table,
      List<CompiledFill> fills,
      Target.@Nullable Parent parent,
      List<MatchKey> keys) {
    Set<String> filled = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    fills.forEach(f -> filled.add(f.field().name()));
    if (parent != null) {
      filled.add(parent.field().name());
    }
    Set<List<String>> sets = new HashSet<>(table.uniques());
    sets.add(table.primaryKey());
    for (List<String> set : sets) {
      MatchKey key = key(table, set);
      boolean matched =
          keys.size() == 1
              && !keys.get(0).isNear()
              && new TreeSet<>(lower(keys.get(0).fields())).equals(new TreeSet<>(lower(set)))
              && keys.get(0).ignoring().containsAll(key.ignoring());
      if (!set.isEmpty() && filled.containsAll(set) && !matched) {
        guards.add(new Guard(set, new Matcher(List.of(key), table)));
      }
    }
  }

  /** Compares as the database does where all texts among the fields are compared alike. */
  private static MatchKey key(TableInfo table, List<String> set) {
    List<List<Comparison.Ignore>> ignored =
        table.fields(set).stream()
            .filter(f -> f.type() == FieldType.TEXT)
            .map(FieldInfo::ignored)
            .distinct()
            .toList();
    return new MatchKey(set, ignored.size() == 1 ? ignored.get(0) : List.of());
  }

  private static List<String> lower(List<String> names) {
    return names.stream().map(n -> n.toLowerCase(Locale.ROOT)).toList();
  }

  /** Number of keys that it guards. */
  int size() {
    return guards.size();
  }

  /** True if no row takes what another one has, or gives up. */
  boolean isApart() {
    return guards.stream().allMatch(g -> g.freed.isEmpty() && !g.matcher.hasRepeats());
  }

  /** True if it guards a field. */
  boolean uses(String field) {
    return guards.stream().anyMatch(g -> g.fields.stream().anyMatch(field::equalsIgnoreCase));
  }

  /**
   * Notes the next row.
   *
   * @param byField null for a row that can't be written
   */
  void note(ValueColumn @Nullable [] byField, int row) {
    for (Guard guard : guards) {
      guard.matcher.note(byField, row);
    }
  }

  /** The guarded values of all rows of a chunk, to be noted; on any thread. */
  List<Matcher.Hashes> hashesOf(ValueColumn[] byField, int rows) {
    return guards.stream().map(g -> g.matcher.hashes(byField, rows)).toList();
  }

  /**
   * Notes the next row.
   *
   * @param hashes of its chunk; empty if nothing is to be noted
   * @param byField null for a row that can't be written
   */
  void note(List<Matcher.Hashes> hashes, ValueColumn @Nullable [] byField, int row) {
    for (int g = 0; g < hashes.size(); g++) {
      guards.get(g).matcher.note(hashes.get(g), byField, row);
    }
  }

  /**
   * Notes the rows of a chunk, all at once; {@link #asksByValue} after the last.
   *
   * @param hashes empty if nothing is to be noted
   * @param out true for rows that are not noted
   */
  void note(List<Matcher.Hashes> hashes, boolean[] out) {
    for (int g = 0; g < hashes.size(); g++) {
      guards.get(g).matcher.note(hashes.get(g), out);
    }
  }

  /** True if all rows that were noted all at once have to be {@link #ask gone through} again. */
  boolean asksByValue() {
    boolean asks = false;
    for (Guard guard : guards) {
      asks |= guard.matcher.asksByValue();
    }
    return asks;
  }

  /** Asks for the records that hold the guarded values of a row, which has been noted. */
  void ask(int index, List<Matcher.Hashes> hashes, ValueColumn[] byField, int row) {
    for (int g = 0; g < hashes.size(); g++) {
      guards.get(g).matcher.ask(index, hashes.get(g), byField, row);
    }
  }

  /** They know which rows and records hold the guarded values, by one key each. */
  List<Matcher> matchers() {
    return guards.stream().map(g -> g.matcher).toList();
  }

  /** The fields that it guards. */
  List<String> fields() {
    return guards.stream().flatMap(g -> g.fields.stream()).toList();
  }

  List<Inquiry> inquiries() {
    return guards.stream().flatMap(g -> g.matcher.inquiries().stream()).toList();
  }

  /** The guarded values of a row, to be asked about. */
  long[] hashes(ValueColumn[] byField, int row) {
    long[] hashes = new long[guards.size()];
    for (int g = 0; g < hashes.length; g++) {
      hashes[g] = guards.get(g).matcher.hash(byField, row);
    }
    return hashes;
  }

  /**
   * The same.
   *
   * @param of the row's chunk
   */
  long[] hashes(List<Matcher.Hashes> of, ValueColumn[] byField, int row) {
    long[] hashes = new long[of.size()];
    for (int g = 0; g < hashes.length; g++) {
      Matcher matcher = guards.get(g).matcher;
      long hashed = of.get(g).byKey()[0][row];
      // several rows must have the same key, not only the same hash
      hashes[g] = matcher.isRepeated(hashed) ? matcher.hash(byField, row) : hashed;
    }
    return hashes;
  }

  /**
   * The rows of a chunk of which any guarded value is held by a record.
   *
   * @param first index of the first of them among the noted rows
   */
  BitSet held(List<Matcher.Hashes> hashes, int first) {
    BitSet held = new BitSet();
    for (int g = 0; g < hashes.size(); g++) {
      Matcher matcher = guards.get(g).matcher;
      matcher.markFound(matcher.placed(hashes.get(g), first), held);
    }
    return held;
  }

  /** The records that have the guarded values of a row. */
  List<List<Object>> holders(ValueColumn[] byField, int row) {
    List<List<Object>> holders = new ArrayList<>();
    for (Guard guard : guards) {
      long hashed = guard.matcher.hash(byField, row);
      if (hashed != 0) {
        holders.addAll(guard.matcher.records(hashed));
      }
    }
    return holders;
  }

  /** The guarded values of a record. */
  long[] hashes(Object[] record) {
    long[] hashes = new long[guards.size()];
    for (int g = 0; g < hashes.length; g++) {
      hashes[g] = guards.get(g).matcher.hash(record);
    }
    return hashes;
  }

  /**
   * Number of the guard that keeps a row from being written beside the others; -1 if none does.
   *
   * @param hashes of the record as it would stand
   * @param record primary key of the record that it updates; null for a new one
   * @param mayBeHeld false if it is known that no record of the table has any of the values
   */
  int clash(long[] hashes, @Nullable List<Object> record, boolean mayBeHeld) {
    for (int g = 0; g < hashes.length; g++) {
      Guard guard = guards.get(g);
      long hashed = hashes[g];
      if (hashed == 0) {
        continue;
      }
      List<List<Object>> held = mayBeHeld ? guard.matcher.records(hashed) : List.of();
      if (!held.isEmpty()) {
        Set<List<Object>> freed = guard.freed.getOrDefault(hashed, Set.of());
        if (held.stream().anyMatch(r -> !r.equals(record) && !freed.contains(r))) {
          return g;
        }
      }
      if (!guard.taken.isEmpty() && guard.taken.containsKey(hashed)) {
        return g;
      }
    }
    return -1;
  }

  /** Why a guard keeps a row out. */
  LedgerEntry.Note told(int clash, long[] hashes, Object[] after) {
    Guard guard = guards.get(clash);
    Long other = guard.taken.get(hashes[clash]);
    return new LedgerEntry.Note(
        ProblemCode.TAKEN,
        String.join(" with ", guard.fields),
        guard.matcher.describe(after),
        other == null
            ? "another record has it already"
            : "line " + other + " has it too, and it must be unique",
        false);
  }

  /**
   * Notes that a row is written.
   *
   * @param before hashes of the record that it updates; null for a new one
   * @param noted true if the values are known to be those that were noted for the row
   * @return true if it takes what an earlier row gives up, so that it must be written after it
   */
  boolean take(
      long line,
      long[] after,
      @Nullable List<Object> record,
      long @Nullable [] before,
      boolean noted) {
    boolean waits = false;
    for (int g = 0; g < after.length; g++) {
      Guard guard = guards.get(g);
      long old = before == null ? 0 : before[g];
      if (after[g] == old) {
        continue;
      }
      if (after[g] != 0) {
        waits |= !guard.freed.isEmpty() && guard.freed.containsKey(after[g]);
        if (guard.matters(after[g], noted)) {
          guard.taken.put(after[g], line);
        }
      }
      if (old != 0 && guard.matcher.isNoted(old)) {
        guard.freed.computeIfAbsent(old, o -> new HashSet<>(1)).add(record);
      }
    }
    return waits;
  }

  /** Takes back what {@link #take} noted: the row is not written after all. */
  void giveBack(long line, long[] after, @Nullable List<Object> record, long @Nullable [] before) {
    for (int g = 0; g < after.length; g++) {
      Guard guard = guards.get(g);
      long old = before == null ? 0 : before[g];
      if (after[g] != old) {
        guard.taken.remove(after[g], line);
        if (old != 0 && guard.freed.containsKey(old)) {
          guard.freed.get(old).remove(record);
        }
      }
    }
  }
}
