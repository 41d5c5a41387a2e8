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
  private static final int NUMBERED = 0x80;

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
      long value = unsigned();
      return value >>> 1 ^ -(value & 1);
    }

    public int whole() {
      return (int) varint();
    }

    /** As {@link Utf8#putUnsigned} wrote it. */
    long unsigned() {
      long value = 0;
      for (int shift = 0; ; shift += 7) {
        int b = next();
        value |= (long) (b & 0x7F) << shift;
        if (b < 0x80) {
          return value;
        }
      }
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

    byte[] take(int length) {
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
    int[] entries = new int[coded ? column.entries() : rows];
    int[] filled = new int[entries.length];
    int count = 0;
    for (int i = 0; i < entries.length; i++) {
      int entry = coded ? i : column.entry(i);
      entries[i] = entry;
      if (!column.isBlankEntry(entry)) {
        filled[count++] = entry;
      }
    }
    filled = Arrays.copyOf(filled, count);
    boolean blanks = count < entries.length;
    int head = column.form().ordinal() | (coded ? WITH_CODES : 0) | (blanks ? WITH_BLANKS : 0);
    switch (column.form()) {
      case TEXT -> texts(column, entries, filled, head, out);
      case ANY -> {
        head(head, column, entries, out);
        for (int entry : entries) {
          object(column.valueOf(entry), out);
        }
      }
      default -> {
        long[] numbers = new long[count];
        for (int i = 0; i < count; i++) {
          numbers[i] = column.numberOf(filled[i]);
        }
        boolean deltas = PackedNumbers.isClimbing(numbers, numbers.length);
        head(head | (deltas ? DELTAS : 0), column, entries, out);
        out.putVarint(column.scale());
        PackedNumbers.write(numbers, numbers.length, deltas, out);
      }
    }
    for (int row = 0; coded && row < rows; row++) {
      out.putVarint(column.entry(row));
    }
  }

  /** What is written first: the form, how many entries, and which of them are blank. */
  private static void head(int head, ValueColumn column, int[] entries, Utf8 out) {
    out.put(head).putVarint(entries.length);
    for (int i = 0; (head & WITH_BLANKS) != 0 && i < entries.length; i++) {
      out.put(column.isBlankEntry(entries[i]) ? 1 : 0);
    }
  }

  private static void texts(ValueColumn column, int[] entries, int[] filled, int head, Utf8 out) {
    Utf8 bytes = new Utf8(filled.length * 16);
    int[] ends = new int[filled.length];
    for (int i = 0; i < filled.length; i++) {
      column.textOf(filled[i], bytes);
      ends[i] = bytes.size();
    }
    NumberedTexts numbered = NumberedTexts.of(bytes.array(), ends);
    head(head | (numbered == null ? 0 : NUMBERED), column, entries, out);
    if (numbered != null) {
      numbered.write(out);
      return;
    }
    for (int entry : entries) {
      out.putVarint(column.isBlankEntry(entry) ? 0 : column.length(entry));
    }
    out.put(bytes.array(), 0, bytes.size());
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
    boolean[] blank = new boolean[count];
    int filled = count;
    for (int i = 0; (head & WITH_BLANKS) != 0 && i < count; i++) {
      blank[i] = in.next() != 0;
      filled -= blank[i] ? 1 : 0;
    }
    switch (form) {
      case TEXT -> {
        return (head & NUMBERED) != 0
            ? numbered(in, blank, filled, head, rows)
            : plain(in, blank, head, rows);
      }
      case ANY -> {
        Object[] objects = new Object[count];
        for (int i = 0; i < count; i++) {
          objects[i] = object(in);
        }
        return ValueColumn.of(objects, codes(in, head, rows));
      }
      default -> {
        int scale = in.whole();
        long[] numbers = PackedNumbers.read(in, filled, (head & DELTAS) != 0);
        long[] longs = new long[count];
        int at = 0;
        for (int i = 0; i < count; i++) {
          longs[i] = blank[i] ? ValueColumn.BLANK : numbers[at++];
        }
        return ValueColumn.longs(form, longs, scale, codes(in, head, rows));
      }
    }
  }

  private static int @Nullable [] codes(Input in, int head, int rows) {
    if ((head & WITH_CODES) == 0) {
      return null;
    }
    int[] codes = new int[rows];
    for (int row = 0; row < rows; row++) {
      codes[row] = in.whole();
    }
    return codes;
  }

  private static ValueColumn plain(Input in, boolean[] blank, int head, int rows) {
    int[] starts = new int[blank.length];
    int[] ends = new int[blank.length];
    int size = 0;
    for (int i = 0; i < blank.length; i++) {
      starts[i] = size;
      size += in.whole();
      ends[i] = blank[i] ? -1 : size;
    }
    return ValueColumn.texts(in.take(size), starts, ends, codes(in, head, rows));
  }

  private static ValueColumn numbered(Input in, boolean[] blank, int filled, int head, int rows) {
    Utf8 bytes = new Utf8(filled * 16);
    int[] texts = NumberedTexts.read(in, filled, bytes);
    int[] starts = new int[blank.length];
    int[] ends = new int[blank.length];
    int at = 0;
    for (int i = 0; i < blank.length; i++) {
      starts[i] = at == 0 ? 0 : texts[at - 1];
      ends[i] = blank[i] ? -1 : texts[at++];
    }
    return ValueColumn.texts(
        Arrays.copyOf(bytes.array(), bytes.size()), starts, ends, codes(in, head, rows));
  }
}
