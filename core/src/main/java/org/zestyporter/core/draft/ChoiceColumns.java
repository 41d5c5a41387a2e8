package org.zestyporter.core.draft;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.IntStream;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.DistinctValues;

/** Finds the columns that hold nothing but the choices of a field. */
final class ChoiceColumns {
  private final SourceTable source;
  private final Map<List<String>, List<Integer>> choosing = new ConcurrentHashMap<>();

  ChoiceColumns(SourceTable source) {
    this.source = source;
  }

  /**
   * True if all values of a column are among a field's choices, at least half of which they make
   * use of, and that of no other column and of no other field's choices.
   */
  boolean isOnly(TableInfo table, FieldInfo field, int column) {
    List<Integer> columns =
        choosing.computeIfAbsent(
            field.choices(),
            choices ->
                IntStream.range(0, Math.min(PlanDraft.COLUMNS_DRAFTED, source.columns().size()))
                    .filter(c -> isChoosing(choices, c))
                    .boxed()
                    .toList());
    long fields = table.fields().stream().filter(f -> field.choices().equals(f.choices())).count();
    return fields == 1 && columns.equals(List.of(column));
  }

  private boolean isChoosing(List<String> choices, int column) {
    DistinctValues values = source.distinct(column);
    int used = values.tallies().size();
    return used > 1
        && values.beyond() == 0
        && used * 2 >= choices.size()
        && LinkValues.choices(choices, values).share() == 1;
  }
}
