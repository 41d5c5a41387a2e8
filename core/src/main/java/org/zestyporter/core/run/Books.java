package org.zestyporter.core.run;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.value.ProblemCode;

/** Adds up the outcomes, problems and control totals of one destination. */
final class Books {
  private static final int VALUES_COUNTED = 5_000;
  private static final int VALUES_SHOWN = 12;

  private record Cause(ProblemCode code, String field, boolean softened) {}

  /** What one answer settles. */
  private record Asked(ProblemCode code, String field, @Nullable String value) {}

  private static final class Group {
    private final Map<String, RunReport.Sample> values = new LinkedHashMap<>();
    private long rows;

    /** True if records that others follow were rejected for several reasons. */
    private boolean isForSeveral;
  }

  /** What the source gave, what the application made of it, and what the table holds. */
  private static final class Sums {
    private BigDecimal source = BigDecimal.ZERO;
    private BigDecimal altered = BigDecimal.ZERO;
    private BigDecimal written = BigDecimal.ZERO;

    boolean agree() {
      return source.add(altered).compareTo(written) == 0;
    }
  }

  private record Altered(long values, long line) {}

  private final String table;
  private long rows;
  private long waiting;
  private final long[] outcomes = new long[Outcome.values().length];
  private final Map<Cause, Group> problems = new LinkedHashMap<>();
  private final Map<Asked, Long> questions = new LinkedHashMap<>();
  private final Created created = new Created();
  private final Map<String, Long> fieldsChanged = new TreeMap<>();
  private final Map<String, Sums> totals = new LinkedHashMap<>();
  private final Map<String, Altered> altered = new TreeMap<>();

  /**
   * @param table what the destination is called
   */
  Books(String table) {
    this.table = table;
  }

  /** Counts a row that came to the destination. */
  void add(Outcome outcome) {
    outcomes[outcome.ordinal()]++;
  }

  /** How many rows have come to an outcome. */
  long count(Outcome outcome) {
    return outcomes[outcome.ordinal()];
  }

  /** How many of the rejected rows only wait for an answer. */
  long waiting() {
    return waiting;
  }

  /** Counts what there is to say of a row. */
  void count(Outcome outcome, long line, List<LedgerEntry.Note> notes) {
    waiting += LedgerEntry.isWaiting(outcome, notes) ? 1 : 0;
    for (LedgerEntry.Note note : notes) {
      if (note.question() && note.code().isOfAnother()) {
        // it is asked, or told, of the record that keeps this one back
        continue;
      }
      if (note.question()) {
        questions.merge(new Asked(note.code(), note.field(), value(note)), 1L, Long::sum);
      } else if (note.softened() || outcome == Outcome.REJECTED) {
        count(note, line);
      }
    }
  }

  /** The value that rows share of which one answer or mending settles all. */
  private static @Nullable String value(LedgerEntry.Note note) {
    return note.code().isOfMatch() ? "" : note.value();
  }

  /** Counts a field that a record has another value in. */
  void changed(String field) {
    fieldsChanged.merge(field, 1L, Long::sum);
  }

  private void count(LedgerEntry.Note note, long line) {
    Group group =
        problems.computeIfAbsent(
            new Cause(note.code(), note.field(), note.softened()), c -> new Group());
    group.rows++;
    String value = value(note) == null ? "" : value(note);
    RunReport.Sample known = group.values.get(value);
    if (known != null) {
      group.isForSeveral |= note.code().isOfAnother() && !known.reason().equals(note.reason());
      group.values.put(
          value, new RunReport.Sample(known.row(), value, known.reason(), known.rows() + 1));
    } else if (group.values.size() < VALUES_COUNTED) {
      group.values.put(value, new RunReport.Sample(line, value, note.reason(), 1));
    }
  }

  /** Counts a linked record that was made, or would be. */
  void created(String linked, String name, String key, long line) {
    created.add(new RunReport.MadeRecord(linked, name, key, line));
  }

  /** Linked records that were made, or would be. */
  Created created() {
    return created;
  }

  /** Counts a value that the application keeps otherwise than it was given. */
  void altered(String field, long line) {
    altered.merge(field, new Altered(1, line), (a, b) -> new Altered(a.values() + 1, a.line()));
  }

