package org.zestyporter.core.run;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zestyporter.core.application.FieldInfo;
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
  private final Books books;

  /** Fills whose numbers are summed. */
  private final int[] summed;

  TargetWriter(Target target, LastStage last) {
    this.target = target;
    this.last = last;
    this.books = target.books;
    this.summed =
        java.util.stream.IntStream.range(0, target.fills.size())
            .filter(
                f ->
                    target.fills.get(f).fill().origin() instanceof Origin.Column
                        && target.fills.get(f).field().type().isNumber())
            .toArray();
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
    Map<List<Object>, Object[]> stands = readBack(keys);
    for (int i = 0; i < written.size(); i++) {
      int r = written.get(i);
      List<Object> key = rows.keys[r] == null ? keys.get(i) : rows.keys[r];
      rows.keys[r] = key;
      if (rows.records != null && rows.records[r] instanceof RowRecord record) {
        record.made(key);
      }
      Object[] held = stands == null ? null : stands.get(key);
      if (held != null) {
        compare(rows, r, changes.get(i), held);
      }
      total(rows, r, stands != null, held);
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
        });
    for (WriteSession.Change change : changes) {
      change.values().replaceAll(v -> v instanceof Pending p && p.key() != null ? p.key() : v);
    }
  }

  private Map<List<Object>, Object[]> readBack(List<List<Object>> written) {
    Set<List<Object>> keys = new HashSet<>(written);
    keys.remove(null);
    return keys.isEmpty() || target.table.primaryKey().isEmpty()
        ? null
        : last.readBack(target.table, keys);
  }

  /** Notes what the application made of the values that it was given. */
  private void compare(TargetRows rows, int r, WriteSession.Change change, Object[] stands) {
    for (int i = 0; i < change.fields().size(); i++) {
      FieldInfo field = target.table.fields().get(change.fields().get(i));
      Object sent = change.values().get(i);
      Object held = stands[change.fields().get(i)];
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

  /**
   * Sums what the source gave and what the table holds, where the row's value is to stand.
   *
   * @param readBack true if the row was written and read back
   * @param stands the record as it was read back; null if it was not found
   */
  private void total(TargetRows rows, int r, boolean readBack, Object[] stands) {
    Object[] now = readBack ? stands : rows.before[r];
    boolean isNew = rows.outcomes[r] == Outcome.NEW.ordinal();
    boolean unread = !readBack && rows.outcomes[r] <= Outcome.CHANGED.ordinal();
    for (int f : summed) {
      CompiledFill fill = target.fills.get(f);
      boolean counted = isNew || !fill.fill().onlyNew();
      if (counted && rows.value(f, r) instanceof BigDecimal given) {
        Object held = unread ? given : now == null ? null : now[fill.fieldIndex()];
        books.total(fill.field(), given, held, held == null && now == null && !unread);
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
        total(rows, r, false, null);
      }
    }
    if (!last.writes()) {
      for (int f : summed) {
        rehearsed(rows, f);
      }
    }
  }

  /** Sums a column over the rows that would be written. */
  private void rehearsed(TargetRows rows, int f) {
    CompiledFill fill = target.fills.get(f);
    ValueColumn column = rows.filled.column(f).values();
    int most = fill.fill().onlyNew() ? Outcome.NEW.ordinal() : Outcome.CHANGED.ordinal();
    if (column.form() != ValueColumn.Form.NUMBER) {
      for (int r = 0; r < rows.count(); r++) {
        if (rows.outcomes[r] <= most && rows.value(f, r) instanceof BigDecimal given) {
          books.total(fill.field(), given);
        }
      }
      return;
    }
    // a sum of numbers of up to 18 digits, in two parts so that neither overflows
    long high = 0;
    long low = 0;
    boolean any = false;
    for (int r = 0; r < rows.count(); r++) {
      if (rows.outcomes[r] <= most) {
        long number = column.number(r);
        if (number != ValueColumn.BLANK) {
          high += number >> 32;
          low += number & 0xFFFF_FFFFL;
          any = true;
        }
      }
    }
    if (any) {
      BigDecimal sum =
          BigDecimal.valueOf(high)
              .multiply(BigDecimal.valueOf(1L << 32))
              .add(BigDecimal.valueOf(low))
              .scaleByPowerOfTen(-column.scale());
      books.total(fill.field(), sum);
    }
  }
}
