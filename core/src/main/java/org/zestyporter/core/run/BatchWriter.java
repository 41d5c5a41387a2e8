package org.zestyporter.core.run;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.PendingRecord;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/** Hands a batch of decisions to the last stage, then enters it into the ledger and the books. */
final class BatchWriter {
  private final int destination;
  private final TableInfo table;
  private final List<CompiledFill> fills;
  private final List<String> fields;
  private final LastStage last;
  private final Books books;
  private final Ledger ledger;

  BatchWriter(
      int destination,
      TableInfo table,
      List<CompiledFill> fills,
      LastStage last,
      Books books,
      Ledger ledger) {
    this.destination = destination;
    this.table = table;
    this.fills = fills;
    this.fields = fills.stream().map(f -> f.field().name()).toList();
    this.last = last;
    this.books = books;
    this.ledger = ledger;
  }

  void write(List<Decision> decisions) {
    List<WriteSession.Change> changes =
        decisions.stream().map(Decision::change).filter(c -> c != null).toList();
    make(changes);
    boolean inOrder = decisions.stream().anyMatch(Decision::waits);
    List<List<Object>> written =
        changes.isEmpty() ? List.of() : last.write(table, changes, inOrder);
    Map<List<Object>, Object[]> readBack = readBack(written);
    List<LedgerEntry> entries = new ArrayList<>(decisions.size());
    int[] counts = new int[Outcome.values().length];
    int next = 0;
    for (Decision decision : decisions) {
      List<Object> fresh = decision.change() == null ? null : written.get(next++);
      List<Object> key = decision.record() == null ? fresh : decision.record();
      Object[] stands = decision.change() == null || readBack == null ? null : readBack.get(key);
      if (stands != null) {
        compare(decision, stands);
      }
      LedgerEntry entry = entry(decision, key);
      entries.add(entry);
      counts[entry.outcome().ordinal()]++;
      books.count(entry, fields);
      total(decision, decision.change() != null && readBack != null, stands);
    }
    ledger.append(
        new LedgerChunk(
            destination,
            decisions.get(0).line(),
            decisions.get(decisions.size() - 1).line(),
            java.util.Arrays.stream(counts).boxed().toList(),
            entries));
  }

  /** Makes the linked records that these changes need and that nobody has made yet. */
  private void make(List<WriteSession.Change> changes) {
    Map<TableInfo, List<PendingRecord>> wanted = new LinkedHashMap<>();
    Map<PendingRecord, Long> lines = new IdentityHashMap<>();
    for (WriteSession.Change change : changes) {
      for (Object value : change.values()) {
        if (value instanceof PendingRecord record && record.claim()) {
          wanted.computeIfAbsent(record.table(), t -> new ArrayList<>()).add(record);
          lines.put(record, change.line());
        }
      }
    }
    wanted.forEach(
        (linked, records) -> {
          List<List<Object>> keys =
              last.write(
                  linked,
                  records.stream()
                      .map(r -> new WriteSession.Change(lines.get(r), null, r.fields(), r.values()))
                      .toList(),
                  false);
          for (int i = 0; i < keys.size(); i++) {
            PendingRecord record = records.get(i);
            record.made(keys.get(i) == null ? null : keys.get(i).get(0));
            books.created(
                linked.name(), record.name(), Values.text(record.key()), lines.get(record));
          }
        });
    for (WriteSession.Change change : changes) {
      change
          .values()
          .replaceAll(v -> v instanceof PendingRecord r && r.key() != null ? r.key() : v);
    }
  }

  private Map<List<Object>, Object[]> readBack(List<List<Object>> written) {
    Set<List<Object>> keys = new HashSet<>(written);
    keys.remove(null);
    return keys.isEmpty() || table.primaryKey().isEmpty() ? null : last.readBack(table, keys);
  }

  private LedgerEntry entry(Decision decision, List<Object> key) {
    List<String> after =
        decision.filled().stream()
            .map(f -> Values.text(f.value()))
            .collect(Collectors.toCollection(ArrayList::new));
    List<String> before = null;
    if (decision.before() != null) {
      before = new ArrayList<>(fills.size());
      for (CompiledFill fill : fills) {
        before.add(Values.text(decision.before()[fill.fieldIndex()]));
      }
    }
    String recordKey =
        key == null ? null : key.stream().map(Values::text).collect(Collectors.joining(","));
    return new LedgerEntry(
        decision.line(),
        decision.outcome(),
        decision.matchedBy(),
        recordKey,
        after,
        before,
        decision.changed(),
        decision.notes());
  }

  /** Notes what the application made of the values that it was given. */
  private void compare(Decision decision, Object[] stands) {
    WriteSession.Change change = decision.change();
    for (int i = 0; i < change.fields().size(); i++) {
      FieldInfo field = table.fields().get(change.fields().get(i));
      Object sent = change.values().get(i);
      Object held = stands[change.fields().get(i)];
      if (!field.storage().same(sent, held)) {
        books.altered(field.name(), decision.line());
        decision
            .notes()
            .add(
                new LedgerEntry.Note(
                    ProblemCode.ALTERED,
                    field.name(),
                    Values.text(sent),
                    held == null
                        ? "the application made it blank"
                        : "the application made it “" + Values.text(held) + "”",
                    true));
      }
    }
  }

  /**
   * Sums what the source gave and what the table holds, where the row's value is to stand.
   *
   * @param written true if the row was written and read back
   * @param stands the record as it was read back; null if it was not found
   */
  private void total(Decision decision, boolean written, Object[] stands) {
    if (decision.outcome().ordinal() > Outcome.UNCHANGED.ordinal()) {
      return;
    }
    boolean isNew = decision.outcome() == Outcome.NEW;
    Object[] now = written ? stands : decision.before();
    for (int f = 0; f < fills.size(); f++) {
      CompiledFill fill = fills.get(f);
      boolean counted =
          fill.fill().origin().kind() == Origin.Kind.COLUMN
              && fill.field().type().isNumber()
              && (isNew || !fill.fill().onlyNew());
      if (counted && decision.filled().get(f).value() instanceof BigDecimal given) {
        boolean rehearsed = !written && decision.change() != null;
        Object held = rehearsed ? given : now == null ? null : now[fill.fieldIndex()];
        boolean lost = held == null && now == null && !rehearsed;
        books.total(fill.field(), given, held, lost);
      }
    }
  }
}
