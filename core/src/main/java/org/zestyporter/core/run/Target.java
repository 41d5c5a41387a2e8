package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.LinkKey;
import org.zestyporter.core.fill.RecordTest;
import org.zestyporter.core.fill.Rules;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.match.RowIndex;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Policies;

/** A destination opened for a rehearsal or run. */
final class Target {
  final int index;
  final Destination destination;
  final TableInfo table;
  final List<CompiledFill> fills;
  final @Nullable Parent parent;
  final Selection selection;
  final RecordRules rules;
  final Matcher matcher;
  final UniqueGuard guard;
  FarOff farOff;
  final Books books;
  final LedgerLayout layout;

  /** How links look up records that this destination makes. */
  final Map<LinkKey, RowIndex> made = new HashMap<>();

  /** Indexes of the fields that hold what other records' links to these records hold. */
  final List<Integer> pointedAt = new ArrayList<>();

  /** Fills whose links may await records that rows make. */
  final int[] awaiting;

  /** Lines of this destination's rows. */
  final RowLines lines = new RowLines();

  /** The source's rows that they come from. */
  final RowLines.Sources sources = new RowLines.Sources();

  /** True if other records need to know the record of each row. */
  boolean isNeeded;

  /**
   * The destination that records belong to.
   *
   * @param field the field that takes its key
   * @param fieldIndex index of the field among those of the table
   * @param key the field of the parent's table that the link points at
   */
  record Parent(Target target, FieldInfo field, int fieldIndex, FieldInfo key) {}

  Target(
      int index,
      Destination destination,
      TableInfo table,
      List<CompiledFill> fills,
      @Nullable Parent parent,
      Selection selection,
      Rules rules,
      @Nullable RecordTest among) {
    this.index = index;
    this.destination = destination;
    this.table = table;
    this.fills = fills;
    this.parent = parent;
    this.selection = selection;
    this.rules = new RecordRules(table, rules);
    this.matcher =
        new Matcher(
            destination.keys(),
            table,
            among,
            latestBy(destination),
            destination.decisions(),
            saidBy(destination));
    this.guard = new UniqueGuard(table, fills, parent, destination.keys());
    this.farOff = new FarOff(destination, table, fills);
    this.books = new Books(destination.label());
    List<String> fields = fills.stream().map(f -> f.field().name()).toList();
    this.layout =
        new LedgerLayout(
            index,
            destination.label(),
            table.name(),
            table.fields().stream().map(FieldInfo::name).toList(),
            fields,
            fills.stream().map(CompiledFill::fieldIndex).toList(),
            LedgerLayout.keyOf(table));
    this.awaiting =
        java.util.stream.IntStream.range(0, fills.size())
            .filter(f -> fills.get(f).awaited() != null)
            .toArray();
    if (parent != null) {
      parent.target().isPointedAt(parent.key());
    }
  }

  /**
   * Fields in which rows can contradict each other: not those of keys, which agree as they are
   * compared, nor what is generated, which differs in any case.
   */
  private List<FieldInfo> saidBy(Destination destination) {
    if (destination.policies().onRepeat() != Policies.OnRepeat.ASK) {
      return List.of();
    }
    Set<String> others = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    destination.keys().forEach(k -> others.addAll(k.fields()));
    destination.fills().stream()
        .filter(f -> f.origin() instanceof Origin.Generated)
        .forEach(f -> others.add(f.field()));
    return fills.stream().map(CompiledFill::field).filter(f -> !others.contains(f.name())).toList();
  }

  private @Nullable FieldInfo latestBy(Destination destination) {
    String by = destination.policies().latestBy();
    boolean isWanted = destination.policies().onSeveral() == Policies.OnSeveral.LATEST;
    return isWanted && by != null ? table.field(by) : null;
  }

  /** Lets rows be found by what links look up. */
  void index(LinkKey key) {
    made.computeIfAbsent(key, k -> new RowIndex(k, table));
  }

  /** Lets others know what each record holds in a field. */
  void isPointedAt(FieldInfo field) {
    isNeeded = true;
    int at = table.fields().indexOf(field);
    if (!pointedAt.contains(at)) {
      pointedAt.add(at);
    }
  }

  /** True if it has to know its parent's record before its own keys can be told. */
  boolean keysNeedParent() {
    return parent != null
        && (destination.keys().stream()
                .anyMatch(
                    k -> k.fields().stream().anyMatch(parent.field().name()::equalsIgnoreCase))
            || guard.uses(parent.field().name()));
  }

  /** The destinations whose matches have to be known to tell its own, itself the last. */
  List<Target> withAbove() {
    List<Target> all = new ArrayList<>(keysNeedParent() ? parent.target().withAbove() : List.of());
    all.add(this);
    return all;
  }

  /**
   * The fields whose values have to be known of all rows, before any is decided.
   *
   * @param onlyMatches true if nobody asks what becomes of the rows
   */
  List<String> lookedAt(boolean onlyMatches) {
    List<String> fields = new ArrayList<>();
    destination.keys().forEach(k -> fields.addAll(k.fields()));
    if (!onlyMatches) {
      fields.addAll(guard.fields());
      farOff.fills().forEach(f -> fields.add(fills.get(f).field().name()));
      made.keySet().forEach(key -> fields.addAll(key.fields()));
      Arrays.stream(awaiting).forEach(f -> fields.add(fills.get(f).field().name()));
    }
    return fields;
  }

  /** True if any of some fields is part of a key, must be unique, or is what links look for. */
  boolean holdsInKeys(List<String> some) {
    return some.stream()
        .anyMatch(
            field ->
                guard.uses(field)
                    || destination.keys().stream().anyMatch(k -> holds(k.fields(), field))
                    || made.keySet().stream().anyMatch(k -> holds(k.fields(), field)));
  }

  private static boolean holds(List<String> fields, String field) {
    return fields.stream().anyMatch(field::equalsIgnoreCase);
  }

  /**
   * True if the keys of all rows, and all that must be unique in them, hold the parent's record:
   * rows that share any of it share the parent.
   */
  boolean isWithinParent() {
    String field = parent.field().name();
    return destination.keys().stream().allMatch(k -> holds(k.fields(), field))
        && guard.matchers().stream().allMatch(m -> holds(m.keys().get(0).fields(), field));
  }

  String label() {
    return destination.label();
  }
}
