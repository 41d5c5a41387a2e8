package org.zestyporter.core.value;

import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** A map from numbers other than 0, by open addressing. */
public final class LongMap<V> {
  private static final int FIRST = 16;

  private long[] keys = new long[FIRST];
  private Object[] values = new Object[FIRST];
  private int size;

  @SuppressWarnings("unchecked")
  public @Nullable V get(long key) {
    int mask = keys.length - 1;
    for (int at = LongIndex.slot(key, mask); keys[at] != 0; at = at + 1 & mask) {
      if (keys[at] == key) {
        return (V) values[at];
      }
    }
    return null;
  }

  public void put(long key, @Nullable V value) {
    if ((size + 1) * 10L > keys.length * 6L) {
      grow();
    }
    int mask = keys.length - 1;
    int at = LongIndex.slot(key, mask);
    while (keys[at] != 0 && keys[at] != key) {
      at = at + 1 & mask;
    }
    size += keys[at] == 0 ? 1 : 0;
    keys[at] = key;
    values[at] = value;
  }

  /** Forgets the value of a number. */
  public void remove(long key) {
    if (get(key) != null) {
      put(key, null);
    }
  }

  /** A map from the same numbers to what is made of their values. */
  @SuppressWarnings("unchecked")
  public LongMap<V> mapped(UnaryOperator<V> made) {
    LongMap<V> map = new LongMap<>();
    map.keys = keys.clone();
    map.size = size;
    map.values = new Object[values.length];
    for (int i = 0; i < values.length; i++) {
      map.values[i] = values[i] == null ? null : made.apply((V) values[i]);
    }
    return map;
  }

  /** Numbers that have a value, or had one. */
  public int size() {
    return size;
  }

  @SuppressWarnings("unchecked")
  private void grow() {
    long[] oldKeys = keys;
    Object[] oldValues = values;
    keys = new long[oldKeys.length * 2];
    values = new Object[keys.length];
    size = 0;
    for (int i = 0; i < oldKeys.length; i++) {
      if (oldKeys[i] != 0) {
        put(oldKeys[i], (V) oldValues[i]);
      }
    }
  }
}
