package org.zestyporter.core.plan;

import java.util.List;
import org.zestyporter.core.value.Comparison;

/**
 * Fields that together identify a record.
 *
 * @param fields names of the fields
 * @param ignoring what is ignored when values are compared
 */
public record MatchKey(List<String> fields, List<Comparison.Ignore> ignoring) {
  public MatchKey {
    fields = fields == null ? List.of() : List.copyOf(fields);
    ignoring = ignoring == null ? List.of() : List.copyOf(ignoring);
  }
}
