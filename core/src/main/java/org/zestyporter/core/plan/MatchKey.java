package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.util.ArrayList;
import java.util.Comparator;
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
 * @param nearIn fields whose values need not be the same, with how near they have to be: {@value
 *     #SPELLING}, or a distance (of numbers; of dates in days). What such a key finds, be it
 *     records or earlier rows, is asked about, and never taken for the record by itself.
 */
public record MatchKey(
    List<String> fields,
    List<Comparison.Ignore> ignoring,
    @Nullable Map<String, List<Comparison.Ignore>> ignoringIn,
    @Nullable Map<String, String> nearIn) {

  /** Says of a field that values which are spelt alike are near. */
  public static final String SPELLING = "spelling";

  public MatchKey {
    fields = fields == null ? List.of() : List.copyOf(fields);
    ignoring = ignoring == null ? List.of() : List.copyOf(ignoring);
    ignoringIn = ignoringIn == null || ignoringIn.isEmpty() ? null : new TreeMap<>(ignoringIn);
    nearIn = nearIn == null || nearIn.isEmpty() ? null : new TreeMap<>(nearIn);
  }

  /** A key whose fields are all compared in one way. */
  public MatchKey(List<String> fields, List<Comparison.Ignore> ignoring) {
    this(fields, ignoring, null, null);
  }

  /** A key whose fields have to agree, each compared in its own way. */
  public MatchKey(
      List<String> fields,
      List<Comparison.Ignore> ignoring,
      @Nullable Map<String, List<Comparison.Ignore>> ignoringIn) {
    this(fields, ignoring, ignoringIn, null);
  }

  /** True if values of some fields need not be the same. */
  @JsonIgnore
  public boolean isNear() {
    return nearIn != null;
  }

  /** The same key, its fields that have to agree before the others. */
  @JsonIgnore
  public MatchKey agreeingFirst() {
    if (nearIn == null) {
      return this;
    }
    List<String> ordered = new ArrayList<>(fields);
    ordered.sort(Comparator.comparing(f -> near(f) != null));
    return new MatchKey(ordered, ignoring, ignoringIn, nearIn);
  }

  /** How near the values of a field have to be; null if they have to be the same. */
  public @Nullable String near(String field) {
    return nearIn == null ? null : nearIn.get(field);
  }

  /** What is ignored in one of its fields. */
  public List<Comparison.Ignore> ignoring(String field) {
    if (near(field) != null) {
      return List.of();
    }
    return ignoringIn == null ? ignoring : ignoringIn.getOrDefault(field, ignoring);
  }
}
