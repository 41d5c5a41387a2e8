package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Writes typed columns as bytes and reads them back: a byte for the form, a dictionary and codes
 * where values repeat, then the values of each kind together, so that they compress well.
 */
public final class ColumnCodec {
  private static final ValueColumn.Form[] FORMS = ValueColumn.Form.values();
  private static final int WITH_CODES = 0x10;
  private static final int WITH_BLANKS = 0x20;
  private static final int DELTAS = 0x40;

  private ColumnCodec() {}

  /** What is read, from some place on. */
  public static final class Input {
    private final byte[] bytes;
    private int at;

    public Input(byte[] bytes) {
      this.bytes = bytes;
    }

    /** The next byte, 0 to 255. */
    public int next() {
      return bytes[at++] & 0xFF;
    }

    /** As {@link Utf8#putVarint} wrote it. */
    public long varint() {
      long value = 0;
      for (int shift = 0; ; shift += 7) {
        int b = next();
        value |= (long) (b & 0x7F) << shift;
        if (b < 0x80) {
          return value >>> 1 ^ -(value & 1);
        }
      }
    }

    public int whole() {
      return (int) varint();
    }

    /** A text as {@link ColumnCodec#putText} wrote it; null if there was none. */
    public @Nullable String text() {
      int length = whole();
      if (length < 0) {
        return null;
      }
      String text = new String(bytes, at, length, StandardCharsets.UTF_8);
      at += length;
      return text;
    }

    private byte[] take(int length) {
      byte[] taken = Arrays.copyOfRange(bytes, at, at + length);
      at += length;
      return taken;
    }
  }

  /** Writes a text, or that there is none. */
  public static void putText(@Nullable String text, Utf8 out) {
    if (text == null) {
      out.putVarint(-1);
      return;
    }
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    out.putVarint(bytes.length).put(bytes, 0, bytes.length);
  }

  /** Writes the values of a column, row by row or as dictionary and codes. */
  public static void write(ValueColumn column, Utf8 out) {
    int rows = column.rows();
    boolean coded = column.entries() * 2 <= rows;
    int count = coded ? column.entries() : rows;
    boolean blanks = false;
    for (int i = 0; i < count && !blanks; i++) {
      blanks = column.isBlankEntry(coded ? i : column.entry(i));
    }
    boolean deltas = isLong(column.form()) && isClimbing(column, coded, count);
    out.put(
        column.form().ordinal()
            | (coded ? WITH_CODES : 0)
            | (blanks ? WITH_BLANKS : 0)
            | (deltas ? DELTAS : 0));
    out.putVarint(count);
    if (blanks) {
      for (int i = 0; i < count; i++) {
        out.put(column.isBlankEntry(coded ? i : column.entry(i)) ? 1 : 0);
      }
    }
    values(column, coded, count, deltas, out);
    if (coded) {
      for (int row = 0; row < rows; row++) {
        out.putVarint(column.entry(row));
      }
    }
  }

  private static boolean isLong(ValueColumn.Form form) {
    return form == ValueColumn.Form.NUMBER
        || form == ValueColumn.Form.DATE
        || form == ValueColumn.Form.MOMENT;
  }

  /** True if differences from one to the next are mostly smaller than the numbers. */
  private static boolean isClimbing(ValueColumn column, boolean coded, int count) {
    int smaller = 0;
    long before = 0;
    for (int i = 0; i < count; i++) {
      long number = column.numberOf(coded ? i : column.entry(i));
      smaller += Math.abs(number - before) * 8 < Math.abs(number) ? 1 : -1;
      before = number;
    }
    return smaller > 0;
  }

  private static void values(
      ValueColumn column, boolean coded, int count, boolean deltas, Utf8 out) {
    switch (column.form()) {
      case TEXT -> {
        for (int i = 0; i < count; i++) {
          int entry = coded ? i : column.entry(i);
          out.putVarint(column.isBlankEntry(entry) ? 0 : column.length(entry));
        }
        for (int i = 0; i < count; i++) {
          int entry = coded ? i : column.entry(i);
          if (!column.isBlankEntry(entry)) {
            column.textOf(entry, out);
          }
        }
      }
      case ANY -> {
        for (int i = 0; i < count; i++) {
          object(column.valueOf(coded ? i : column.entry(i)), out);
        }
      }
      default -> {
        out.putVarint(column.scale());
        numbers(column, coded, count, deltas, out);
      }
    }
  }

