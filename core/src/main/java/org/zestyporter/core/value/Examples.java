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

  /** A bit for each by its length and a few of its bytes: most others need no hash. */
  private final long[] signs = new long[SLOTS];

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
      int sign = sign(bytes, 0, bytes.length);
      signs[sign >>> 6] |= 1L << sign;
    }
  }

  /** True as long as more are kept. */
  boolean isOpen() {
    return counts.size() < most;
  }

  /** True if a text in UTF-8 may be one of those that are kept. */
  boolean has(byte[] bytes, int from, int to) {
    int sign = sign(bytes, from, to);
    if ((signs[sign >>> 6] >>> sign & 1) == 0) {
      return false;
    }
    long hash = HASH.of(bytes, from, to);
    return hashes[slot(hash)] == hash;
  }

  /** From 0 to 64 times the slots. */
  private static int sign(byte[] bytes, int from, int to) {
    if (from == to) {
      return 0;
    }
    int middle = from + to >>> 1;
    int sign = (to - from) * 31 + bytes[from];
    sign = sign * 31 + bytes[middle];
    sign = sign * 31 + bytes[to - 1];
    sign = sign * 31 + bytes[(middle + to) >>> 1];
    return sign * 0x9E3779B9 >>> Integer.numberOfLeadingZeros(SLOTS * 64) + 1;
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
