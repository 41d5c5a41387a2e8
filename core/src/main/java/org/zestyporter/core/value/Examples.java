package org.zestyporter.core.value;

import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;

/** The first texts of a kind with their rows; the others are let go. */
final class Examples {
  private static final int SLOTS = 256;

  private static final Hash HASH = new Hash(new java.security.SecureRandom().nextLong());

  private final int most;
  private final Map<String, long[]> counts = new LinkedHashMap<>();
  private final long[] hashes = new long[SLOTS];

  /**
   * @param most how many are kept, far less than 256
   */
  Examples(int most) {
    this.most = most;
  }

  /** Counts rows with a text; the line is that of the first of them. */
  void count(String text, long rows, long line) {
    long[] known = counts.get(text);
    if (known != null) {
      known[0] += rows;
    } else if (isOpen()) {
      counts.put(text, new long[] {rows, line});
      byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
      long hash = HASH.of(bytes, bytes.length);
      hashes[slot(hash)] = hash;
    }
  }

  /** True as long as more are kept. */
  boolean isOpen() {
    return counts.size() < most;
  }

  /** True if a text in UTF-8 may be one of those that are kept. */
  boolean has(byte[] bytes, int from, int to) {
    long hash = HASH.of(bytes, from, to);
    return hashes[slot(hash)] == hash;
  }

  private int slot(long hash) {
    int at = (int) (hash ^ hash >>> 32) & SLOTS - 1;
    while (hashes[at] != 0 && hashes[at] != hash) {
      at = at + 1 & SLOTS - 1;
    }
    return at;
  }

  /** By text, its rows and the line of the first of them. */
  Map<String, long[]> counts() {
    return counts;
  }
}
