package org.zestyporter.core.source.parse;

import org.zestyporter.core.value.EightBytes;

/** Finds the ends of lines and a few other bytes, eight bytes at a time. */
final class ByteStops {
  /** Bytes of an array that have to be there behind those that are looked at. */
  static final int ROOM = Long.BYTES;

  /** Both ends of lines are below it, and few other bytes of texts. */
  private static final long BEHIND_LINES = ('\r' + 1) * EightBytes.ONES;

  private final boolean[] stops = new boolean[256];
  private final long first;
  private final long second;
  private final long third;

  /** Looks for the ends of lines and for three bytes, some of which may be the same. */
  ByteStops(byte first, byte second, byte third) {
    this.first = (first & 0xFF) * EightBytes.ONES;
    this.second = (second & 0xFF) * EightBytes.ONES;
    this.third = (third & 0xFF) * EightBytes.ONES;
    for (byte stop : new byte[] {'\n', '\r', first, second, third}) {
      stops[stop & 0xFF] = true;
    }
  }

  /** Where the first of them stands; {@code to} if there is none. */
  int next(byte[] bytes, int from, int to) {
    int at = from;
    while (at < to) {
      long eight = EightBytes.get(bytes, at);
      // a byte becomes 0 where it is the one looked for; the lowest highest bit is always right
      long a = eight ^ first;
      long b = eight ^ second;
      long c = eight ^ third;
      long found =
          (a - EightBytes.ONES & ~a
                  | b - EightBytes.ONES & ~b
                  | c - EightBytes.ONES & ~c
                  | eight - BEHIND_LINES & ~eight)
              & EightBytes.HIGHEST;
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
