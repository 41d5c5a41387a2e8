package org.zestyporter.core.undo;

import java.util.List;
import java.util.stream.IntStream;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** One destination of a run that is taken back, and what has been done in it so far. */
final class UndonePart {
  final LedgerLayout past;
  final TableInfo table;

  /** What the undo's own ledger holds: whole records. */
  final LedgerLayout layout;

  /** By the record's fields, the place of each among those of the table. */
  final int[] at;

  final long[] outcomes = new long[Outcome.values().length];
  long edited;
  long gone;

  /** By the record's fields, how many records were put back in each. */
  final long[] changed;

  /**
   * @throws PorterException with code {@code cant-undo} if the table has lost a field of the
   *     records
   */
  UndonePart(LedgerLayout past, TableInfo table) {
    this.past = past;
    this.table = table;
    this.at = new int[past.record().size()];
    this.changed = new long[at.length];
    for (int f = 0; f < at.length; f++) {
      FieldInfo field = table.find(past.record().get(f));
      if (field == null) {
        throw ErrorCode.CANT_UNDO.error(
            "The table "
                + table.name()
                + " has no field “"
                + past.record().get(f)
                + "” any more, so its records can't be put back as they were.",
            "Undo what the run did by hand, with the help of its ledger.");
      }
      at[f] = table.fields().indexOf(field);
    }
    this.layout =
        new LedgerLayout(
            past.destination(),
            past.label(),
            past.table(),
            past.record(),
            past.record(),
            IntStream.range(0, at.length).boxed().toList(),
            past.key());
  }

  FieldInfo field(int f) {
    return table.fields().get(at[f]);
  }

  /** True if a value can be given to a field of a record that is there. */
  boolean canChange(int f) {
    return field(f).isFillable();
  }

  /** True if a value can be given to a field of a record that comes back. */
  boolean canGive(int f) {
    boolean numbered = field(f).generated() && table.primaryKey().contains(field(f).name());
    return field(f).isFillable() || numbered;
  }

  /** The label of the destination. */
  String label() {
    return past.label();
  }

  /** Numbers of what the undo leaves untouched. */
  long total() {
    return IntStream.range(0, outcomes.length).mapToLong(o -> outcomes[o]).sum();
  }

  List<String> record() {
    return past.record();
  }
}
