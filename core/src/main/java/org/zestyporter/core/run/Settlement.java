package org.zestyporter.core.run;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.Settled;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/**
 * Finds out what became of a run that was cut off while it was being made lasting, by looking into
 * the application: first by the mark of its transaction, else by the records of its ledger.
 */
public final class Settlement {
  private static final int RECORDS_LOOKED_AT = 2_000;

  private final Application application;

  public Settlement(Application application) {
    this.application = application;
  }

  /** By the mark of the transaction; null if the database can't tell. */
  public @Nullable Settled byMark(@Nullable String mark) {
    return mark == null ? null : application.settled(mark);
  }

  /**
   * By the records that the last batch of a run wrote, in any of its destinations.
   *
   * @param layouts the parts of the ledger
   * @param entries the entries of a part
   * @param rows the source's rows that stand for certain: records of these may have been written by
   *     batches before, and say nothing
   * @param isRepeatable true if the batch may be gone through again should it have written nothing:
   *     it is not the first, and no row that stands for certain was waiting to be written by it
   * @return null if the records speak for both, or for neither
   */
  public @Nullable Settled byLastBatch(
      List<LedgerLayout> layouts,
      Function<LedgerLayout, Stream<LedgerEntry>> entries,
      long rows,
      boolean isRepeatable) {
    boolean any = false;
    for (LedgerLayout layout : layouts) {
      if (layout.isMade()) {
        continue;
      }
      List<LedgerEntry> written =
          entries
              .apply(layout)
              .filter(e -> e.row() >= rows && e.outcome().isWritten())
              .limit(RECORDS_LOOKED_AT)
              .toList();
      any |= !written.isEmpty();
      Settled found =
          byRecords(application.table(layout.table()), layout.fields(), written.stream());
      if (found != null) {
        return found;
      }
    }
    return isRepeatable && !any ? Settled.TAKEN_BACK : null;
  }

  /**
   * By the records that the run wrote. As all of a run is written or nothing of it, every record
   * that was not edited since speaks for the same.
   *
   * @param fields names of the fields whose values the entries hold
   * @param entries the ledger
   * @return null if the records speak for both, or for neither
   */
  public @Nullable Settled byRecords(
      TableInfo table, List<String> fields, Stream<LedgerEntry> entries) {
    Map<List<Object>, LedgerEntry> written = new HashMap<>();
    entries
        .filter(e -> e.outcome().isWritten())
        .limit(RECORDS_LOOKED_AT)
        .filter(e -> e.recordKey() != null)
        .forEach(e -> written.put(table.key(e.recordKey()), e));
    written.remove(null);
    if (written.isEmpty()) {
      return null;
    }
    Records now = application.fetch(table, written.keySet());
    int stands = 0;
    int gone = 0;
    for (Map.Entry<List<Object>, LedgerEntry> one : written.entrySet()) {
      int says = says(one.getValue(), fields, table, now.values(one.getKey()));
      stands += says > 0 ? 1 : 0;
      gone += says < 0 ? 1 : 0;
    }
    if (stands > 0 == gone > 0) {
      return null;
    }
    return stands > 0 ? Settled.COMMITTED : Settled.TAKEN_BACK;
  }

  /** Over 0 if a record is as the run left it, under 0 if it is as it was before, else 0. */
  private static int says(
      LedgerEntry entry, List<String> fields, TableInfo table, Object @Nullable [] now) {
    if (entry.outcome() == Outcome.REMOVED) {
      return now == null ? 1 : -1;
    }
    if (entry.outcome() == Outcome.NEW) {
      if (now == null) {
        return -1;
      }
      boolean any = fields.isEmpty();
      for (int f = 0; f < fields.size(); f++) {
        any |= is(entry.after().get(f), fields.get(f), table, now);
      }
      return any ? 1 : 0;
    }
    int says = 0;
    for (int f : entry.changed()) {
      boolean altered =
          entry.notes().stream()
              .anyMatch(n -> n.code() == ProblemCode.ALTERED && fields.get(f).equals(n.field()));
      if (now != null && !altered && is(entry.after().get(f), fields.get(f), table, now)) {
        says++;
      } else if (now != null && is(entry.before().get(f), fields.get(f), table, now)) {
        says--;
      }
    }
    return says;
  }

  private static boolean is(@Nullable String text, String name, TableInfo table, Object[] now) {
    FieldInfo field = table.field(name);
    Object held = now[table.fields().indexOf(field)];
    return Objects.equals(text, Values.text(held))
        || text != null && held != null && field.storage().same(text, held);
  }
}
