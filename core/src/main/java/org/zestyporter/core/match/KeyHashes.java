package org.zestyporter.core.match;

import org.zestyporter.core.value.LongMap;

/** Some keys as hashes, to be found among millions: most others are told apart by a single bit. */
public final class KeyHashes {
  private static final int BITS = 20;

  private final LongMap<Boolean> all = new LongMap<>();
  private final long[] beginnings = new long[1 << BITS - 6];

  /** Adds a hash; 0 is none. */
  public void add(long hash) {
    if (hash != 0) {
      int beginning = (int) (hash >>> Long.SIZE - BITS);
      beginnings[beginning >>> 6] |= 1L << beginning;
      all.put(hash, true);
    }
  }

  /** True if it was added; never of 0. */
  public boolean has(long hash) {
    int beginning = (int) (hash >>> Long.SIZE - BITS);
    return (beginnings[beginning >>> 6] >>> beginning & 1) != 0
        && hash != 0
        && all.get(hash) != null;
  }
}
