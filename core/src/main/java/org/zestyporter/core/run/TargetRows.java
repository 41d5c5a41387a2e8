package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.match.Match;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ValueColumn;

/** The rows of a chunk in one destination: what their fills gave, and what is decided of them. */
final class TargetRows {
  static final byte OPEN = -1;

  final Target target;
  final FilledChunk filled;

  /** The chunk's row of each; null if each row of the chunk has one, in order. */
  final int @Nullable [] rows;

  final int @Nullable [] parts;
  final Problem @Nullable [] problems;

  /** Index of the first of them among all rows of the destination. */
  final int first;

  /** The columns of the table's fields; null where nothing fills one, or it is not known. */
  final ValueColumn[] byField;

  /** True once what tells their parents apart is among these. */
  boolean holdParents;

  /** What the rows were found to speak of; null for those of which nobody asked yet. */
  Match @Nullable [] matches;

  /** The keys of the rows and what must be unique in them; null where it is told row by row. */
  private Matcher.@Nullable Placed placed;

  private @Nullable List<Matcher.Hashes> guarded;

  /** The fills that gave nothing for any row; null until somebody asks. */
  private @Nullable BitSet withBlanks;

  /** Rows of which a unique value is held by a record. */
  private @Nullable BitSet held;

  byte[] outcomes;
  byte[] matchedBy;
  List<Object>[] keys;

  /** The records that rows were found to speak of. */
  Records found = Records.none();

  /** Places of the found records of rows; under 0 if a row has none. Null if there are none. */
  int @Nullable [] foundAt;

  /** Places of the records that stood before, once rows are decided; under 0 if there is none. */
  int[] before;

  int[][] changed;
  List<LedgerEntry.Note>[] notes;

  /** What is written of the records that rows change; null where one is new, or nothing is. */
  WriteSession.Change[] updates;

  boolean[] waits;

  /** By row, the record that other records need; null if none does. */
  RowRecord @Nullable [] records;

  /** The keys of the parents that the rows belong to; null if there is no parent. */
  private Object @Nullable [] parents;

  /** Values that are known only now, by the number of the fill. */
  private @Nullable Map<Integer, Filled[]> settled;

  /** Records as they stand once rows are written, and their places; null if nothing is written. */
  private Records @Nullable [] left;

  private int @Nullable [] leftAt;

  private final BitSet settledRows = new BitSet();

  /** Places of the rows of each of the chunk's rows; null if they are the same. */
  private final int @Nullable [] starts;

  TargetRows(
      Target target, FilledChunk filled, Selection.Selected selected, int chunkRows, int first) {
    this.target = target;
    this.filled = filled;
    this.rows = selected.rows();
    this.parts = selected.parts();
    this.problems = selected.problems();
    this.first = first;
    this.byField = new ValueColumn[target.table.fields().size()];
    for (int f = 0; f < target.fills.size(); f++) {
      if (filled.isKnown(f)) {
        byField[target.fills.get(f).fieldIndex()] = filled.column(f).values();
      }
    }
    this.starts = rows == null ? null : starts(rows, chunkRows);
  }

  /** One row for each of the chunk's rows. */
  TargetRows(Target target, FilledChunk filled, int first) {
    this(target, filled, new Selection.Selected(null, null, null, null), filled.rows(), first);
  }

  private static int[] starts(int[] rows, int chunkRows) {
    int[] starts = new int[chunkRows + 1];
    for (int row : rows) {
      starts[row + 1]++;
    }
    for (int r = 0; r < chunkRows; r++) {
      starts[r + 1] += starts[r];
    }
    return starts;
  }

  /** Makes room for decisions. */
  @SuppressWarnings("unchecked")
  void open(boolean writes) {
    int count = count();
    outcomes = new byte[count];
    Arrays.fill(outcomes, OPEN);
    matchedBy = new byte[count];
    keys = new List[count];
    before = new int[count];
    Arrays.fill(before, -1);
    changed = new int[count][];
    notes = new List[count];
    updates = writes ? new WriteSession.Change[count] : null;
    waits = new boolean[count];
    records = target.isNeeded ? new RowRecord[count] : null;
    left = writes ? new Records[count] : null;
    leftAt = writes ? new int[count] : null;
  }

