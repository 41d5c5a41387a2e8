package org.zestyporter.core.run;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.Inflater;
import net.jpountz.lz4.LZ4Exception;
import net.jpountz.lz4.LZ4Factory;

/**
 * Packs bytes in the LZ4 block format, which costs next to nothing, or by the DEFLATE format (RFC
 * 1951) where they have so much in common that it is worth its time. Most of what a ledger holds of
 * new records is written without repetition already.
 */
final class Packing {
  private static final byte QUICK = 0;
  private static final byte THOROUGH = 1;
  private static final int LEVEL = 3;

  private static final LZ4Factory QUICKLY = LZ4Factory.fastestJavaInstance();

  private Packing() {}

  /**
   * Packs bytes.
   *
   * @param length how many of them, from the first on
   * @return what {@link #unpack} takes
   */
  static byte[] pack(byte[] bytes, int length) {
    byte[] packed = new byte[1 + QUICKLY.fastCompressor().maxCompressedLength(length)];
    packed[0] = QUICK;
    int size = 1 + QUICKLY.fastCompressor().compress(bytes, 0, length, packed, 1);
    if (size < length / 2) {
      packed[0] = THOROUGH;
      size = 1 + deflate(bytes, length, packed);
    }
    return Arrays.copyOf(packed, size);
  }

  private static int deflate(byte[] bytes, int length, byte[] packed) {
    Deflater deflater = new Deflater(LEVEL, true);
    try {
      deflater.setInput(bytes, 0, length);
      deflater.finish();
      return deflater.deflate(packed, 1, packed.length - 1);
    } finally {
      deflater.end();
    }
  }

  /**
   * The bytes as they were.
   *
   * @param packed what {@link #pack} gave, from {@code from} on
   * @param length how many they are
   */
  static byte[] unpack(byte[] packed, int from, int length) {
    if (packed[from] == THOROUGH) {
      return inflate(packed, from + 1, length);
    }
    byte[] plain = new byte[length];
    try {
      int size =
          QUICKLY
              .safeDecompressor()
              .decompress(packed, from + 1, packed.length - from - 1, plain, 0, length);
      if (size != length) {
        throw new UncheckedIOException(new IOException("the ledger is cut short"));
      }
      return plain;
    } catch (LZ4Exception e) {
      throw new UncheckedIOException(new IOException("the ledger is damaged", e));
    }
  }

  /** The bytes as they were, of which no more is said than the DEFLATE format does. */
  static byte[] inflate(byte[] packed, int from, int length) {
    Inflater inflater = new Inflater(true);
    try {
      inflater.setInput(packed, from, packed.length - from);
      byte[] plain = new byte[length];
      for (int at = 0; at < length; ) {
        int more = inflater.inflate(plain, at, length - at);
        if (more == 0) {
          throw new UncheckedIOException(new IOException("the ledger is cut short"));
        }
        at += more;
      }
      return plain;
    } catch (DataFormatException e) {
      throw new UncheckedIOException(new IOException("the ledger is damaged", e));
    } finally {
      inflater.end();
    }
  }
}
