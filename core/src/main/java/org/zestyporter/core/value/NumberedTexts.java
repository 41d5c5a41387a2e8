package org.zestyporter.core.value;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Texts that are alike but for the numbers in them (codes, references, "lot 495889662 keel"), taken
 * apart into the few shapes that they have and the numbers that stand in them, place by place.
 *
 * <p>A shape is the text with two bytes that no UTF-8 has in the place of each number: {@link
 * #NUMBER}, then how many digits it has if it begins with a zero, otherwise 0.
 */
final class NumberedTexts {
  private static final Hash HASH = new Hash(0);
  private static final byte NUMBER = (byte) 0xFF;

  /** Digits of a number at most; those after them are another number. */
  private static final int DIGITS = 18;

  /** Numbers in a text at most; digits after them belong to its shape. */
  private static final int PLACES = 8;

  /** Texts that there have to be for each shape. */
  private static final int TEXTS_PER_SHAPE = 3;

  /** The shapes, one behind the other, where each ends, and their numbers by what they hash to. */
  private final Utf8 shapes = new Utf8(256);

  private final int[] shapeEnds;
  private final LongIndex known = new LongIndex();
  private int shapeCount;

  private final int most;
  private final int[] shapeOf;
  private final long[][] numbers = new long[PLACES][];
  private final int[] counts = new int[PLACES];
  private final Utf8 shape = new Utf8(64);
  private int texts;

  private NumberedTexts(int texts) {
    this.most = texts / TEXTS_PER_SHAPE;
    this.shapeEnds = new int[most + 1];
    this.shapeOf = new int[texts];
  }

  /**
   * Takes texts apart.
   *
   * @param all the texts, one behind the other, in UTF-8
   * @param ends where each ends
   * @return null if they have too many shapes, or no numbers
   */
  static @Nullable NumberedTexts of(byte[] all, int[] ends) {
    NumberedTexts made = new NumberedTexts(ends.length);
    int start = 0;
    for (int end : ends) {
      if (!made.add(all, start, end)) {
        return null;
      }
      start = end;
    }
    return made.counts[0] == 0 ? null : made;
  }

  private boolean add(byte[] bytes, int start, int end) {
    shape.clear();
    int place = 0;
    for (int at = start; at < end; ) {
      int from = at;
      if (place == PLACES || !isDigit(bytes[at])) {
        do {
          if (bytes[at] == NUMBER) {
            // not UTF-8 after all, as a database without an encoding may hold
            return false;
          }
          at++;
        } while (at < end && (place == PLACES || !isDigit(bytes[at])));
        shape.put(bytes, from, at);
        continue;
      }
      long number = 0;
      for (; at < end && at - from < DIGITS && isDigit(bytes[at]); at++) {
        number = number * 10 + bytes[at] - '0';
      }
      shape.put(NUMBER).put(bytes[from] == '0' ? at - from : 0);
      add(place++, number);
    }
    int code = code();
    shapeOf[texts++] = code;
    return code >= 0;
  }

  /** The number of the shape; under 0 if there are too many, or it can't be told from another. */
  private int code() {
    byte[] bytes = shape.array();
    long hash = HASH.of(bytes, shape.size());
    int code = known.get(hash);
    if (code >= 0) {
      return Arrays.equals(shapes.array(), start(code), shapeEnds[code], bytes, 0, shape.size())
          ? code
          : -1;
    }
    if (shapeCount == most) {
      return -1;
    }
    shapes.put(bytes, 0, shape.size());
    shapeEnds[shapeCount] = shapes.size();
    known.put(hash, shapeCount);
    return shapeCount++;
  }

  private int start(int code) {
    return code == 0 ? 0 : shapeEnds[code - 1];
  }

  private void add(int place, long number) {
    long[] held = numbers[place];
    if (held == null || counts[place] == held.length) {
      held = held == null ? new long[shapeOf.length] : Arrays.copyOf(held, held.length * 2);
      numbers[place] = held;
    }
    held[counts[place]++] = number;
  }

  private static boolean isDigit(byte b) {
    return b >= '0' && b <= '9';
  }

  void write(Utf8 out) {
    out.putVarint(shapeCount);
    for (int code = 0; code < shapeCount; code++) {
      int length = shapeEnds[code] - start(code);
      out.putVarint(length).put(shapes.array(), start(code), shapeEnds[code]);
    }
    for (int code : shapeOf) {
      out.putUnsigned(code);
    }
    for (int place = 0; place < PLACES && counts[place] > 0; place++) {
      PackedNumbers.write(numbers[place], counts[place], out);
    }
  }

  /**
   * Reads texts back.
   *
   * @param into takes the texts, one behind the other, in UTF-8
   * @param count how many there are
   * @return where each ends
   */
  static int[] read(ColumnCodec.Input in, int count, Utf8 into) {
    byte[][] shapes = new byte[in.whole()][];
    int[] places = new int[shapes.length];
    for (int i = 0; i < shapes.length; i++) {
      shapes[i] = in.take(in.whole());
      for (int at = 0; at < shapes[i].length; at++) {
        if (shapes[i][at] == NUMBER) {
          places[i]++;
          at++;
        }
      }
    }
    int[] codes = new int[count];
    int[] counts = new int[PLACES];
    for (int i = 0; i < count; i++) {
      codes[i] = (int) in.unsigned();
      for (int place = 0; place < places[codes[i]]; place++) {
        counts[place]++;
      }
    }
    long[][] numbers = new long[PLACES][];
    for (int place = 0; place < PLACES && counts[place] > 0; place++) {
      numbers[place] = PackedNumbers.read(in, counts[place]);
    }
    int[] ends = new int[count];
    int[] next = new int[PLACES];
    for (int i = 0; i < count; i++) {
      byte[] text = shapes[codes[i]];
      int place = 0;
      for (int at = 0; at < text.length; at++) {
        if (text[at] == NUMBER) {
          number(numbers[place][next[place]++], text[++at], into);
          place++;
        } else {
          into.put(text[at]);
        }
      }
      ends[i] = into.size();
    }
    return ends;
  }

  private static void number(long number, int digits, Utf8 into) {
    int from = into.size();
    into.putDigits(number);
    int zeros = digits - (into.size() - from);
    if (zeros > 0) {
      into.cut(from);
      for (int i = 0; i < zeros; i++) {
        into.put('0');
      }
      into.putDigits(number);
    }
  }
}
