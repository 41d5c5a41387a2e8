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

  /** Linked records that were made for what was sent and is not noted yet. */
  private final List<Made> unnoted = new ArrayList<>();

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
   * Writes some rows, which have been decided. Nothing is noted of it yet.
   *
   * @param places places of the rows among the chunk's
   * @return null if there is nothing to write
   * @throws WriteSession.RefusedException if the application refuses any of them
   */
  @Nullable Sent send(TargetRows rows, List<Integer> places) {
    List<Integer> written = places.stream().filter(r -> rows.changes[r] != null).toList();
    return written.isEmpty() ? null : sendAll(rows, written);
  }

  /** Lets go of linked records that were made in vain, since what was sent is taken back. */
  void takeBack() {
    unnoted.forEach(m -> m.records().forEach(PendingRecord::unmade));
    unnoted.clear();
  }

  /** Counts linked records that would be made. */
  void claim(TargetRows rows, List<Integer> places) {
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

  /** Records that were written, and how they stand. */
  record Sent(
      TargetWriter by,
      TargetRows rows,
      List<Integer> written,
      List<WriteSession.Change> changes,
      List<List<Object>> keys,
      @Nullable Records stands) {

    /** Notes what was written, now that it is not taken back any more. */
    void note() {
      by.note(this);
    }
  }

  /** Linked records that were made. */
  private record Made(
      TableInfo table,
      List<PendingRecord> records,
      List<List<Object>> keys,
      long[] lines,
      @Nullable Records stands) {}

  private Sent sendAll(TargetRows rows, List<Integer> written) {
    List<WriteSession.Change> planned = written.stream().map(r -> rows.changes[r]).toList();
    make(planned);
    List<WriteSession.Change> changes = planned.stream().map(TargetWriter::linked).toList();
    boolean inOrder = written.stream().anyMatch(r -> rows.waits[r]);
    List<List<Object>> keys = last.write(target.table, changes, inOrder);
    for (int i = 0; rows.records != null && i < written.size(); i++) {
      int r = written.get(i);
      if (rows.records[r] instanceof RowRecord record) {
        // known to those that are sent with it
        record.made(rows.keys[r] == null ? keys.get(i) : rows.keys[r]);
      }
    }
    return new Sent(this, rows, written, changes, keys, readBack(keys));
  }

  private void note(Sent sent) {
    for (Made made : unnoted) {
      for (int i = 0; i < made.keys().size(); i++) {
        PendingRecord record = made.records().get(i);
        String key = last.stays() ? Values.text(record.key()) : null;
        books.created(made.table().name(), record.name(), key, made.lines()[i]);
      }
      if (made.stands() != null && last.stays()) {
        ledger.made(made.table(), made.keys(), made.stands(), made.lines());
      }
    }
    unnoted.clear();
    TargetRows rows = sent.rows();
    Records stands = sent.stands();
    for (int i = 0; i < sent.written().size(); i++) {
      int r = sent.written().get(i);
      List<Object> key = rows.keys[r] == null ? sent.keys().get(i) : rows.keys[r];
      int at = stands == null || key == null ? -1 : stands.at(key);
      if (at >= 0) {
        compare(rows, r, sent.changes().get(i), stands.columns(), at);
      }
      rows.keys[r] = key;
      if (at >= 0 && last.stays()) {
        rows.leave(r, stands, at);
      }
      if (stands == null) {
        totalUnread(rows, r);
      } else {
        total(rows, r, stands.columns(), at);
      }
    }
  }

  /** A change with keys in the place of records that were pending. */
  private static WriteSession.Change linked(WriteSession.Change change) {
    if (change.values().stream().noneMatch(Pending.class::isInstance)) {
      return change;
    }
    List<Object> values = new ArrayList<>(change.values());
    for (int i = 0; i < values.size(); i++) {
      if (values.get(i) instanceof Pending pending) {
        if (pending.key() == null) {
          throw new WriteSession.RefusedException(
              new WriteSession.Refusal(
                  change.line(), "the record that it points at was refused itself"),
              null);
        }
        values.set(i, pending.key());
      }
    }
    return new WriteSession.Change(change.line(), change.key(), change.fields(), values);
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
    List<Made> making = new ArrayList<>();
    wanted.forEach(
        (linked, records) ->
            making.add(
                new Made(
                    linked,
                    records,
                    new ArrayList<>(),
                    records.stream().mapToLong(lines::get).toArray(),
                    null)));
    // should one be refused, all of them are let go
    unnoted.addAll(making);
    for (Made made : making) {
      List<WriteSession.Change> given = new ArrayList<>();
      for (int i = 0; i < made.records().size(); i++) {
        PendingRecord record = made.records().get(i);
        given.add(
            linked(
                new WriteSession.Change(made.lines()[i], null, record.fields(), record.values())));
      }
      made.keys().addAll(last.write(made.table(), given, false));
      for (int i = 0; i < made.records().size(); i++) {
        List<Object> key = made.keys().get(i);
        made.records().get(i).made(key == null ? null : key.get(0));
      }
      if (!made.table().primaryKey().isEmpty()) {
        Records stands = last.readBack(made.table(), made.keys());
        unnoted.set(
            unnoted.indexOf(made),
            new Made(made.table(), made.records(), made.keys(), made.lines(), stands));
      }
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
      books.add(outcome);
      if (rows.notes[r] != null) {
        books.count(outcome, rows.line(r), rows.notes[r]);
      }
      if (outcome == Outcome.NEW && !last.stays()) {
        // the number was given on trial
        rows.keys[r] = null;
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
