package org.zestyporter.core.value;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/** Hashes bytes to 64 bits, with a seed, so that nobody can make keys that collide. */
public final class Hash {
  private static final VarHandle INTS =
      MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.LITTLE_ENDIAN);
  private static final long A = 0x9E3779B97F4A7C15L;
  private static final long B = 0xD1B54A32D192ED03L;

  private final long seed;

  public Hash(long seed) {
    this.seed = seed;
  }

  /** The hash of the first bytes of an array; never 0. */
  public long of(byte[] bytes, int length) {
    return of(bytes, 0, length);
  }

  /** The hash of some bytes; never 0. */
  public long of(byte[] bytes, int from, int to) {
    int length = to - from;
    long hash = seed ^ mix(length ^ A, B);
    for (int at = from; at < to - Long.BYTES; at += Long.BYTES) {
      hash = mix(hash ^ EightBytes.get(bytes, at), A);
    }
    // the last ones at once, some of them for the second time
    long rest = 0;
    if (length >= Long.BYTES) {
      rest = EightBytes.get(bytes, to - Long.BYTES);
    } else if (length >= Integer.BYTES) {
      rest = (long) (int) INTS.get(bytes, from) << 32 ^ (int) INTS.get(bytes, to - Integer.BYTES);
    } else {
      for (int at = from; at < to; at++) {
        rest = rest << 8 | bytes[at] & 0xFF;
      }
    }
    hash = mix(hash ^ rest, B);
    hash = mix(hash ^ seed, A);
    return hash == 0 ? 1 : hash;
  }

  /** Both halves of the product, folded. */
  private static long mix(long x, long y) {
    return x * y ^ Math.multiplyHigh(x, y) ^ x;
  }
}