  /** What the application changed, in words; null if nothing. */
  @Nullable String alteredInWords() {
    return altered.isEmpty()
        ? null
        : String.join(
            ", ",
            altered.entrySet().stream()
                .map(
                    e ->
                        e.getValue().values()
                            + (e.getValue().values() == 1 ? " value of " : " values of ")
                            + e.getKey()
                            + " (first on line "
                            + e.getValue().line()
                            + ")")
                .toList());
  }

  /**
   * Adds a number that the source gave and what the table holds for it.
   *
   * @param lost true if the record was not found again
   */
  void total(FieldInfo field, BigDecimal source, Object held, boolean lost) {
    Sums sums = totals.computeIfAbsent(field.name(), f -> new Sums());
    sums.source = sums.source.add(source);
    if (lost) {
      return;
    }
    BigDecimal number = held instanceof BigDecimal n ? n : BigDecimal.ZERO;
    sums.written = sums.written.add(number);
    if (!field.storage().same(source, held)) {
      sums.altered = sums.altered.add(number.subtract(source));
    }
  }

  /**
   * Adds numbers that the source gave and that the table holds, or would hold, as they are.
   *
   * @param sum of all of them
   */
  void total(FieldInfo field, BigDecimal sum) {
    Sums sums = totals.computeIfAbsent(field.name(), f -> new Sums());
    sums.source = sums.source.add(sum);
    sums.written = sums.written.add(sum);
  }

  RunReport.DestinationReport destination() {
    List<RunReport.FieldCount> changed =
        fieldsChanged.entrySet().stream()
            .map(e -> new RunReport.FieldCount(e.getKey(), e.getValue()))
            .sorted(Comparator.comparingLong(c -> -c.records()))
            .toList();
    return new RunReport.DestinationReport(
        table,
        outcomes[Outcome.NEW.ordinal()],
        outcomes[Outcome.CHANGED.ordinal()],
        outcomes[Outcome.UNCHANGED.ordinal()],
        outcomes[Outcome.SKIPPED.ordinal()],
        outcomes[Outcome.REJECTED.ordinal()],
        changed,
        rows,
        null,
        waiting == 0 ? null : waiting);
  }

  List<RunReport.ProblemGroup> problems() {
    List<RunReport.ProblemGroup> groups = new ArrayList<>();
    problems.forEach(
        (cause, group) -> {
          List<RunReport.Sample> values =
              group.values.values().stream()
                  .sorted(
                      Comparator.comparingLong((RunReport.Sample s) -> -s.rows())
                          .thenComparingLong(RunReport.Sample::row))
                  .limit(VALUES_SHOWN)
                  .toList();
          groups.add(
              new RunReport.ProblemGroup(
                  cause.code(),
                  table,
                  cause.field(),
                  reason(group, values.get(0).reason()),
                  cause.softened(),
                  group.rows,
                  values.get(0),
                  values));
        });
    groups.sort(Comparator.comparingLong(g -> -g.rows()));
    return groups;
  }

  /** What is true of all rows: what they follow, and only if it is the same for all, why. */
  private static String reason(Group group, String first) {
    int why = group.isForSeveral ? first.indexOf(": ") : -1;
    return why < 0 ? first : first.substring(0, why);
  }

  /** What is open, the ones that hold most rows first. */
  List<RunReport.Question> questions() {
    return questions.entrySet().stream()
        .map(
            e ->
                new RunReport.Question(
                    e.getKey().code(), table, e.getKey().field(), e.getKey().value(), e.getValue()))
        .sorted(Comparator.comparingLong(q -> -q.rows()))
        .toList();
  }

  List<RunReport.ControlTotal> controlTotals() {
    List<RunReport.ControlTotal> list = new ArrayList<>();
    totals.forEach(
        (field, sums) ->
            list.add(
                new RunReport.ControlTotal(table, field, sums.source, sums.altered, sums.written)));
    return list;
  }

  /** Notes how many rows, and parts of rows, came to the destination. */
  void came(long count) {
    rows += count;
  }

  boolean balanced() {
    return destination().total() == rows && totals.values().stream().allMatch(Sums::agree);
  }
}
