package org.zestyporter.core.run;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.util.List;
import java.util.stream.IntStream;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;

/**
 * What the entries of a ledger hold for one destination.
 *
 * @param destination index of the destination in the plan; {@link #MADE} and above for linked
 *     records
 * @param label what the plan calls it
 * @param table name of its table
 * @param record names of all fields of the table: what a record before is made of
 * @param fields names of the filled fields: what the written values are of
 * @param positions of these fields among those of the record
 * @param key positions of the primary key's fields among those of the record
 */
public record LedgerLayout(
    int destination,
    String label,
    String table,
    List<String> record,
    List<String> fields,
    List<Integer> positions,
    List<Integer> key) {

  /** From here on, parts of a ledger tell of linked records that rows made, one for each table. */
  public static final int MADE = 1_000;

  public LedgerLayout {
    // ledgers of before runs could be undone don't say it
    key = key == null ? List.of() : List.copyOf(key);
    record = List.copyOf(record);
    fields = List.copyOf(fields);
    positions = List.copyOf(positions);
  }

  /** The layout of the linked records that rows made in a table: whole records. */
  static LedgerLayout made(int number, TableInfo table) {
    List<String> record = table.fields().stream().map(FieldInfo::name).toList();
    return new LedgerLayout(
        MADE + number,
        table.name(),
        table.name(),
        record,
        record,
        IntStream.range(0, record.size()).boxed().toList(),
        keyOf(table));
  }

  /** Positions of the primary key's fields. */
  static List<Integer> keyOf(TableInfo table) {
    return table.fields(table.primaryKey()).stream().map(table.fields()::indexOf).toList();
  }

  /** True if it tells of linked records that rows made. */
  @JsonIgnore
  public boolean isMade() {
    return destination >= MADE;
  }
}
