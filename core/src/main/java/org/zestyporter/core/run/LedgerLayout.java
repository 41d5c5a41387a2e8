package org.zestyporter.core.run;

import java.util.List;

/**
 * What the entries of a ledger hold for one destination.
 *
 * @param destination index of the destination in the plan
 * @param label what the plan calls it
 * @param table name of its table
 * @param record names of all fields of the table: what a record before is made of
 * @param fields names of the filled fields: what the written values are of
 * @param positions of these fields among those of the record
 */
public record LedgerLayout(
    int destination,
    String label,
    String table,
    List<String> record,
    List<String> fields,
    List<Integer> positions) {
  public LedgerLayout {
    record = List.copyOf(record);
    fields = List.copyOf(fields);
    positions = List.copyOf(positions);
  }
}