  /** Looks for the keys of all rows, and for what must be unique in them, all at once. */
  void place() {
    List<Matcher.Hashes> hashes = target.guard.hashesOf(byField, count());
    guarded = hashes;
    held = target.guard.held(hashes, first);
    placed = target.matcher.placed(target.matcher.hashes(byField, count()), first);
  }

  /** What a row speaks of. */
  Match match(int r) {
    return target.matcher.match(first + r, placed, byField, r);
  }

  /** What must be unique in a row, as hashes; as it was noted. */
  long[] guarded(int r) {
    return guarded == null
        ? target.guard.hashes(byField, r)
        : target.guard.hashes(guarded, byField, r);
  }

  /** False if it is known that no record has what must be unique in a row, as it was noted. */
  boolean mayBeHeld(int r) {
    return held == null || held.get(r);
  }

  int count() {
    return filled.rows();
  }

  /** The chunk's row of a row. */
  int rowOf(int r) {
    return rows == null ? r : rows[r];
  }

  /** The first of the rows of one of the chunk's rows. */
  int from(int chunkRow) {
    return starts == null ? chunkRow : starts[chunkRow];
  }

  /** The row after the last of those of one of the chunk's rows. */
  int to(int chunkRow) {
    return starts == null ? chunkRow + 1 : starts[chunkRow + 1];
  }

  long line(int r) {
    return filled.line(r);
  }

  /** True if it can't be written, by its own values. */
  boolean isRejected(int r) {
    return filled.rejected(r) || problems != null && problems[r] != null;
  }

  /** True if it can't be written by its own values, whatever is answered. */
  boolean isRejectedForGood(int r) {
    return filled.rejectedForGood(r) || problems != null && problems[r] != null;
  }

  /** What a fill gave for a row; null if there is nothing to say of it. */
  @Nullable Filled odd(int fill, int r) {
    Filled known = settled == null ? null : settledOf(fill, r);
    return known != null ? known.problem() == null ? null : known : filled.column(fill).odd(r);
  }

  /** The value of a fill in a row; null if blank. */
  @Nullable Object value(int fill, int r) {
    Filled known = settled == null ? null : settledOf(fill, r);
    return known != null ? known.value() : filled.column(fill).value(r);
  }

  /** The value of a field in a row; null if blank, or nothing fills it. */
  @Nullable Object valueOf(int field, int r) {
    if (target.parent != null && target.parent.fieldIndex() == field) {
      return parent(r);
    }
    for (int f = 0; f < target.fills.size(); f++) {
      if (target.fills.get(f).fieldIndex() == field) {
        return value(f, r);
      }
    }
    return null;
  }

  /** True if a fill gave nothing for a row. */
  boolean isBlank(int fill, int r) {
    return settled == null ? filled.column(fill).values().isBlank(r) : value(fill, r) == null;
  }

  /** The first of some fills that gave nothing for a row; -1 if each gave something. */
  int firstBlank(boolean[] some, int r) {
    if (withBlanks == null) {
      withBlanks = new BitSet();
      for (int f = 0; f < some.length; f++) {
        withBlanks.set(f, filled.column(f).values().hasBlanks());
      }
    }
    for (int f = 0; f < some.length; f++) {
      if (some[f] && (settled != null || withBlanks.get(f)) && isBlank(f, r)) {
        return f;
      }
    }
    return -1;
  }

  private @Nullable Filled settledOf(int fill, int r) {
    Filled[] of = settled.get(fill);
    return of == null ? null : of[r];
  }

  /** Replaces what a fill gave for a row. */
  void settle(int fill, int r, Filled value) {
    if (settled == null) {
      settled = new HashMap<>();
    }
    settled.computeIfAbsent(fill, f -> new Filled[count()])[r] = value;
    settledRows.set(r);
  }

  /** True if a value of the fill was replaced. */
  boolean isSettledFill(int fill) {
    return settled != null && settled.containsKey(fill);
  }

  void setParent(int r, Object key) {
    if (parents == null) {
      parents = new Object[count()];
    }
    parents[r] = key;
  }

  /** The key of the parent that a row belongs to, or what stands for it. */
  @Nullable Object parent(int r) {
    return parents == null ? null : parents[r];
  }

  /** True if a value of the row was replaced. */
  boolean isSettled(int r) {
    return settledRows.get(r);
  }

  /** True if a value of any row was replaced. */
  boolean isSettled() {
    return !settledRows.isEmpty();
  }

