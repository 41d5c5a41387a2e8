package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.Words;

/** Tells which field of a linked table holds a column's values. */
final class LinkValues {
  static final List<Comparison.Ignore> IGNORED =
      List.of(Comparison.Ignore.CASE, Comparison.Ignore.SPACES);

  private static final Comparison COMPARISON = Comparison.ignoring(IGNORED);
  private static final int VALUES_KEPT = 200_000;

  /** One of so many values may stand twice. */
  private static final int REPEATED_AT_MOST = 20;

  /** How many rows of a column are found in a field. */
  record Overlap(String field, long found, long rows) {
    double share() {
      return rows == 0 ? 0 : (double) found / rows;
    }
  }

  private final Application application;
  private final SourceTable source;
  private final Map<String, Map<String, Set<String>>> valuesByTable = new HashMap<>();

  LinkValues(Application application, SourceTable source) {
    this.application = application;
    this.source = source;
  }

  /** The field of the linked table that holds most of a column's rows; null if none holds any. */
  Overlap best(FieldInfo link, int column) {
    Overlap best = null;
    for (Map.Entry<String, Set<String>> e : values(link.link().table()).entrySet()) {
      Overlap overlap = overlap(e.getKey(), e.getValue(), source.distinct(column));
      if (overlap.found() > 0 && (best == null || overlap.found() > best.found())) {
        best = overlap;
      }
    }
    return best;
  }

  /**
   * The field by which records of a linked table are called.
   *
   * @param most records that it may have
   * @return null if it has more of them, or no such field
   */
  @Nullable Overlap label(FieldInfo link, int most) {
    Map<String, Set<String>> values = values(link.link().table());
    TableInfo table = application.table(link.link().table());
    FieldInfo label =
        table.fields().stream()
            .filter(f -> values.containsKey(f.name()))
            .min(Comparator.comparingInt(LinkValues::rank))
            .orElse(null);
    int held = label == null ? 0 : values.get(label.name()).size();
    return label == null || held > most ? null : new Overlap(label.name(), 0, held);
  }

  /** What is unique names a record first, then what is called its name. */
  private static int rank(FieldInfo field) {
    return field.unique() ? 0 : Words.of(field.name()).contains("name") ? 1 : 2;
  }

  static Overlap choices(List<String> choices, DistinctValues column) {
    Set<String> prepared = new HashSet<>();
    choices.forEach(c -> prepared.add(COMPARISON.prepare(c)));
    return overlap("", prepared, column);
  }

  private static Overlap overlap(String field, Set<String> values, DistinctValues column) {
    long found = 0;
    long rows = 0;
    for (Map.Entry<Cell, DistinctValues.Tally> e : column.tallies().entrySet()) {
      rows += e.getValue().rows();
      if (values.contains(COMPARISON.prepare(e.getKey().text().strip()))) {
        found += e.getValue().rows();
      }
    }
    return new Overlap(field, found, rows);
  }

  /** The values of the fields that could name a record: texts and codes without repeats. */
  private Map<String, Set<String>> values(String tableName) {
    return valuesByTable.computeIfAbsent(tableName, this::read);
  }

  private Map<String, Set<String>> read(String tableName) {
    TableInfo table = application.table(tableName);
    List<FieldInfo> fields =
        table.fields().stream()
            .filter(
                f ->
                    f.type() == FieldType.TEXT
                        || (f.unique() && f.type() == FieldType.WHOLE && !f.generated()))
            .toList();
    Map<String, Set<String>> values = new HashMap<>();
    Map<String, Integer> repeats = new HashMap<>();
    if (fields.isEmpty()) {
      return values;
    }
    fields.forEach(f -> values.put(f.name(), new HashSet<>()));
    List<FieldInfo> read = new ArrayList<>(fields);
    application.look(
        Ask.all(table, read),
        Records.each(
            found -> {
              for (int i = 0; i < found.length; i++) {
                Set<String> known = values.get(read.get(i).name());
                String prepared = COMPARISON.prepare(found[i]);
                if (prepared != null && known.size() < VALUES_KEPT && !known.add(prepared)) {
                  repeats.merge(read.get(i).name(), 1, Integer::sum);
                }
              }
            }));
    // a label that stands twice by mistake does not make the others useless
    values
        .entrySet()
        .removeIf(
            e -> repeats.getOrDefault(e.getKey(), 0) * REPEATED_AT_MOST > e.getValue().size());
    return values;
  }
}
