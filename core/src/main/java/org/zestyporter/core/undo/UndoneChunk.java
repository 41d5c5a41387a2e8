package org.zestyporter.core.undo;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.KeyText;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.WriteSession.Change;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerEntry.Note;
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/** A chunk of a run's ledger on its way back: what is to be done for each entry, and was done. */
final class UndoneChunk {
  final UndonePart part;
  private final LedgerChunk past;

  /** Entries of the past chunk by which something was written. */
  private final int[] entries;

  private final Records now;
  private final int[] nowAt;
  private final Outcome[] outcomes;
  private final @Nullable Change[] changes;
  private final int[][] changed;
  private final List<Note>[] notes;

  /** Records as they were read back after they were written. */
  private Records left = Records.none();

  private int[] leftAt;

  @SuppressWarnings("unchecked")
  UndoneChunk(UndonePart part, LedgerChunk past, int[] entries, Records now) {
    this.part = part;
    this.past = past;
    this.entries = entries;
    this.now = now;
    this.nowAt = new int[entries.length];
    this.outcomes = new Outcome[entries.length];
    this.changes = new Change[entries.length];
    this.changed = new int[entries.length][];
    this.notes = new List[entries.length];
    this.leftAt = new int[entries.length];
    for (int e = 0; e < entries.length; e++) {
      List<Object> key = key(e);
      nowAt[e] = key == null ? -1 : now.at(key);
      leftAt[e] = -1;
    }
  }

  /** The entries of a chunk by which something was written. */
  static int[] written(LedgerChunk past) {
    return IntStream.range(0, past.size()).filter(i -> past.outcome(i).isWritten()).toArray();
  }

  int size() {
    return entries.length;
  }

  @Nullable List<Object> key(int e) {
    return past.keys()[entries[e]];
  }

  long line(int e) {
    return past.lines()[entries[e]];
  }

  Outcome outcome(int e) {
    return outcomes[e];
  }

  /** What is to be written for an entry; null if nothing, or if the record is to be removed. */
  @Nullable Change change(int e) {
    return changes[e];
  }

  /** True if the record of an entry is there and holds a value in a field of the table. */
  boolean holds(int e, int field) {
    return nowAt[e] >= 0 && now.columns()[field].value(nowAt[e]) != null;
  }

  String shownKey(int e) {
    List<Object> key = key(e);
    return key == null ? "" : KeyText.of(key);
  }

  private Decisions.Place place(int e) {
    int i = entries[e];
    return new Decisions.Place(
        past.destination(),
        past.firstRow() + past.rows()[i],
        past.parts() == null ? 0 : past.parts()[i]);
  }

  /** Decides what is to be done for an entry; true if its record was edited since. */
  boolean decide(int e, Decisions decisions) {
    int i = entries[e];
    Outcome did = past.outcome(i);
    if (did == Outcome.REMOVED) {
      bringBack(e);
      return false;
    }
    if (!past.written().get(i) || key(e) == null) {
      skip(e, ProblemCode.HELD, "it can't be told from other records of the table");
      return false;
    }
    if (nowAt[e] < 0) {
      skip(e, ProblemCode.GONE, "the record is not there any more");
      return false;
    }
    boolean edited = !isAsLeft(e);
    Edited decision = edited ? decisions.of(place(e)) : Edited.PUT_BACK;
    boolean keeps = decision == Edited.KEEP || did == Outcome.NEW && decision == Edited.FIELDS;
    if (keeps) {
      skip(e, ProblemCode.EDITED_SINCE, "edited since: " + told(e));
    } else if (did == Outcome.NEW) {
      outcomes[e] = Outcome.REMOVED;
    } else {
      putBack(e, decision == Edited.FIELDS);
    }
    return edited;
  }

  private void skip(int e, ProblemCode code, String reason) {
    outcomes[e] = Outcome.SKIPPED;
    note(e, new Note(code, null, null, reason, false));
  }

  private void note(int e, Note note) {
    if (notes[e] == null) {
      notes[e] = new ArrayList<>(1);
    }
    notes[e].add(note);
  }

  private boolean isAsLeft(int e) {
    for (int f = 0; f < part.at.length; f++) {
      if (!isSame(f, past.left()[f], entries[e], now.columns()[part.at[f]], nowAt[e])) {
        return false;
      }
    }
    return true;
  }

  private boolean isSame(int f, ValueColumn a, int rowA, ValueColumn b, int rowB) {
    return a.isEqual(rowA, b, rowB) || part.field(f).storage().same(a.value(rowA), b.value(rowB));
  }

  private void putBack(int e, boolean onlyChanged) {
    int i = entries[e];
    List<Integer> fields = new ArrayList<>();
    List<Object> values = new ArrayList<>();
    List<Integer> which = new ArrayList<>();
    for (int f = 0; f < part.at.length; f++) {
      ValueColumn before = past.before()[f];
      boolean wanted =
          part.canChange(f)
              && !isSame(f, before, i, now.columns()[part.at[f]], nowAt[e])
              && !(onlyChanged && isSame(f, before, i, past.left()[f], i));
      if (wanted) {
        fields.add(part.at[f]);
        values.add(before.value(i));
        which.add(f);
      }
    }
    if (fields.isEmpty()) {
      outcomes[e] = Outcome.UNCHANGED;
      return;
    }
    outcomes[e] = Outcome.CHANGED;
    changed[e] = which.stream().mapToInt(Integer::intValue).toArray();
    changes[e] = new Change(line(e), key(e), fields, values);
  }

