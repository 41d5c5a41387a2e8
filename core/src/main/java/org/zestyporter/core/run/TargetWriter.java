package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.NewRecords;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.fill.PendingRecord;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/** Has the decided records of one destination written. */
final class TargetWriter {
  private final Target target;
  private final LastStage last;
  private final LedgerWriter ledger;
  private final TargetBooks books;

  /** Linked records for what was sent and is not noted yet: wanted by it, and made. */
  private final List<PendingRecord> claimed = new ArrayList<>();

  private final List<Made> unnoted = new ArrayList<>();

  /** Tells how records stand without reading them back; null if they have to be. */
  private @Nullable AsGiven asGiven;

  private boolean isAsGivenKnown;

  TargetWriter(Target target, LastStage last, LedgerWriter ledger) {
    this.target = target;
    this.last = last;
    this.ledger = ledger;
    this.books = new TargetBooks(target, last);
  }

  /**
   * Rows that are to be written.
   *
   * @param fresh new records; null if there are none, or they go with the others
   * @param freshRows their rows
   * @param others rows whose records go one by one
   */
  record Ready(
      TargetWriter by,
      TargetRows rows,
      List<Integer> written,
      @Nullable NewRecords fresh,
      List<Integer> freshRows,
      List<Integer> others,
      boolean inOrder) {

    /** Writes them. */
    Sent send() {
      return by.send(this);
    }
  }

  /**
   * Makes some rows ready to be written, which have been decided.
   *
   * @param places places of the rows among the chunk's
   * @return null if there is nothing to write
   */
  @Nullable Ready ready(TargetRows rows, List<Integer> places) {
    List<Integer> written = new ArrayList<>(places.size());
    List<Integer> fresh = new ArrayList<>(places.size());
    List<Integer> others = new ArrayList<>();
    boolean inOrder = false;
    for (Integer r : places) {
      if (rows.isWritten(r)) {
        written.add(r);
        inOrder |= rows.waits[r];
        (rows.isNew(r) ? fresh : others).add(r);
      }
    }
    if (written.isEmpty()) {
      return null;
    }
    return inOrder || fresh.isEmpty()
        ? new Ready(this, rows, written, null, List.of(), written, inOrder)
        : new Ready(this, rows, written, newRecords(rows, fresh), fresh, others, false);
  }

