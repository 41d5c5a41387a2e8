package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.database.Database;
import org.zestyporter.core.database.FieldInfo;
import org.zestyporter.core.database.TableInfo;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.Values;

/**
 * The keys of linked records, looked up in one pass over the linked table.
 *
 * <p>Only values that the source asks for are kept, so memory follows the source's distinct values
 * and not the linked table.
 */
final class Links {
  private static final Object SEVERAL = new Object();
  private static final int MOST = 200_000;
  private static final String BETWEEN = "\u001F";

  private final Comparison comparison;
  private final Map<String, Object> keys = new HashMap<>();
  private final String table;
  private final List<String> by = new ArrayList<>();

  /** How the fields keep what is looked up. */
  private final List<Storage> storages;

  /** Columns that hold the values of the further fields. */
  private final List<Integer> columns;

  /** Makes records that are missing; null if none is to be made. */
  private RecordMaker maker;

  private final Map<String, Object> made = new ConcurrentHashMap<>();

  private Links(TableInfo table, Origin.Link link, List<Integer> columns) {
    this.table = table.name();
    this.comparison = Comparison.ignoring(link.ignoring());
    this.columns = columns;
    by.add(link.by());
    link.also().forEach(a -> by.add(a.field()));
    storages = table.fields(by).stream().map(FieldInfo::storage).toList();
  }

  /** A look-up that has not looked yet. */
  static Links prepare(
      Database database, FieldInfo field, Origin.Link link, List<Integer> columns) {
    if (field.link() == null) {
      throw PorterException.input("no-link", field.name() + " is not a link to another table.");
    }
    return new Links(database.table(field.link().table()), link, columns);
  }

  void makeMissing(RecordMaker how) {
    maker = how;
  }

  /**
   * Looks up a set of wanted keys, as {@link #wanted} gives them.
   *
   * @param wanted null for all that there are, up to a limit
   */
  void look(Database database, FieldInfo field, @Nullable Set<String> wanted) {
    if (wanted != null && wanted.isEmpty()) {
      return;
    }
    TableInfo linked = database.table(field.link().table());
    List<FieldInfo> read = new ArrayList<>(linked.fields(by));
    FieldInfo keyField = linked.field(field.link().keyField());
    read.add(keyField);
    int last = read.size() - 1;
    database.scan(
        linked,
        read,
        found -> {
          StringBuilder key = new StringBuilder();
          for (int i = 0; i < last; i++) {
            String part = comparison.prepare(read.get(i).storage().canonical(found[i]));
            if (part == null) {
              return;
            }
            key.append(i == 0 ? "" : BETWEEN).append(part);
          }
          String prepared = key.toString();
          if (wanted == null ? keys.size() < MOST : wanted.contains(prepared)) {
            keys.merge(prepared, found[last], (a, b) -> same(keyField, a, b) ? a : SEVERAL);
          }
        });
  }

  private static boolean same(FieldInfo keyField, Object a, Object b) {
    return a != SEVERAL && b != SEVERAL && keyField.storage().same(a, b);
  }

  /** The form in which a value with the row's further values is looked up. */
  String wanted(Object value, Row row) {
    String first = comparison.prepare(storages.get(0).canonical(value));
    if (columns.isEmpty()) {
      return first;
    }
    StringBuilder key = new StringBuilder(first);
    for (int i = 0; i < columns.size(); i++) {
      Object also = row.column(columns.get(i));
      Object bare = also instanceof String text ? Steps.trim(text) : also;
      key.append(BETWEEN)
          .append(
              bare == null || bare instanceof Problem
                  ? ""
                  : comparison.prepare(storages.get(i + 1).canonical(bare)));
    }
    return key.toString();
  }

  /** The key of the record that has the value, or a problem. */
  Object find(Object value, Row row) {
    String wanted = wanted(value, row);
    Object key = keys.get(wanted);
    if (key == null && maker != null) {
      return made.computeIfAbsent(wanted, w -> maker.make(value, row));
    }
    if (key == null) {
      return new Problem(
          ProblemCode.UNKNOWN_LINK, Values.text(value), "no " + table + " has this " + fields());
    }
    return key == SEVERAL
        ? new Problem(
            ProblemCode.SEVERAL_LINKS,
            Values.text(value),
            "several records of " + table + " have this " + fields())
        : key;
  }

  private String fields() {
    return by.size() == 1
        ? by.get(0)
        : String.join(", ", by.subList(0, by.size() - 1)) + " and " + by.get(by.size() - 1);
  }
}