  /** The whole record that stood before, by the table's fields; null if there was none. */
  Object @Nullable [] before(int r) {
    return before[r] < 0 ? null : found.values(before[r]);
  }

  /** Notes where the record of a written row was read back. */
  void leave(int r, Records stands, int at) {
    left[r] = stands;
    leftAt[r] = at;
  }

  /** Rows whose records were read back after they were written. */
  BitSet leftRows() {
    BitSet rows = new BitSet();
    for (int r = 0; left != null && r < left.length; r++) {
      rows.set(r, left[r] != null);
    }
    return rows;
  }

  /** These records, one column a field of the table. */
  ValueColumn[] left() {
    Records first = null;
    boolean one = true;
    for (Records records : left) {
      first = first == null ? records : first;
      one &= records == null || records == first;
    }
    if (one && first != null) {
      return Arrays.stream(first.columns()).map(c -> c.pick(leftAt)).toArray(ValueColumn[]::new);
    }
    // written one after the other, since some had to wait for others
    ValueColumn[] columns = new ValueColumn[target.table.fields().size()];
    for (int f = 0; f < columns.length; f++) {
      ColumnMaker maker = new ColumnMaker();
      for (int r = 0; r < left.length; r++) {
        maker.put(left[r] == null ? null : left[r].columns()[f].value(leftAt[r]));
      }
      columns[f] = maker.column();
    }
    return columns;
  }

  void note(int r, LedgerEntry.Note note) {
    if (notes[r] == null) {
      notes[r] = new ArrayList<>(1);
    }
    notes[r].add(note);
  }

  /** True if a decided row is written. */
  boolean isWritten(int r) {
    return isNew(r) || outcomes[r] == Outcome.CHANGED.ordinal();
  }

  /** True if a row makes a new record. */
  boolean isNew(int r) {
    return outcomes[r] == Outcome.NEW.ordinal();
  }

  /** What is written of a row's record; only of rows that are written. */
  WriteSession.Change change(int r) {
    return isNew(r) ? insert(r) : updates[r];
  }

  private WriteSession.Change insert(int r) {
    List<Integer> fields = new ArrayList<>();
    List<Object> values = new ArrayList<>();
    for (int f = 0; f < target.fills.size(); f++) {
      Object value = value(f, r);
      if (value != null || isGivenBlank(target.fills.get(f).field())) {
        fields.add(target.fills.get(f).fieldIndex());
        values.add(value);
      }
    }
    if (target.parent != null) {
      fields.add(target.parent.fieldIndex());
      values.add(parent(r));
    }
    return new WriteSession.Change(line(r), null, fields, values);
  }

  /** True if it makes no difference whether a blank is given: records go together then. */
  private static boolean isGivenBlank(FieldInfo field) {
    return !field.mayBeLeft();
  }

  /**
   * The columns of the table's fields, as they are written: with what was replaced, and with keys
   * in the place of records that were pending; null where nothing is given.
   */
  ValueColumn[] given() {
    ValueColumn[] given = byField.clone();
    for (int fill : settled == null ? Set.<Integer>of() : settled.keySet()) {
      Object[] values = new Object[count()];
      Arrays.setAll(values, r -> value(fill, r));
      given[target.fills.get(fill).fieldIndex()] = ValueColumn.of(values, null);
    }
    for (int f = 0; f < given.length; f++) {
      if (given[f] != null && given[f].form() == ValueColumn.Form.ANY) {
        given[f] = linked(given[f]);
      }
    }
    if (target.parent != null) {
      Object[] keys = parents == null ? new Object[count()] : parents;
      given[target.parent.fieldIndex()] = linked(ValueColumn.of(keys.clone(), null));
    }
    return given;
  }

  private static ValueColumn linked(ValueColumn column) {
    Object[] values = new Object[column.entries()];
    boolean any = false;
    for (int e = 0; e < values.length; e++) {
      Object value = column.valueOf(e);
      any |= value instanceof Pending;
      values[e] = value instanceof Pending pending ? pending.key() : value;
    }
    return any ? column.with(values) : column;
  }

  /** The values of a row by the table's fields. */
  Object[] values(int r) {
    Object[] values = new Object[byField.length];
    for (int f = 0; f < target.fills.size(); f++) {
      values[target.fills.get(f).fieldIndex()] = value(f, r);
    }
    if (target.parent != null) {
      values[target.parent.fieldIndex()] = parent(r);
    }
    return values;
  }
}
