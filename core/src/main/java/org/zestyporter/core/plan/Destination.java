package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonFormat;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * One table that a plan fills.
 *
 * @param name what other destinations and the books call it; null for the name of its table
 * @param table name of the table
 * @param where a formula that tells which rows go there; null if all do
 * @param distinct true if each distinct match key makes one record, however many rows hold it
 * @param split a column whose cells hold several values, each of which makes a record
 * @param parent the earlier destination that its records belong to
 * @param fills how its fields get their values; fields without a fill are left to the database
 * @param keys match keys, tried in order; empty if every row is added as a new record
 * @param among a formula over the fields of the table: only records for which it holds are looked
 *     for; null for all
 * @param decisions what a person said of certain rows
 * @param policies what happens to matched, unmatched and repeated rows
 * @param checksOff names of the table's checks that this plan passes over
 */
@RecordBuilder
public record Destination(
    @Nullable String name,
    String table,
    @Nullable String where,
    boolean distinct,
    @Nullable Split split,
    @Nullable Parent parent,
    List<Fill> fills,
    List<MatchKey> keys,
    @Nullable String among,
    List<Decision> decisions,
    Policies policies,
    List<String> checksOff)
    implements DestinationBuilder.With {

  /**
   * A column whose cells hold several values.
   *
   * @param at what may stand between the values: one or several texts
   */
  public record Split(
      String column,
      @JsonFormat(with = JsonFormat.Feature.ACCEPT_SINGLE_VALUE_AS_ARRAY) List<String> at) {
    public Split {
      at = at == null ? List.of() : at.stream().map(a -> a == null ? "" : a).toList();
    }

    /** What stands between two values, the longest first where one begins with another. */
    public Pattern pattern() {
      return Pattern.compile(
          at.stream()
              .sorted(Comparator.comparingInt(String::length).reversed())
              .map(Pattern::quote)
              .collect(Collectors.joining("|")));
    }
  }

  /**
   * The destination that a row's record belongs to: its key comes from the record that the same row
   * made or matched there.
   *
   * @param destination its name
   * @param field the link field that takes the key; null for the only one that points at its table
   */
  public record Parent(String destination, @Nullable String field) {}

  public Destination {
    fills = fills == null ? List.of() : List.copyOf(fills);
    keys = keys == null ? List.of() : List.copyOf(keys);
    decisions = decisions == null ? List.of() : List.copyOf(decisions);
    where = where == null || where.isBlank() ? null : where;
    among = among == null || among.isBlank() ? null : among;
    policies = policies == null ? Policies.DEFAULT : policies;
    checksOff = checksOff == null ? List.of() : List.copyOf(checksOff);
  }

  /** A table that every row goes to. */
  public Destination(
      String table,
      List<Fill> fills,
      List<MatchKey> keys,
      Policies policies,
      List<String> checksOff) {
    this(null, table, null, false, null, null, fills, keys, null, null, policies, checksOff);
  }

  public Destination(String table, List<Fill> fills, List<MatchKey> keys, Policies policies) {
    this(table, fills, keys, policies, null);
  }

  /** The columns that it reads, for its fields or to be split. */
  public Stream<String> columnsRead() {
    Stream<String> ofFills = fills.stream().flatMap(Fill::columnsRead);
    return split == null ? ofFills : Stream.concat(ofFills, Stream.of(split.column()));
  }

  /** True if every row goes there, whole. */
  public boolean takesAll() {
    return where == null && split == null;
  }

  /** What it is called. */
  public String label() {
    return name == null || name.isBlank() ? table : name;
  }
}