  private void bringBack(int e) {
    if (nowAt[e] >= 0) {
      skip(e, ProblemCode.THERE_AGAIN, "there is a record of this key again");
      return;
    }
    List<Integer> fields = new ArrayList<>();
    List<Object> values = new ArrayList<>();
    for (int f = 0; f < part.at.length; f++) {
      Object value = past.before()[f].value(entries[e]);
      if (value != null && part.canGive(f)) {
        fields.add(part.at[f]);
        values.add(value);
      }
    }
    outcomes[e] = Outcome.NEW;
    changes[e] = new Change(line(e), null, fields, values);
  }

  /** The database does not do what was decided for an entry. */
  void hold(int e, String reason) {
    outcomes[e] = Outcome.REJECTED;
    changes[e] = null;
    changed[e] = null;
    note(e, new Note(ProblemCode.HELD, null, null, "the database keeps it: " + reason, false));
  }

  /** Keys of the records that were written and are there. */
  List<List<Object>> stands() {
    List<List<Object>> keys = new ArrayList<>();
    for (int e = 0; e < size(); e++) {
      if (changes[e] != null) {
        keys.add(key(e));
      }
    }
    return keys;
  }

  /** Takes the records as they now stand, and tells where the application made something else. */
  void left(Records stands) {
    left = stands;
    for (int e = 0; e < size(); e++) {
      Change change = changes[e];
      if (change == null) {
        continue;
      }
      leftAt[e] = stands.at(key(e));
      for (int c = 0; leftAt[e] >= 0 && c < change.fields().size(); c++) {
        FieldInfo field = part.table.fields().get(change.fields().get(c));
        Object held = stands.columns()[change.fields().get(c)].value(leftAt[e]);
        if (!field.storage().same(change.values().get(c), held)) {
          note(e, Note.altered(field.name(), change.values().get(c), held));
        }
      }
    }
  }

  /** The fields in which a record is not as it was left, in words. */
  private String told(int e) {
    return versions(e).stream()
        .filter(v -> !java.util.Objects.equals(v.left(), v.now()))
        .map(v -> v.field() + " " + shown(v.left()) + " became " + shown(v.now()))
        .collect(Collectors.joining(", "));
  }

  private static String shown(@Nullable String value) {
    return value == null ? "blank" : "“" + value + "”";
  }

  Prospect.EditedRecord edited(int e) {
    return new Prospect.EditedRecord(
        part.label(),
        place(e),
        line(e),
        shownKey(e),
        past.outcome(entries[e]) == Outcome.NEW,
        versions(e));
  }

  /** Fields that were edited since, or changed by the run. */
  private List<Prospect.Versions> versions(int e) {
    int i = entries[e];
    boolean stood = past.stood().get(i);
    List<Prospect.Versions> versions = new ArrayList<>();
    for (int f = 0; f < part.at.length; f++) {
      ValueColumn nowIn = now.columns()[part.at[f]];
      boolean edited = !isSame(f, past.left()[f], i, nowIn, nowAt[e]);
      if (edited || stood && !isSame(f, past.before()[f], i, past.left()[f], i)) {
        versions.add(
            new Prospect.Versions(
                part.field(f).name(),
                stood ? Values.text(past.before()[f].value(i)) : null,
                Values.text(past.left()[f].value(i)),
                Values.text(nowIn.value(nowAt[e]))));
      }
    }
    return versions;
  }

  /** The notes of an entry; empty if there is nothing to say. */
  List<Note> notes(int e) {
    return notes[e] == null ? List.of() : notes[e];
  }

  int @Nullable [] changed(int e) {
    return changed[e];
  }

  /** What is kept of it in the undo's own ledger. */
  LedgerChunk ledger() {
    int size = size();
    BitSet stood = new BitSet(size);
    BitSet written = new BitSet(size);
    byte[] codes = new byte[size];
    long[] lines = new long[size];
    int[] rows = new int[size];
    int[] parts = past.parts() == null ? null : new int[size];
    @SuppressWarnings("unchecked")
    List<Object>[] keys = new List[size];
    for (int e = 0; e < size; e++) {
      stood.set(e, nowAt[e] >= 0);
      written.set(e, leftAt[e] >= 0);
      codes[e] = (byte) outcomes[e].ordinal();
      lines[e] = line(e);
      rows[e] = past.rows()[entries[e]];
      keys[e] = key(e);
      if (parts != null) {
        parts[e] = past.parts()[entries[e]];
      }
    }
    ValueColumn[] before = new ValueColumn[stood.isEmpty() ? 0 : part.at.length];
    ValueColumn[] leftColumns = new ValueColumn[written.isEmpty() ? 0 : part.at.length];
    ValueColumn[] after = new ValueColumn[part.at.length];
    for (int f = 0; f < part.at.length; f++) {
      if (before.length > 0) {
        before[f] = now.columns()[part.at[f]].pick(nowAt);
      }
      if (leftColumns.length > 0) {
        leftColumns[f] = left.columns()[part.at[f]].pick(leftAt);
      }
      after[f] = after(f);
    }
    return new LedgerChunk(
        part.layout,
        past.firstRow(),
        lines,
        rows,
        parts,
        codes,
        new byte[size],
        keys,
        after,
        stood,
        before,
        written,
        leftColumns,
        changed,
        notes);
  }

  /** A field of the records as they stand after the undo. */
  private ValueColumn after(int f) {
    ColumnMaker maker = new ColumnMaker();
    for (int e = 0; e < size(); e++) {
      boolean gone = outcomes[e] == Outcome.REMOVED;
      if (leftAt[e] >= 0) {
        maker.put(left.columns()[part.at[f]].value(leftAt[e]));
      } else {
        maker.put(gone || nowAt[e] < 0 ? null : now.columns()[part.at[f]].value(nowAt[e]));
      }
    }
    return maker.column();
  }
}
