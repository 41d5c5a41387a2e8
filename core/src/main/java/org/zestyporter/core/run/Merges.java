package org.zestyporter.core.run;

import java.util.HashMap;
import java.util.Map;
import org.zestyporter.core.fill.Awaited;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.fill.Pending;

/**
 * Makes one record of rows with the same key: each field takes the first value that is not blank.
 */
final class Merges {
  /** What rows before the last one give, by the index of that. */
  private final Map<Integer, Object[]> given = new HashMap<>();

  private final int fills;

  Merges(int fills) {
    this.fills = fills;
  }

  /**
   * Lets the last row with the same key have what this one gives. Records that are still to be made
   * go with their own row alone.
   */
  void add(TargetRows rows, int r, int last) {
    Object[] values = given.computeIfAbsent(last, l -> new Object[fills]);
    for (int f = 0; f < fills; f++) {
      Object value = rows.value(f, r);
      if (values[f] == null && !(value instanceof Awaited) && !(value instanceof Pending)) {
        values[f] = value;
      }
    }
  }

  /** Puts what the rows before it give into the last one. */
  void take(TargetRows rows, int r) {
    Object[] values = given.remove(rows.first + r);
    for (int f = 0; values != null && f < fills; f++) {
      if (values[f] != null && !values[f].equals(rows.value(f, r))) {
        rows.settle(f, r, new Filled(values[f], null, false, false));
      }
    }
  }
}
