package org.zestyporter.core.value;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/** Eight bytes of an array at once, the first of them in the lowest bits. */
public final class EightBytes {
  /** A one in each byte. */
  public static final long ONES = 0x0101010101010101L;

  /** The highest bit of each byte; none is set if all eight are of ASCII. */
  public static final long HIGHEST = 0x80 * ONES;

  private static final VarHandle LONGS =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);

  private EightBytes() {}

  /** The eight bytes from a place on, which have to be there. */
  public static long get(byte[] bytes, int at) {
    return (long) LONGS.get(bytes, at);
  }

  /** Puts eight bytes from a place on. */
  public static void put(byte[] bytes, int at, long eight) {
    LONGS.set(bytes, at, eight);
  }
}
