package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
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

  /** Of larger tables the first records are read, and what unique fields are asked for. */
  private static final int READ_WHOLE = 20_000;

  private static final int CELLS_READ = 600_000;

  /** So many of a column's values are asked for. */
  private static final int ASKED_FOR = 300;

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
  private final Map<String, Held> heldByTable = new HashMap<>();
  private final Map<Asked, Overlap> asked = new HashMap<>();

  /**
   * Values of the fields of a table that could name a record: texts and codes without repeats.
   *
   * @param whole true if these are all that the table holds
   */
  private record Held(Map<String, Set<String>> values, boolean whole) {}

  private record Asked(String table, String field, int column) {}

  LinkValues(Application application, SourceTable source) {
    this.application = application;
    this.source = source;
  }

  /** The field of the linked table that holds most of a column's rows; null if none holds any. */
  Overlap best(FieldInfo link, int column) {
    return all(link, column).stream()
        .filter(o -> o.found() > 0)
        .reduce((a, b) -> b.share() > a.share() ? b : a)
        .orElse(null);
  }

  /** How many of a column's rows each field of the linked table knows that could name a record. */
  List<Overlap> all(FieldInfo link, int column) {
    TableInfo table = application.table(link.link().table());
    Held held = held(table.name());
    List<Overlap> all = new ArrayList<>();
    for (FieldInfo field : table.fields()) {
      Set<String> values = held.values().get(field.name());
      if (values != null) {
        boolean ask = !held.whole() && field.unique() && field.type() == FieldType.TEXT;
        all.add(
            ask
                ? asked(table, field, column)
                : overlap(field.name(), values, source.distinct(column), Integer.MAX_VALUE));
      }
    }
    return all;
  }

  /** The same of a large table, told by some of the column's values, which are asked for. */
  private Overlap asked(TableInfo table, FieldInfo field, int column) {
    return asked.computeIfAbsent(
        new Asked(table.name(), field.name(), column),
        key -> {
          Set<List<Object>> wanted = new HashSet<>();
          source.distinct(column).tallies().keySet().stream()
              .limit(ASKED_FOR)
              .map(c -> c.text().strip())
              .filter(t -> !t.isEmpty())
              .forEach(
                  t -> {
                    wanted.add(List.of(t));
                    wanted.add(List.of(t.toUpperCase(Locale.ROOT)));
                    wanted.add(List.of(t.toLowerCase(Locale.ROOT)));
                  });
          Set<String> known = new HashSet<>();
          if (!wanted.isEmpty()) {
            application.look(
                Ask.keyed(table, List.of(field), List.of(field), wanted),
                Records.each(found -> known.add(COMPARISON.prepare(found[0]))));
          }
          return overlap(field.name(), known, source.distinct(column), ASKED_FOR);
        });
  }

  /**
   * The field by which records of a linked table are called.
   *
   * @param most records that it may have
   * @return null if it has more of them, or no such field
   */
  @Nullable Overlap label(FieldInfo link, int most) {
    Map<String, Set<String>> values = held(link.link().table()).values();
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
    return overlap("", prepared, column, Integer.MAX_VALUE);
  }

  private static Overlap overlap(
      String field, Set<String> values, DistinctValues column, int most) {
    long found = 0;
    long rows = 0;
    int seen = 0;
    for (Map.Entry<Cell, DistinctValues.Tally> e : column.tallies().entrySet()) {
      if (++seen > most) {
        break;
      }
      rows += e.getValue().rows();
      if (values.contains(COMPARISON.prepare(e.getKey().text().strip()))) {
        found += e.getValue().rows();
      }
    }
    return new Overlap(field, found, rows);
  }

  private Held held(String tableName) {
    return heldByTable.computeIfAbsent(tableName, this::read);
  }

  private Held read(String tableName) {
    TableInfo table = application.table(tableName);
    Map<String, Set<String>> values = new HashMap<>();
    Map<String, Integer> repeats = new HashMap<>();
    int[] places =
        IntStream.range(0, table.fields().size())
            .filter(i -> mayName(table.fields().get(i)))
            .toArray();
    if (places.length == 0) {
      return new Held(values, true);
    }
    for (int place : places) {
      values.put(table.fields().get(place).name(), new HashSet<>());
    }
    int most = Math.min(READ_WHOLE, CELLS_READ / table.fields().size());
    List<Object[]> records = application.page(table, null, 0, most + 1);
    for (Object[] record : records) {
      for (int place : places) {
        String name = table.fields().get(place).name();
        String prepared = COMPARISON.prepare(record[place]);
        if (prepared != null && !values.get(name).add(prepared)) {
          repeats.merge(name, 1, Integer::sum);
        }
      }
    }
    // a label that stands twice by mistake does not make the others useless
    values
        .entrySet()
        .removeIf(
            e -> repeats.getOrDefault(e.getKey(), 0) * REPEATED_AT_MOST > e.getValue().size());
    return new Held(values, records.size() <= most);
  }

  private static boolean mayName(FieldInfo field) {
    return field.type() == FieldType.TEXT
        || (field.unique() && field.type() == FieldType.WHOLE && !field.generated());
  }
}
