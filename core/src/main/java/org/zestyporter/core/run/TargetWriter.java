package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.fill.PendingRecord;
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

  TargetWriter(Target target, LastStage last, LedgerWriter ledger) {
    this.target = target;
    this.last = last;
    this.ledger = ledger;
    this.books = new TargetBooks(target, last);
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
    claimed.clear();
    unnoted.clear();
    TargetRows rows = sent.rows();
    Records stands = sent.stands();
    for (int i = 0; i < sent.written().size(); i++) {
      int r = sent.written().get(i);
      List<Object> key = rows.keys[r] == null ? sent.keys().get(i) : rows.keys[r];
      int at = stands == null || key == null ? -1 : stands.at(key);
      books.written(rows, r, sent.changes().get(i), stands, at);
      rows.keys[r] = key;
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

  private @Nullable Records readBack(List<List<Object>> written) {
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
