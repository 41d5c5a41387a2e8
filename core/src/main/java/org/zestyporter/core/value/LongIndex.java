package org.zestyporter.core.value;

/** A map from numbers other than 0 to places from 0 on, by open addressing; 20 bytes an entry. */
public final class LongIndex {
  private static final int FIRST = 16;

  private long[] keys = new long[FIRST];
  private int[] places = new int[FIRST];
  private int size;

  static int slot(long key, int mask) {
    long mixed = key * 0x9E3779B97F4A7C15L;
    return (int) (mixed ^ mixed >>> 32) & mask;
  }

  /** The place of a number; -1 if it has none. */
  public int get(long key) {
    int mask = keys.length - 1;
    for (int at = slot(key, mask); keys[at] != 0; at = at + 1 & mask) {
      if (keys[at] == key) {
        return places[at];
      }
    }
    return -1;
  }

  /**
   * Gives a number a place.
   *
   * @return the one it had; -1 if none
   */
  public int put(long key, int place) {
    if ((size + 1) * 10L > keys.length * 6L) {
      grow();
    }
    int mask = keys.length - 1;
    int at = slot(key, mask);
    while (keys[at] != 0 && keys[at] != key) {
      at = at + 1 & mask;
    }
    int before = keys[at] == 0 ? -1 : places[at];
    size += keys[at] == 0 ? 1 : 0;
    keys[at] = key;
    places[at] = place;
    return before;
  }

  public int size() {
    return size;
  }

  private void grow() {
    long[] oldKeys = keys;
    int[] oldPlaces = places;
    keys = new long[Math.multiplyExact(oldKeys.length, 2)];
    places = new int[keys.length];
    size = 0;
    for (int i = 0; i < oldKeys.length; i++) {
      if (oldKeys[i] != 0) {
        put(oldKeys[i], oldPlaces[i]);
      }
    }
  }
}
