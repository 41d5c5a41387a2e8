package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** A growing array of bytes, to which texts are written in UTF-8 and numbers in digits. */
public final class Utf8 {
  private byte[] bytes;
  private int size;

  public Utf8(int capacity) {
    bytes = new byte[capacity];
  }

  public int size() {
    return size;
  }

  public Utf8 clear() {
    size = 0;
    return this;
  }

  /** The array behind it; only the first {@link #size} bytes count. */
  public byte[] array() {
    return bytes;
  }

  private void room(int more) {
    if (size + more > bytes.length) {
      bytes = Arrays.copyOf(bytes, Math.max(size + more, bytes.length * 2));
    }
  }

  public Utf8 put(byte[] from, int start, int end) {
    room(end - start);
    System.arraycopy(from, start, bytes, size, end - start);
    size += end - start;
    return this;
  }

  /**
   * Puts what becomes of plain characters.
   *
   * @param by what becomes of each of the first 128; 0 if it is left out, under 0 if it may not be
   *     there
   * @return false if a character may not be there, so that nothing is put
   */
  public boolean putMapped(byte[] from, int start, int end, byte[] by) {
    room(end - start);
    byte[] into = bytes;
    int at = size;
    for (int i = start; i < end; i++) {
      int as = from[i] < 0 ? -1 : by[from[i]];
      if (as < 0) {
        return false;
      }
      into[at] = (byte) as;
      at += as == 0 ? 0 : 1;
    }
    size = at;
    return true;
  }

  public Utf8 put(int b) {
    room(1);
    bytes[size++] = (byte) b;
    return this;
  }

  /** A text; half a character becomes a question mark. */
  public Utf8 put(String text) {
    int length = text.length();
    room(length);
    for (int i = 0; i < length; i++) {
      char c = text.charAt(i);
      if (c >= 0x80) {
        byte[] rest = text.substring(i).getBytes(StandardCharsets.UTF_8);
        return put(rest, 0, rest.length);
      }
      bytes[size++] = (byte) c;
    }
    return this;
  }

  /** The lowest so many bytes of a number, the highest of them first. */
  public Utf8 putBytes(long number, int count) {
    room(count);
    for (int shift = (count - 1) * 8; shift >= 0; shift -= 8) {
      bytes[size++] = (byte) (number >> shift);
    }
    return this;
  }

  /** A whole number in decimal digits. */
  public Utf8 putDigits(long number) {
    if (number == Long.MIN_VALUE) {
      return put(Long.toString(number));
    }
    room(20);
    long rest = number;
    if (rest < 0) {
      bytes[size++] = '-';
      rest = -rest;
    }
    int digits = 1;
    for (long power = 10; digits < 19 && rest >= power; power *= 10) {
      digits++;
    }
    for (int at = size + digits - 1; at >= size; at--) {
      bytes[at] = (byte) ('0' + rest % 10);
      rest /= 10;
    }
    size += digits;
    return this;
  }

  /**
   * A number in decimal digits, with as many behind the point as it has.
   *
   * @param unscaled the number times ten to the power of the scale
   */
  public Utf8 putDecimal(long unscaled, int scale) {
    if (scale <= 0 || unscaled == Long.MIN_VALUE) {
      return scale == 0
          ? putDigits(unscaled)
          : put(BigDecimal.valueOf(unscaled, scale).toPlainString());
    }
    if (unscaled < 0) {
      put('-');
    }
    int from = size;
    putDigits(Math.abs(unscaled));
    int zeros = Math.max(0, scale + 1 - (size - from));
    room(zeros + 1);
    System.arraycopy(bytes, from, bytes, from + zeros, size - from);
    Arrays.fill(bytes, from, from + zeros, (byte) '0');
    size += zeros;
    int point = size - scale;
    System.arraycopy(bytes, point, bytes, point + 1, scale);
    bytes[point] = '.';
    size++;
    return this;
  }

  /** Drops what was written after a place. */
  public void cut(int to) {
    size = to;
  }

  /** A number from 0 in as many bytes as it needs, seven bits each (LEB128). */
  public Utf8 putUnsigned(long value) {
    long rest = value;
    while ((rest & ~0x7FL) != 0) {
      put((int) (rest & 0x7F | 0x80));
      rest >>>= 7;
    }
    return put((int) rest);
  }

  /**
   * A number in as many bytes as it needs, seven bits each (LEB128), small negatives also short.
   */
  public Utf8 putVarint(long value) {
    return putUnsigned(value << 1 ^ value >> 63);
  }

  @Override
  public String toString() {
    return new String(bytes, 0, size, StandardCharsets.UTF_8);
  }
}
