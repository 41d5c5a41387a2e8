package org.zestyporter.core.match;

import java.util.Arrays;
import java.util.function.LongConsumer;

/**
 * A set of 64-bit hashes that are spread evenly, each with a place from 0 on; six and a half bytes
 * a hash.
 *
 * <p>Hashes are held by their beginnings, of so many bits that about ten share one: the rest of
 * them stands in order behind it.
 */
final class KeySet {
  static final KeySet NONE = new KeySet(new long[0][], 0, hash -> {});

  /** The rest of a hash has 48 bits, so that its beginning must have 16 at least. */
  private static final int REST = 48;

  private static final long REST_MASK = (1L << REST) - 1;
  private static final int LOW = 16;

  private final int bits;

  /** Where each beginning ends. */
  private final int[] ends;

  private final int[] highs;
  private final short[] lows;
  private int size;

  /**
   * @param pieces hold the hashes; 0 is none
   * @param count how many, 0 among them; all pieces but the last are of the same length
   * @param repeated takes a hash that is there more than once
   */
  KeySet(long[][] pieces, int count, LongConsumer repeated) {
    bits = Math.max(Long.SIZE - REST, 28 - Integer.numberOfLeadingZeros(Math.max(1, count)));
    ends = new int[1 << bits];
    forEach(pieces, count, hash -> ends[beginning(hash)]++);
    int before = 0;
    for (int b = 0; b < ends.length; b++) {
      int own = ends[b];
      ends[b] = before;
      before += own;
    }
    highs = new int[before];
    lows = new short[before];
    forEach(pieces, count, hash -> put(ends[beginning(hash)]++, hash));
    sort(repeated);
  }

  private static void forEach(long[][] pieces, int count, LongConsumer hashes) {
    int left = count;
    for (int p = 0; left > 0; p++) {
      int length = Math.min(left, pieces[p].length);
      for (int i = 0; i < length; i++) {
        if (pieces[p][i] != 0) {
          hashes.accept(pieces[p][i]);
        }
      }
      left -= length;
    }
  }

  /** Brings the hashes of each beginning into order, each of them once. */
  private void sort(LongConsumer repeated) {
    long[] own = new long[64];
    int from = 0;
    for (int b = 0; b < ends.length; b++) {
      int count = ends[b] - from;
      own = own.length < count ? new long[count] : own;
      for (int i = 0; i < count; i++) {
        own[i] = rest(from + i);
      }
      from = ends[b];
      Arrays.sort(own, 0, count);
      for (int i = 0; i < count; i++) {
        if (i == 0 || own[i] != own[i - 1]) {
          put(size++, own[i]);
        } else if (i == 1 || own[i] != own[i - 2]) {
          repeated.accept((long) b << Long.SIZE - bits | own[i]);
        }
      }
      ends[b] = size;
    }
  }

  private void put(int place, long hash) {
    highs[place] = (int) (hash >> LOW);
    lows[place] = (short) hash;
  }

  private long rest(int place) {
    return (highs[place] & 0xFFFF_FFFFL) << LOW | lows[place] & 0xFFFF;
  }

  private int beginning(long hash) {
    return (int) (hash >>> Long.SIZE - bits);
  }

  /** The place of a hash; under 0 if it is not there. */
  int place(long hash) {
    int b = beginning(hash);
    int high = (int) (hash >> LOW);
    short low = (short) hash;
    int end = ends[b];
    for (int i = b == 0 ? 0 : ends[b - 1]; i < end; i++) {
      if (highs[i] == high && lows[i] == low) {
        return i;
      }
    }
    return -1;
  }

  /** Number of hashes. */
  int size() {
    return size;
  }
}
