package org.zestyporter.core.run;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.fill.PendingRecord;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/** Has the decided records of one destination written, and enters them into its books. */
final class TargetWriter {
  private final Target target;
  private final LastStage last;
  private final LedgerWriter ledger;
  private final Books books;

  /** Fills whose numbers are summed. */
  private final int[] summed;

  /** By fill, the numbers that stand as they were given, and are not in the books yet. */
  private final ColumnSum[] sums;

  TargetWriter(Target target, LastStage last, LedgerWriter ledger) {
    this.target = target;
    this.last = last;
    this.ledger = ledger;
    this.books = target.books;
    this.summed =
        java.util.stream.IntStream.range(0, target.fills.size())
            .filter(
                f ->
                    target.fills.get(f).fill().origin() instanceof Origin.Column
                        && target.fills.get(f).field().type().isNumber())
            .toArray();
    this.sums = new ColumnSum[target.fills.size()];
    Arrays.setAll(sums, f -> new ColumnSum());
  }

  /**
   * Writes some rows, which have been decided.
   *
   * @param places places of the rows among the chunk's
   */
  void write(TargetRows rows, List<Integer> places) {
    if (last.writes()) {
      List<Integer> written = places.stream().filter(r -> rows.changes[r] != null).toList();
      if (!written.isEmpty()) {
        send(rows, written);
      }
    } else {
      claim(rows, places);
    }
  }

  /** Counts linked records that would be made. */
  private void claim(TargetRows rows, List<Integer> places) {
    for (int f = 0; f < target.fills.size(); f++) {
      if (!target.fills.get(f).looksUp()) {
        continue;
      }
      for (int r : places) {
        boolean writes = rows.outcomes[r] <= Outcome.CHANGED.ordinal();
        if (writes && rows.value(f, r) instanceof PendingRecord record && record.claim()) {
          books.created(record.table().name(), record.name(), null, rows.line(r));
        }
      }
    }
  }

  private void send(TargetRows rows, List<Integer> written) {
    List<WriteSession.Change> changes = written.stream().map(r -> rows.changes[r]).toList();
    make(changes);
    boolean inOrder = written.stream().anyMatch(r -> rows.waits[r]);
    List<List<Object>> keys = last.write(target.table, changes, inOrder);
    Records stands = readBack(keys);
    for (int i = 0; i < written.size(); i++) {
      int r = written.get(i);
      List<Object> key = rows.keys[r] == null ? keys.get(i) : rows.keys[r];
      rows.keys[r] = key;
      if (rows.records != null && rows.records[r] instanceof RowRecord record) {
        record.made(key);
      }
      int at = stands == null || key == null ? -1 : stands.at(key);
      if (at >= 0) {
        rows.leave(r, stands, at);
        compare(rows, r, changes.get(i), stands.columns(), at);
      }
      if (stands == null) {
        totalUnread(rows, r);
      } else {
        total(rows, r, stands.columns(), at);
      }
    }
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
          if (!linked.primaryKey().isEmpty()) {
            ledger.made(
                linked,
                keys,
                last.readBack(linked, keys),
                records.stream().mapToLong(lines::get).toArray());
          }
        });
    for (WriteSession.Change change : changes) {
      change.values().replaceAll(v -> v instanceof Pending p && p.key() != null ? p.key() : v);
    }
  }

  private @Nullable Records readBack(List<List<Object>> written) {
    Set<List<Object>> keys = new HashSet<>(written);
    keys.remove(null);
    return keys.isEmpty() || target.table.primaryKey().isEmpty()
        ? null
        : last.readBack(target.table, keys);
  }

  /** Notes what the application made of the values that it was given. */
  private void compare(
      TargetRows rows, int r, WriteSession.Change change, ValueColumn[] stands, int at) {
    for (int i = 0; i < change.fields().size(); i++) {
      int position = change.fields().get(i);
      ValueColumn given = rows.isSettled(r) ? null : rows.byField[position];
      if (given != null && given.isEqual(r, stands[position], at)) {
        continue;
      }
      FieldInfo field = target.table.fields().get(position);
      Object sent = change.values().get(i);
      Object held = stands[position].value(at);
      if (!field.storage().same(sent, held)) {
        books.altered(field.name(), rows.line(r));
        rows.note(
            r,
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

  /** True if the value that a fill gives a row is to stand. */
  private static boolean counts(TargetRows rows, int r, CompiledFill fill) {
    return rows.outcomes[r] == Outcome.NEW.ordinal() || !fill.fill().onlyNew();
  }

  /**
   * Sums what the source gave and what the table holds, where the row's value is to stand.
   *
   * @param stands columns of records as they were read from the table
   * @param at the row's record in them; under 0 if it was not found
   */
  private void total(TargetRows rows, int r, ValueColumn[] stands, int at) {
    for (int f : summed) {
      CompiledFill fill = target.fills.get(f);
      if (!counts(rows, r, fill)) {
        continue;
      }
      if (at >= 0 && !rows.isSettled(r)) {
        ValueColumn given = rows.filled.column(f).values();
        if (given.form() == ValueColumn.Form.NUMBER
            && given.isEqual(r, stands[fill.fieldIndex()], at)) {
          sums[f].add(given, r);
          continue;
        }
      }
      if (rows.value(f, r) instanceof BigDecimal given) {
        Object held = at < 0 ? null : stands[fill.fieldIndex()].value(at);
        books.total(fill.field(), given, held, at < 0);
      }
    }
  }

  /** Sums what the source gave, where the table can't be read back. */
  private void totalUnread(TargetRows rows, int r) {
    for (int f : summed) {
      CompiledFill fill = target.fills.get(f);
      if (counts(rows, r, fill) && rows.value(f, r) instanceof BigDecimal given) {
        books.total(fill.field(), given);
      }
    }
  }

  /** Enters rows that are all decided, and written, into the books. */
  void enter(TargetRows rows) {
    int count = rows.count();
    books.came(count);
    for (int r = 0; r < count; r++) {
      Outcome outcome = Outcome.of(rows.outcomes[r]);
      books.count(outcome);
      if (rows.notes[r] != null) {
        books.count(outcome, rows.line(r), rows.notes[r]);
      }
      if (outcome == Outcome.CHANGED) {
        for (int f : rows.changed[r]) {
          books.changed(target.fills.get(f).field().name());
        }
      } else if (outcome == Outcome.UNCHANGED) {
        total(rows, r, rows.found.columns(), rows.before[r]);
      }
    }
    for (int f : summed) {
      if (!last.writes()) {
        rehearsed(rows, f);
      }
      if (sums[f].isAny()) {
        books.total(target.fills.get(f).field(), sums[f].sum());
        sums[f] = new ColumnSum();
      }
    }
  }

  /** Sums a column over the rows that would be written. */
  private void rehearsed(TargetRows rows, int f) {
    CompiledFill fill = target.fills.get(f);
    ValueColumn column = rows.filled.column(f).values();
    boolean plain = column.form() == ValueColumn.Form.NUMBER && !rows.isSettledFill(f);
    int most = fill.fill().onlyNew() ? Outcome.NEW.ordinal() : Outcome.CHANGED.ordinal();
    for (int r = 0; r < rows.count(); r++) {
      if (rows.outcomes[r] > most) {
        continue;
      }
      if (plain) {
        sums[f].add(column, r);
      } else if (rows.value(f, r) instanceof BigDecimal given) {
        books.total(fill.field(), given);
      }
    }
  }
}