  /** Lets go of linked records that were made in vain, since what was sent is taken back. */
  void takeBack() {
    claimed.forEach(PendingRecord::unmade);
    claimed.clear();
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

  /**
   * Records that were written, and how they stand.
   *
   * @param places where each row's record stands among them; under 0 if it was not found
   * @param asGiven true if they are known to stand as they were given
   */
  record Sent(
      TargetWriter by,
      TargetRows rows,
      List<Integer> written,
      List<List<Object>> keys,
      @Nullable Records stands,
      int[] places,
      boolean asGiven) {

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

  /**
   * Writes rows. Nothing is noted of it yet.
   *
   * @throws WriteSession.RefusedException if the application refuses any of them
   */
  private Sent send(Ready ready) {
    TargetRows rows = ready.rows();
    List<Integer> written = ready.written();
    List<List<Object>> keys = new ArrayList<>(Collections.nCopies(rows.count(), null));
    List<Integer> linking = pending(rows, written);
    make(linking.stream().map(rows::change).toList());
    List<Integer> others = ready.others();
    List<WriteSession.Change> changes = others.stream().map(r -> linked(rows.change(r))).toList();
    List<List<Object>> made = last.write(target.table, changes, ready.inOrder());
    for (int i = 0; i < made.size(); i++) {
      keys.set(others.get(i), made.get(i));
    }
    List<Integer> fresh = ready.freshRows();
    if (ready.fresh() != null) {
      // what points at a record that was refused is refused too
      linking.stream().filter(rows::isNew).forEach(r -> linked(rows.change(r)));
      made = last.insert(linking.isEmpty() ? ready.fresh() : newRecords(rows, fresh));
      for (int i = 0; i < made.size(); i++) {
        keys.set(fresh.get(i), made.get(i));
      }
    }
    List<List<Object>> all = new ArrayList<>(written.size());
    for (int r : written) {
      List<Object> key = rows.keys[r] == null ? keys.get(r) : rows.keys[r];
      all.add(key);
      if (rows.records != null && rows.records[r] != null) {
        // known to those that are sent with it
        rows.records[r].made(key);
      }
    }
    return sent(rows, written, all);
  }

  /** Tells how records stand that were written. */
  private Sent sent(TargetRows rows, List<Integer> written, List<List<Object>> keys) {
    if (!isAsGivenKnown) {
      isAsGivenKnown = true;
      asGiven = AsGiven.of(target, last);
    }
    Records told =
        asGiven == null || keys.contains(null) ? null : asGiven.records(rows, written, keys);
    if (told != null) {
      int[] places = IntStream.range(0, keys.size()).toArray();
      return new Sent(this, rows, written, keys, told, places, true);
    }
    Records stands = readBack(keys);
    int[] places =
        keys.stream().mapToInt(k -> stands == null || k == null ? -1 : stands.at(k)).toArray();
    return new Sent(this, rows, written, keys, stands, places, false);
  }

  /** Rows that point at records which have no key yet. */
  private List<Integer> pending(TargetRows rows, List<Integer> places) {
    int[] all = IntStream.range(0, target.fills.size()).toArray();
    int[] open =
        Arrays.stream(all).filter(f -> isPending(rows.filled.column(f).values())).toArray();
    if (open.length == 0 && target.parent == null && !rows.isSettled()) {
      return List.of();
    }
    return places.stream()
        .filter(
            r ->
                isPending(rows.parent(r))
                    || Arrays.stream(rows.isSettled(r) ? all : open)
                        .anyMatch(f -> isPending(rows.value(f, r))))
        .toList();
  }

  private static boolean isPending(ValueColumn column) {
    for (int e = 0; column.form() == ValueColumn.Form.ANY && e < column.entries(); e++) {
      if (isPending(column.valueOf(e))) {
        return true;
      }
    }
    return false;
  }

  /** New records, in the order of their rows: so are the numbers that the database gives them. */
  private NewRecords newRecords(TargetRows rows, List<Integer> places) {
    return new NewRecords(
        target.table,
        rows.given(),
        places.stream().mapToInt(Integer::intValue).toArray(),
        places.stream().mapToLong(rows::line).toArray());
  }

  private static boolean isPending(@Nullable Object value) {
    return value instanceof Pending pending && pending.key() == null;
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
    claimed.clear();
    unnoted.clear();
    TargetRows rows = sent.rows();
    Records stands = sent.stands();
    for (int i = 0; i < sent.written().size(); i++) {
      int r = sent.written().get(i);
      int at = sent.places()[i];
      books.written(rows, r, sent.asGiven() ? null : linked(rows.change(r)), stands, at);
      rows.keys[r] = sent.keys().get(i);
      if (at >= 0 && last.stays()) {
        rows.leave(r, stands, at);
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
    // should one be refused, all of them are let go
    claimed.addAll(lines.keySet());
    wanted.forEach(
        (linked, records) -> {
          List<WriteSession.Change> given =
              records.stream()
                  .map(
                      r ->
                          linked(
                              new WriteSession.Change(lines.get(r), null, r.fields(), r.values())))
                  .toList();
          List<List<Object>> keys = last.write(linked, given, false);
          for (int i = 0; i < keys.size(); i++) {
            records.get(i).made(keys.get(i) == null ? null : keys.get(i).get(0));
          }
          unnoted.add(
              new Made(
                  linked,
                  records,
                  keys,
                  records.stream().mapToLong(lines::get).toArray(),
                  linked.primaryKey().isEmpty() ? null : last.readBack(linked, keys)));
        });
  }

  private @Nullable Records readBack(Collection<List<Object>> written) {
    Set<List<Object>> keys = new HashSet<>(written);
    keys.remove(null);
    return keys.isEmpty() || target.table.primaryKey().isEmpty()
        ? null
        : last.readBack(target.table, keys);
  }

  /** What its records are entered into. */
  TargetBooks books() {
    return books;
  }
}
