package org.zestyporter.core.draft;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DistinctValues;

/**
 * A column's values as they are compared, the first ones first, and how many rows hold each.
 *
 * @param rows how many rows hold any of them
 */
record Compared(Map<String, Long> values, long rows) {
  static Compared of(DistinctValues column, int most) {
    return of(column, most, LinkValues.COMPARISON::prepare);
  }

  static Compared of(DistinctValues column, int most, UnaryOperator<String> prepare) {
    Map<String, Long> values = new LinkedHashMap<>();
    long rows = 0;
    int count = 0;
    for (Map.Entry<Cell, DistinctValues.Tally> e : column.tallies().entrySet()) {
      if (count++ == most) {
        break;
      }
      values.merge(prepare.apply(e.getKey().text().strip()), e.getValue().rows(), Long::sum);
      rows += e.getValue().rows();
    }
    return new Compared(values, rows);
  }

  /** The same values, compared more loosely. */
  Compared more(UnaryOperator<String> prepare) {
    Map<String, Long> loose = new LinkedHashMap<>();
    values.forEach((value, rows) -> loose.merge(prepare.apply(value), rows, Long::sum));
    return new Compared(loose, rows);
  }

  /** How many rows hold one of these values. */
  long in(Set<String> held) {
    long found = 0;
    if (held.size() < values.size()) {
      for (String value : held) {
        found += values.getOrDefault(value, 0L);
      }
      return found;
    }
    for (Map.Entry<String, Long> value : values.entrySet()) {
      found += held.contains(value.getKey()) ? value.getValue() : 0;
    }
    return found;
  }
}
