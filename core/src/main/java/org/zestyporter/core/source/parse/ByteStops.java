package org.zestyporter.core.source.parse;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/** Finds the ends of lines and a few other bytes, eight bytes at a time. */
final class ByteStops {
  /** Bytes of an array that have to be there behind those that are looked at. */
  static final int ROOM = Long.BYTES;

  private static final VarHandle LONGS =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
  private static final long ONES = 0x0101010101010101L;
  private static final long HIGHEST = 0x80 * ONES;

  /** Both ends of lines are below it, and few other bytes of texts. */
  private static final long BEHIND_LINES = ('\r' + 1) * ONES;

  private final boolean[] stops = new boolean[256];
  private final long first;
  private final long second;
  private final long third;

  /** Looks for the ends of lines and for three bytes, some of which may be the same. */
  ByteStops(byte first, byte second, byte third) {
    this.first = (first & 0xFF) * ONES;
    this.second = (second & 0xFF) * ONES;
    this.third = (third & 0xFF) * ONES;
    for (byte stop : new byte[] {'\n', '\r', first, second, third}) {
      stops[stop & 0xFF] = true;
    }
  }

  /** Where the first of them stands; {@code to} if there is none. */
  int next(byte[] bytes, int from, int to) {
    int at = from;
    while (at < to) {
      long eight = (long) LONGS.get(bytes, at);
      // a byte becomes 0 where it is the one looked for; the lowest highest bit is always right
      long a = eight ^ first;
      long b = eight ^ second;
      long c = eight ^ third;
      long found =
          (a - ONES & ~a | b - ONES & ~b | c - ONES & ~c | eight - BEHIND_LINES & ~eight) & HIGHEST;
      if (found == 0) {
        at += Long.BYTES;
        continue;
      }
      at += Long.numberOfTrailingZeros(found) >>> 3;
      if (at < to && stops[bytes[at] & 0xFF]) {
        return at;
      }
      at++;
    }
    return to;
  }
}
