package org.zestyporter.core.fill;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.Values;

/** Makes the records that links miss, of what they are looked up by and of fills of their own. */
final class RecordMaker {
  private final TableInfo table;
  private final Origin.Link link;
  private final List<Integer> alsoColumns;
  private final List<CompiledFill> fills;

  RecordMaker(
      TableInfo table,
      String keyField,
      Origin.Link link,
      List<Integer> alsoColumns,
      List<CompiledFill> fills) {
    if (!table.primaryKey().equals(List.of(table.field(keyField).name()))) {
      throw ErrorCode.NO_CREATE.error(
          "Records of " + table.name() + " can't be created: " + keyField + " is not its key.");
    }
    if (!link.with().isEmpty() && !fillsAll(table.fields(link.together()), fills)) {
      throw ErrorCode.NO_CREATE.error(
          "Records of "
              + table.name()
              + " can't be created from what stands together in a cell: say how "
              + String.join(" and ", link.together())
              + " of a new one are filled.");
    }
    this.table = table;
    this.link = link;
    this.alsoColumns = alsoColumns;
    this.fills = fills;
  }

  private static boolean fillsAll(List<FieldInfo> fields, List<CompiledFill> fills) {
    return fields.stream().allMatch(f -> fills.stream().anyMatch(own -> own.field().equals(f)));
  }

  /** The fills that such records have. */
  List<CompiledFill> fills() {
    return fills;
  }

  /** A record for a value that was not found, or the problem that keeps it from being made. */
  Object make(Object value, Row row) {
    Object[] values = new Object[table.fields().size()];
    Problem problem = link.with().isEmpty() ? put(values, table.field(link.by()), value) : null;
    for (int i = 0; i < alsoColumns.size() && problem == null; i++) {
      Object also = row.column(alsoColumns.get(i));
      Object bare = also instanceof String text ? Texts.trim(text) : also;
      problem =
          bare instanceof Problem p
              ? p
              : put(values, table.field(link.also().get(i).field()), bare);
    }
    for (int i = 0; i < fills.size() && problem == null; i++) {
      Filled filled = fills.get(i).compute(row);
      problem = filled.rejects() ? named(fills.get(i).field(), filled.problem()) : null;
      values[fills.get(i).fieldIndex()] = filled.value();
    }
    for (FieldInfo field : table.fields()) {
      if (problem == null && field.required() && values[table.fields().indexOf(field)] == null) {
        problem = named(field, new Problem(ProblemCode.REQUIRED, "", "a value is required"));
      }
    }
    return problem == null
        ? new PendingRecord(table, values, Values.text(value))
        : new Problem(
            ProblemCode.UNKNOWN_LINK,
            Values.text(value),
            "no "
                + table.name()
                + " has this "
                + String.join(" and ", link.together())
                + ", and none can be made: "
                + problem.reason());
  }

  /**
   * What a row says of a record that was made of an earlier one, and that one does not; what it is
   * found by counts as the same, whatever is ignored of it.
   *
   * @return null if it says nothing else
   */
  @Nullable Problem otherwise(PendingRecord made, Row row) {
    return fills.stream()
        .filter(fill -> !link.together().contains(fill.field().name()))
        .map(fill -> otherwise(fill, made, row))
        .filter(Objects::nonNull)
        .findFirst()
        .orElse(null);
  }

  private static @Nullable Problem otherwise(CompiledFill fill, PendingRecord made, Row row) {
    Filled filled = fill.compute(row);
    Object own = filled.rejects() ? filled.problem().value() : filled.value();
    Object first = made.value(fill.fieldIndex());
    boolean isBlank = own == null || "".equals(own);
    boolean isSame =
        isBlank || !filled.rejects() && first != null && fill.field().storage().same(own, first);
    return isSame
        ? null
        : new Problem(
            ProblemCode.SAID_OTHERWISE,
            Values.text(own),
            fill.field().name()
                + " is left out: "
                + made.name()
                + " is made of an earlier row, which says "
                + (first == null ? "nothing of it" : "“" + Values.text(first) + "”"));
  }

  private Problem put(Object[] values, FieldInfo field, Object value) {
    Object conform = value == null ? null : FieldCheck.conform(value, field);
    if (conform instanceof Problem problem) {
      return named(field, problem);
    }
    values[table.fields().indexOf(field)] = conform;
    return null;
  }

  private static Problem named(FieldInfo field, Problem problem) {
    return new Problem(problem.code(), problem.value(), field.name() + ": " + problem.reason());
  }
}
