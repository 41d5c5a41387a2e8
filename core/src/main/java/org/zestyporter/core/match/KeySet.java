package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.SideBySide;

/**
 * A set of 64-bit hashes that are spread evenly, each with a place from 0 on; six and a half bytes
 * a hash.
 *
 * <p>Hashes are held by their beginnings, of so many bits that about ten share one: the rest of
 * them stands in order behind it.
 */
final class KeySet {
  static final KeySet NONE = new KeySet(new long[0][], 0, hash -> {}, null);

  /** The rest of a hash has 48 bits, so that its beginning must have 16 at least. */
  private static final int REST = 48;

  private static final long REST_MASK = (1L << REST) - 1;
  private static final int LOW = 16;

  /** Fewer hashes are not worth several processors. */
  private static final int WORTH_PARTS = 100_000;

  /** Of so many hashes that share a beginning it is not told which row has which. */
  private static final int MANY = 1 << Long.SIZE - REST;

  /** How many are looked for at once. */
  private static final int AT_ONCE = 64;

  /** Each share takes room for itself. */
  private static final int MOST_SHARES = 4;

  private final int bits;

  /** Where each beginning ends. */
  private final int[] ends;

  private final int[] highs;
  private final short[] lows;
  private int size;

  /**
   * Takes the place of each hash, by its number among those that were given; null if nobody asks.
   */
  private int @Nullable [] placeOf;

  private int[] numbers = {};
  private volatile boolean isPlaced;

  /**
   * @param pieces hold the hashes; 0 is none
   * @param count how many, 0 among them; all pieces but the last are of the same length
   * @param repeated takes a hash that is there more than once
   * @param placeOf takes the place of each of them, under 0 for 0, as long as {@link #isPlaced};
   *     null if nobody asks
   */
  KeySet(long[][] pieces, int count, LongConsumer repeated, int @Nullable [] placeOf) {
    this.placeOf = placeOf;
    this.isPlaced = placeOf != null;
    bits = Math.max(Long.SIZE - REST, 28 - Integer.numberOfLeadingZeros(Math.max(1, count)));
    ends = new int[1 << bits];
    if (count == 0) {
      this.placeOf = null;
      highs = new int[0];
      lows = new short[0];
      return;
    }
    int shares =
        count < WORTH_PARTS ? 1 : Math.min(MOST_SHARES, Runtime.getRuntime().availableProcessors());
    // by share of the hashes, how many have each beginning; then where the next of them goes
    int[][] next = new int[shares][ends.length];
    forShares(pieces, count, next, (hash, number, own) -> own[beginning(hash)]++);
    int before = 0;
    for (int b = 0; b < ends.length; b++) {
      for (int[] own : next) {
        int has = own[b];
        own[b] = before;
        before += has;
      }
      ends[b] = before;
    }
    highs = new int[before];
    lows = new short[before];
    if (placeOf != null) {
      Arrays.fill(placeOf, 0, count, -1);
      numbers = new int[before];
    }
    forShares(pieces, count, next, this::put);
    // all are put, so that this is where each beginning ends
    int[] starts = next[shares - 1];
    List<Sorted> parts = new ArrayList<>();
    SideBySide.go(
        ends.length,
        shares == 1 ? ends.length : 1,
        (from, to) -> {
          Sorted sorted = sort(from, to, from == 0 ? 0 : starts[from - 1]);
          synchronized (parts) {
            parts.add(sorted);
          }
        });
    parts.sort(Comparator.comparingInt(Sorted::first));
    parts.forEach(part -> join(part, repeated));
    this.placeOf = null;
    numbers = new int[0];
  }

  private interface Hashes {
    /**
     * @param number of the hash among all
     * @param own what its share has noted of each beginning
     */
    void accept(long hash, int number, int[] own);
  }

