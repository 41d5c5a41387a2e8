package org.zestyporter.core.run;

import java.math.BigDecimal;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.ValueColumn;

/** Enters the rows of one destination into its books: outcomes, sums, and what was altered. */
final class TargetBooks {
  private final Target target;
  private final LastStage last;
  private final Books books;

  /** Fills whose numbers are summed. */
  private final int[] summed;

  /** By fill, the numbers that stand as they were given, and are not in the books yet. */
  private final ColumnSum[] sums;

  TargetBooks(Target target, LastStage last) {
    this.target = target;
    this.last = last;
    this.books = target.books;
    this.summed =
        java.util.stream.IntStream.range(0, target.fills.size())
            .filter(f -> isAmount(target.fills.get(f).fill(), target.fills.get(f).field()))
            .toArray();
    this.sums = new ColumnSum[target.fills.size()];
    Arrays.setAll(sums, f -> new ColumnSum());
  }

  /**
   * True if adding up what a field is filled with says anything: not if it tells records apart, nor
   * if words become codes.
   */
  private static boolean isAmount(Fill fill, FieldInfo field) {
    long codes =
        fill.steps().stream()
            .filter(s -> s.kind() == StepKind.REPLACE && !s.off())
            .map(s -> s.setting("to"))
            .distinct()
            .count();
    return fill.origin() instanceof Origin.Column
        && field.type().isNumber()
        && !field.unique()
        && codes < 2;
  }

  /** Counts a linked record that was made, or would be. */
  void created(String table, String name, @Nullable String key, long line) {
    books.created(table, name, key, line);
  }

  /**
   * Notes how the record of a row stands that was written.
   *
   * @param change what was written; null if it is known to stand so
   * @param stands records as they were read back; null if they can't be
   * @param at the row's record in them; under 0 if it was not found
   */
  void written(
      TargetRows rows,
      int r,
      WriteSession.@Nullable Change change,
      @Nullable Records stands,
      int at) {
    if (stands == null) {
      totalUnread(rows, r);
      return;
    }
    if (at >= 0 && change != null) {
      compare(rows, r, change, stands.columns(), at);
    }
    total(rows, r, stands.columns(), at);
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
        rows.note(r, LedgerEntry.Note.altered(field.name(), sent, held));
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
