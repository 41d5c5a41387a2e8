package org.zestyporter.core.fill;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zestyporter.core.database.Database;
import org.zestyporter.core.database.FieldInfo;
import org.zestyporter.core.database.TableInfo;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/**
 * The keys of linked records, looked up in one pass over the linked table.
 *
 * <p>Only values that the source asks for are kept, so memory follows the source's distinct values
 * and not the linked table.
 */
public final class Links {
  private static final Object SEVERAL = new Object();

  private final Comparison comparison;
  private final Map<String, Object> keys;
  private final String table;
  private final String by;

  private Links(Comparison comparison, Map<String, Object> keys, String table, String by) {
    this.comparison = comparison;
    this.keys = keys;
    this.table = table;
    this.by = by;
  }

  /** Looks up a set of values for a link field. */
  static Links look(Database database, FieldInfo field, Origin.Link link, Set<Object> values) {
    if (field.link() == null) {
      throw PorterException.input("no-link", field.name() + " is not a link to another table.");
    }
    Comparison comparison = Comparison.ignoring(link.ignoring());
    Set<String> wanted = new HashSet<>();
    for (Object value : values) {
      wanted.add(comparison.prepare(value));
    }
    TableInfo table = database.table(field.link().table());
    FieldInfo key = table.field(field.link().keyField());
    Map<String, Object> keys = new HashMap<>();
    if (!wanted.isEmpty()) {
      database.scan(
          table,
          List.of(table.field(link.by()), key),
          found -> {
            String prepared = comparison.prepare(found[0]);
            if (prepared != null && wanted.contains(prepared)) {
              keys.merge(prepared, found[1], (a, b) -> Values.same(a, b) ? a : SEVERAL);
            }
          });
    }
    return new Links(comparison, keys, table.name(), link.by());
  }

  /** The key of the record that has the value, or a problem. */
  Object find(Object value) {
    Object key = keys.get(comparison.prepare(value));
    if (key == null) {
      return new Problem(
          ProblemCode.UNKNOWN_LINK, Values.text(value), "no " + table + " has this " + by);
    }
    return key == SEVERAL
        ? new Problem(
            ProblemCode.SEVERAL_LINKS,
            Values.text(value),
            "several records of " + table + " have this " + by)
        : key;
  }
}
