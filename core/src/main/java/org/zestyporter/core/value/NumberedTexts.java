package org.zestyporter.core.value;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Texts that are alike but for the numbers in them (codes, references, "lot 495889662 keel"), taken
 * apart into the few shapes that they have and the numbers that stand in them, place by place.
 *
 * <p>A shape is the text with two bytes that no UTF-8 has in the place of each number: {@link
 * #NUMBER}, then how many digits it has if it begins with a zero, otherwise 0.
 */
final class NumberedTexts {
  private static final byte NUMBER = (byte) 0xFF;

  /** Digits of a number at most; those after them are another number. */
  private static final int DIGITS = 18;

  /** Numbers in a text at most; digits after them belong to its shape. */
  private static final int PLACES = 8;

  /** Texts that there have to be for each shape. */
  private static final int TEXTS_PER_SHAPE = 3;

  private final Map<String, Integer> known = new LinkedHashMap<>();
  private final int most;
  private final int[] shapeOf;
  private final long[][] numbers = new long[PLACES][];
  private final int[] counts = new int[PLACES];
  private final Utf8 shape = new Utf8(64);
  private int texts;

  private NumberedTexts(int texts) {
    this.most = texts / TEXTS_PER_SHAPE;
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
      if (bytes[at] == NUMBER) {
        // not UTF-8 after all, as a database without an encoding may hold
        return false;
      }
      if (place == PLACES || !isDigit(bytes[at])) {
        shape.put(bytes[at++]);
        continue;
      }
      int from = at;
      long number = 0;
      for (; at < end && at - from < DIGITS && isDigit(bytes[at]); at++) {
        number = number * 10 + bytes[at] - '0';
      }
      shape.put(NUMBER).put(bytes[from] == '0' ? at - from : 0);
      add(place++, number);
    }
    // one byte a character, since a shape is no UTF-8
    String key = new String(shape.array(), 0, shape.size(), StandardCharsets.ISO_8859_1);
    Integer code = known.putIfAbsent(key, known.size());
    shapeOf[texts++] = code == null ? known.size() - 1 : code;
    return known.size() <= most;
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
    out.putVarint(known.size());
    for (String text : known.keySet()) {
      byte[] bytes = text.getBytes(StandardCharsets.ISO_8859_1);
      out.putVarint(bytes.length).put(bytes, 0, bytes.length);
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
