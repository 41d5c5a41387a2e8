package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.Values;

/**
 * A record of a linked table that does not exist yet and is made when the first row that needs it
 * is written. Stands in the place of its key until then.
 */
public final class PendingRecord implements Pending {
  private final TableInfo table;
  private final Object[] values;
  private final String name;
  private Object key;
  private boolean claimed;

  /**
   * @param values by the table's fields; null where there is none
   * @param name what it is looked up by
   */
  PendingRecord(TableInfo table, Object[] values, String name) {
    this.table = table;
    this.values = values;
    this.name = name;
  }

  public TableInfo table() {
    return table;
  }

  /** What it is looked up by, as text. */
  public String name() {
    return name;
  }

  /** The value of a field; null if it has none. */
  @Nullable Object value(int field) {
    return values[field];
  }

  /** Indexes of the fields that have a value. */
  public List<Integer> fields() {
    List<Integer> fields = new ArrayList<>();
    for (int i = 0; i < values.length; i++) {
      if (values[i] != null) {
        fields.add(i);
      }
    }
    return fields;
  }

  /** The values of {@link #fields}. */
  public List<Object> values() {
    return new ArrayList<>(fields().stream().map(i -> values[i]).toList());
  }

  /** True for the first caller only: the one that has it made and counted. */
  public synchronized boolean claim() {
    boolean first = !claimed;
    claimed = true;
    return first;
  }

  @Override
  public synchronized Object key() {
    return key;
  }

  /** Notes the key that the database gave it. */
  public synchronized void made(Object given) {
    key = given;
  }

  /** It was made in vain: what was written is taken back. */
  public synchronized void unmade() {
    claimed = false;
    key = null;
  }

  @Override
  public String toString() {
    Object given = key();
    return given == null ? "new " + name : Values.text(given);
  }
}