  /** Goes through all hashes, share by share. */
  private static void forShares(long[][] pieces, int count, int[][] next, Hashes hashes) {
    SideBySide.go(
        next.length,
        1,
        (first, last) -> {
          for (int share = first; share < last; share++) {
            int from = (int) ((long) count * share / next.length);
            int to = (int) ((long) count * (share + 1) / next.length);
            for (int number = from; number < to; ) {
              long[] piece = pieces[number / pieces[0].length];
              int at = number % pieces[0].length;
              int length = Math.min(to - number, piece.length - at);
              for (int i = at; i < at + length; i++) {
                if (piece[i] != 0) {
                  hashes.accept(piece[i], number + i - at, next[share]);
                }
              }
              number += length;
            }
          }
        });
  }

  /**
   * The hashes of some beginnings in order.
   *
   * @param first place of the first of them, so far
   * @param end behind the last of them, so far
   * @param repeated hashes that are there more than once
   */
  private record Sorted(int from, int to, int first, int end, List<Long> repeated) {}

  /** Brings the hashes of each beginning into order, each of them once. */
  private Sorted sort(int first, int last, int start) {
    long[] own = new long[64];
    List<Long> repeated = new ArrayList<>();
    int from = start;
    int next = start;
    for (int b = first; b < last; b++) {
      int count = ends[b] - from;
      if (count == 0) {
        ends[b] = next;
        continue;
      }
      own = own.length < count ? new long[count] : own;
      boolean isTold = placeOf != null && count < MANY;
      if (!isTold) {
        isPlaced = false;
      }
      for (int i = 0; i < count; i++) {
        // with their order, to tell which of them went where
        own[i] = rest(from + i) << Long.SIZE - REST | i & MANY - 1;
      }
      if (count > 1) {
        Arrays.sort(own, 0, count);
      }
      long before = 0;
      long beforeIt = 0;
      for (int i = 0; i < count; i++) {
        long rest = own[i] >>> Long.SIZE - REST;
        if (i == 0 || rest != before) {
          put(next++, rest);
        } else if (i == 1 || rest != beforeIt) {
          repeated.add((long) b << Long.SIZE - bits | rest);
        }
        beforeIt = before;
        before = rest;
        if (isTold) {
          placeOf[numbers[from + (int) (own[i] & MANY - 1)]] = next - 1;
        }
      }
      from = ends[b];
      ends[b] = next;
    }
    return new Sorted(first, last, start, next, repeated);
  }

  /** Puts sorted hashes behind those before them. */
  private void join(Sorted part, LongConsumer repeated) {
    int by = part.first - size;
    if (by > 0) {
      System.arraycopy(highs, part.first, highs, size, part.end - part.first);
      System.arraycopy(lows, part.first, lows, size, part.end - part.first);
      for (int b = part.from; b < part.to; b++) {
        ends[b] -= by;
      }
      for (int n = 0; isPlaced && n < placeOf.length; n++) {
        placeOf[n] -= placeOf[n] >= part.first ? by : 0;
      }
    }
    size = part.end - by;
    part.repeated.forEach(repeated::accept);
  }

  private void put(long hash, int number, int[] next) {
    int at = next[beginning(hash)]++;
    put(at, hash);
    if (placeOf != null) {
      numbers[at] = number;
    }
  }

  /** True if it could be told where each of the hashes went. */
  boolean isPlaced() {
    return isPlaced;
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

  /**
   * The places of many hashes; under 0 for those that are not there.
   *
   * <p>They are spread over the memory, and a processor that looks for one after the other waits
   * for each. So what they need is brought near for some of them at once.
   *
   * @param places takes them, in the order of the hashes
   */
  void places(long[] hashes, int[] places) {
    if (size == 0) {
      Arrays.fill(places, 0, hashes.length, -1);
      return;
    }
    for (int from = 0; from < hashes.length; from += AT_ONCE) {
      int to = Math.min(hashes.length, from + AT_ONCE);
      for (int i = from; i < to; i++) {
        int b = beginning(hashes[i]);
        int start = Math.min(ends[Math.max(0, b - 1)], size - 1);
        places[i] = highs[start] ^ lows[start];
      }
      for (int i = from; i < to; i++) {
        places[i] = hashes[i] == 0 ? -1 : place(hashes[i]);
      }
    }
  }

  /** Number of hashes. */
  int size() {
    return size;
  }
}
