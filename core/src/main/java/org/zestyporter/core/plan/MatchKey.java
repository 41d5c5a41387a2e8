package org.zestyporter.core.plan;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Comparison;

/**
 * Fields that together identify a record.
 *
 * @param fields names of the fields
 * @param ignoring what is ignored when values are compared
 * @param ignoringIn the same for fields that are compared in another way than the others
 */
public record MatchKey(
    List<String> fields,
    List<Comparison.Ignore> ignoring,
    @Nullable Map<String, List<Comparison.Ignore>> ignoringIn) {
  public MatchKey {
    fields = fields == null ? List.of() : List.copyOf(fields);
    ignoring = ignoring == null ? List.of() : List.copyOf(ignoring);
    ignoringIn = ignoringIn == null || ignoringIn.isEmpty() ? null : new TreeMap<>(ignoringIn);
  }

  /** A key whose fields are all compared in one way. */
  public MatchKey(List<String> fields, List<Comparison.Ignore> ignoring) {
    this(fields, ignoring, null);
  }

  /** What is ignored in one of its fields. */
  public List<Comparison.Ignore> ignoring(String field) {
    return ignoringIn == null ? ignoring : ignoringIn.getOrDefault(field, ignoring);
  }
}