  /** Writes numbers in as many bits as the largest of them needs above the least. */
  private static void numbers(
      ValueColumn column, boolean coded, int count, boolean deltas, Utf8 out) {
    long[] numbers = new long[count];
    int there = 0;
    long before = 0;
    long least = Long.MAX_VALUE;
    for (int i = 0; i < count; i++) {
      int entry = coded ? i : column.entry(i);
      if (!column.isBlankEntry(entry)) {
        long number = column.numberOf(entry);
        numbers[there] = deltas ? number - before : number;
        least = Math.min(least, numbers[there++]);
        before = number;
      }
    }
    long all = 0;
    for (int i = 0; i < there; i++) {
      all |= numbers[i] - least;
    }
    int width = 64 - Long.numberOfLeadingZeros(all);
    out.putVarint(there == 0 ? 0 : least).put(width);
    Bits bits = new Bits();
    for (int i = 0; i < there; i++) {
      bits.put(numbers[i] - least, width, out);
    }
    bits.end(out);
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
      while (count >= 8) {
        out.put((int) held);
        held >>>= 8;
        count -= 8;
      }
    }

    void end(Utf8 out) {
      if (count > 0) {
        out.put((int) held);
      }
    }

    long take(int width, Input in) {
      long number = part(Math.min(width, 32), in);
      return width > 32 ? number | part(width - 32, in) << 32 : number;
    }

    private long part(int width, Input in) {
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

  /** Writes a single value with its type. */
  public static void object(@Nullable Object value, Utf8 out) {
    int type =
        value == null
            ? 0
            : value instanceof BigDecimal
                ? 2
                : value instanceof LocalDate
                    ? 3
                    : value instanceof LocalDateTime
                        ? 4
                        : value instanceof LocalTime
                            ? 5
                            : value instanceof Boolean
                                ? 6
                                : value instanceof OffsetDateTime ? 7 : 1;
    out.put(type);
    if (value != null) {
      putText(value.toString(), out);
    }
  }

  /** Reads a single value. */
  public static @Nullable Object object(Input in) {
    int type = in.next();
    if (type == 0) {
      return null;
    }
    String text = in.text();
    return switch (type) {
      case 2 -> new BigDecimal(text);
      case 3 -> LocalDate.parse(text);
      case 4 -> LocalDateTime.parse(text);
      case 5 -> LocalTime.parse(text);
      case 6 -> Boolean.valueOf(text);
      case 7 -> OffsetDateTime.parse(text);
      default -> text;
    };
  }

  /**
   * Reads a column back.
   *
   * @param rows how many rows it has
   */
  public static ValueColumn read(Input in, int rows) {
    int head = in.next();
    ValueColumn.Form form = FORMS[head & 0xF];
    int count = in.whole();
    byte[] blank = (head & WITH_BLANKS) == 0 ? null : in.take(count);
    Object values = values(in, form, count, blank, (head & DELTAS) != 0);
    int[] codes = null;
    if ((head & WITH_CODES) != 0) {
      codes = new int[rows];
      for (int row = 0; row < rows; row++) {
        codes[row] = in.whole();
      }
    }
    return values instanceof Made made
        ? made.with(codes)
        : ValueColumn.of((Object[]) values, codes);
  }

  /** A column that wants its codes. */
  private interface Made {
    ValueColumn with(int @Nullable [] codes);
  }

  private static Object values(
      Input in, ValueColumn.Form form, int count, byte @Nullable [] blank, boolean deltas) {
    switch (form) {
      case TEXT -> {
        int[] starts = new int[count];
        int[] ends = new int[count];
        int size = 0;
        for (int i = 0; i < count; i++) {
          starts[i] = size;
          size += in.whole();
          ends[i] = blank != null && blank[i] != 0 ? -1 : size;
        }
        byte[] bytes = in.take(size);
        return (Made) codes -> ValueColumn.texts(bytes, starts, ends, codes);
      }
      case ANY -> {
        Object[] objects = new Object[count];
        for (int i = 0; i < count; i++) {
          objects[i] = object(in);
        }
        return objects;
      }
      default -> {
        int scale = in.whole();
        long least = in.varint();
        int width = in.next();
        Bits bits = new Bits();
        long[] longs = new long[count];
        long before = 0;
        for (int i = 0; i < count; i++) {
          if (blank != null && blank[i] != 0) {
            longs[i] = ValueColumn.BLANK;
          } else {
            long number = bits.take(width, in) + least;
            before = deltas ? before + number : number;
            longs[i] = before;
          }
        }
        return (Made) codes -> ValueColumn.longs(form, longs, scale, codes);
      }
    }
  }
}
