package org.zestyporter.core.value;

/**
 * Numbers one behind the other, each in as many bits as the largest of them needs above the least;
 * as differences from one to the next where these are mostly much smaller.
 */
final class PackedNumbers {
  private PackedNumbers() {}

  /** Writes numbers and whether they are differences. */
  static void write(long[] numbers, int count, Utf8 out) {
    boolean climbing = isClimbing(numbers, count);
    out.put(climbing ? 1 : 0);
    write(numbers, count, climbing, out);
  }

  /** Reads what {@link #write(long[], int, Utf8)} wrote. */
  static long[] read(ColumnCodec.Input in, int count) {
    boolean climbing = in.next() != 0;
    return read(in, count, climbing);
  }

  /** True if differences from one to the next are mostly smaller than the numbers. */
  static boolean isClimbing(long[] numbers, int count) {
    int smaller = 0;
    long before = 0;
    for (int i = 0; i < count; i++) {
      smaller += Math.abs(numbers[i] - before) * 8 < Math.abs(numbers[i]) ? 1 : -1;
      before = numbers[i];
    }
    return smaller > 0;
  }

  /** Writes numbers, or the differences between them. */
  static void write(long[] numbers, int count, boolean deltas, Utf8 out) {
    long least = Long.MAX_VALUE;
    for (int i = 0; i < count; i++) {
      least = Math.min(least, deltas && i > 0 ? numbers[i] - numbers[i - 1] : numbers[i]);
    }
    long all = 0;
    for (int i = 0; i < count; i++) {
      all |= (deltas && i > 0 ? numbers[i] - numbers[i - 1] : numbers[i]) - least;
    }
    int width = 64 - Long.numberOfLeadingZeros(all);
    out.putVarint(count == 0 ? 0 : least).put(width);
    Bits bits = new Bits();
    for (int i = 0; i < count; i++) {
      bits.put((deltas && i > 0 ? numbers[i] - numbers[i - 1] : numbers[i]) - least, width, out);
    }
    bits.end(out);
  }

  /** Reads numbers, or makes them of the differences between them. */
  static long[] read(ColumnCodec.Input in, int count, boolean deltas) {
    long least = in.varint();
    int width = in.next();
    Bits bits = new Bits();
    long[] numbers = new long[count];
    for (int i = 0; i < count; i++) {
      long number = bits.take(width, in) + least;
      numbers[i] = deltas && i > 0 ? numbers[i - 1] + number : number;
    }
    return numbers;
  }

  /** Packs numbers bit by bit, the lowest first. */
  private static final class Bits {
    private long held;
    private int count;

    void put(long number, int width, Utf8 out) {
      // in two halves, so that what is held never overflows
      int low = Math.min(width, 32);
      add(number & 0xFFFF_FFFFL, low, out);
      if (width > 32) {
        add(number >>> 32, width - 32, out);
      }
    }

    private void add(long part, int width, Utf8 out) {
      held |= part << count;
      count += width;
      if (count >= 32) {
        out.putBytes(Integer.reverseBytes((int) held), 4);
        held >>>= 32;
        count -= 32;
      }
    }

    void end(Utf8 out) {
      for (; count > 0; count -= 8) {
        out.put((int) held);
        held >>>= 8;
      }
    }

    long take(int width, ColumnCodec.Input in) {
      long number = part(Math.min(width, 32), in);
      return width > 32 ? number | part(width - 32, in) << 32 : number;
    }

    private long part(int width, ColumnCodec.Input in) {
      while (count < width) {
        held |= (long) in.next() << count;
        count += 8;
      }
      long part = width == 0 ? 0 : held & -1L >>> 64 - width;
      held >>>= width;
      count -= width;
      return part;
    }
  }
}
