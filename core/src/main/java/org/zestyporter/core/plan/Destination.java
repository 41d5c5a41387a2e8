package org.zestyporter.core.plan;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * One table that a plan fills.
 *
 * @param table name of the table
 * @param fills how its fields get their values; fields without a fill are left to the database
 * @param keys match keys, tried in order; empty if every row is added as a new record
 * @param policies what happens to matched, unmatched and repeated rows
 * @param checksOff names of the table's checks that this plan passes over
 */
@RecordBuilder
public record Destination(
    String table, List<Fill> fills, List<MatchKey> keys, Policies policies, List<String> checksOff)
    implements DestinationBuilder.With {

  public Destination {
    fills = fills == null ? List.of() : List.copyOf(fills);
    keys = keys == null ? List.of() : List.copyOf(keys);
    policies = policies == null ? Policies.DEFAULT : policies;
    checksOff = checksOff == null ? List.of() : List.copyOf(checksOff);
  }

  public Destination(String table, List<Fill> fills, List<MatchKey> keys, Policies policies) {
    this(table, fills, keys, policies, null);
  }
}
