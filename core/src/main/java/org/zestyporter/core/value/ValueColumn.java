package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * The values of one field for some rows, typed and by column: entries, and for each row which of
 * them it has. An object is made only for who asks for a single value.
 *
 * <pre>{@code
 * ValueColumn lengths = ValueColumn.numbers(new long[] {975, 1250}, 2, null);
 * lengths.value(1);   // 12.50
 * }</pre>
 */
public final class ValueColumn {
  /** Stands for a blank among numbers, dates and moments. */
  public static final long BLANK = Long.MIN_VALUE;

  private static final long MICROS = 1_000_000;

  /** How the entries are held. */
  public enum Form {
    /** Numbers of one scale. */
    NUMBER,
    /** Days since 1970-01-01. */
    DATE,
    /** Microseconds since 1970-01-01T00:00, without a zone. */
    MOMENT,
    /** UTF-8. */
    TEXT,
    /** Objects of any kind. */
    ANY
  }

  private final Form form;
  private final int scale;
  private final long[] longs;
  private final byte[] bytes;
  private final int[] starts;
  private final int[] ends;
  private final Object[] objects;
  private final int @Nullable [] codes;
  private final int entries;

  private ValueColumn(
      Form form,
      int entries,
      int scale,
      long[] longs,
      byte[] bytes,
      int[] starts,
      int[] ends,
      Object[] objects,
      int @Nullable [] codes) {
    this.form = form;
    this.entries = entries;
    this.scale = scale;
    this.longs = longs;
    this.bytes = bytes;
    this.starts = starts;
    this.ends = ends;
    this.objects = objects;
    this.codes = codes;
  }

  /**
   * Numbers.
   *
   * @param unscaled the numbers times ten to the power of the scale; {@link #BLANK} for none
   * @param codes the entry of each row; null if each row has an entry of its own, in order
   */
  public static ValueColumn numbers(long[] unscaled, int scale, int @Nullable [] codes) {
    return new ValueColumn(
        Form.NUMBER, unscaled.length, scale, unscaled, null, null, null, null, codes);
  }

  /** Days since 1970-01-01. */
  public static ValueColumn dates(long[] days, int @Nullable [] codes) {
    return new ValueColumn(Form.DATE, days.length, 0, days, null, null, null, null, codes);
  }

  /**
   * Texts.
   *
   * @param bytes holds all of them in UTF-8
   * @param starts where each begins
   * @param ends where each ends; under 0 for a blank
   */
  public static ValueColumn texts(byte[] bytes, int[] starts, int[] ends, int @Nullable [] codes) {
    return new ValueColumn(Form.TEXT, ends.length, 0, null, bytes, starts, ends, null, codes);
  }

  /** Numbers, days or moments, as their form says. */
  static ValueColumn longs(Form form, long[] longs, int scale, int @Nullable [] codes) {
    return new ValueColumn(form, longs.length, scale, longs, null, null, null, null, codes);
  }

  /** Values of any kind, in the narrowest form that holds them all. */
  public static ValueColumn of(Object[] values, int @Nullable [] codes) {
    Form form = null;
    int scale = 0;
    for (Object value : values) {
      if (value == null) {
        continue;
      }
      Form own = form(value);
      int ownScale = value instanceof BigDecimal n ? n.scale() : 0;
      if (own == Form.ANY || form != null && (form != own || scale != ownScale)) {
        form = Form.ANY;
        break;
      }
      form = own;
      scale = ownScale;
    }
    if (form == null || form == Form.ANY) {
      return new ValueColumn(Form.ANY, values.length, 0, null, null, null, null, values, codes);
    }
    return form == Form.TEXT ? texts(values, codes) : longs(form, scale, values, codes);
  }

  /** The narrowest form that holds a value. */
  static Form form(Object value) {
    if (value instanceof String text) {
      return Texts.forbidden(text) == null ? Form.TEXT : Form.ANY;
    }
    if (value instanceof BigDecimal number) {
      return number.precision() <= 18 && number.scale() >= 0 && number.scale() <= 18
          ? Form.NUMBER
          : Form.ANY;
    }
    if (value instanceof LocalDate) {
      return Form.DATE;
    }
    return value instanceof LocalDateTime moment
            && moment.getNano() % 1000 == 0
            && Math.abs(moment.getYear()) < 9_999
        ? Form.MOMENT
        : Form.ANY;
  }

  private static ValueColumn texts(Object[] values, int @Nullable [] codes) {
    Utf8 bytes = new Utf8(values.length * 16);
    int[] starts = new int[values.length];
    int[] ends = new int[values.length];
    for (int i = 0; i < values.length; i++) {
      starts[i] = bytes.size();
      ends[i] = values[i] == null ? -1 : bytes.put((String) values[i]).size();
    }
    return texts(Arrays.copyOf(bytes.array(), bytes.size()), starts, ends, codes);
  }

  private static ValueColumn longs(Form form, int scale, Object[] values, int @Nullable [] codes) {
    long[] longs = new long[values.length];
    for (int i = 0; i < longs.length; i++) {
      longs[i] = values[i] == null ? BLANK : toLong(values[i]);
    }
    return new ValueColumn(form, longs.length, scale, longs, null, null, null, null, codes);
  }

  /** A value of a form that holds numbers. */
  static long toLong(Object value) {
    if (value instanceof BigDecimal number) {
      return number.unscaledValue().longValueExact();
    }
    if (value instanceof LocalDate date) {
      return date.toEpochDay();
    }
    LocalDateTime moment = (LocalDateTime) value;
    return moment.toEpochSecond(ZoneOffset.UTC) * MICROS + moment.getNano() / 1000;
  }

  public Form form() {
    return form;
  }

  /** Digits after the decimal sign, if these are numbers. */
  public int scale() {
    return scale;
  }

  public int entries() {
    return entries;
  }

  public int rows() {
    return codes == null ? entries : codes.length;
  }

  /** The entry of a row. */
  public int entry(int row) {
    return codes == null ? row : codes[row];
  }

  public boolean isBlank(int row) {
    return isBlankEntry(entry(row));
  }

  boolean isBlankEntry(int entry) {
    if (longs != null) {
      return longs[entry] == BLANK;
    }
    return ends == null ? objects[entry] == null : ends[entry] < 0;
  }

  /** True if any of its values is blank, used by a row or not. */
  public boolean hasBlanks() {
    for (int entry = 0; entry < entries(); entry++) {
      if (isBlankEntry(entry)) {
        return true;
      }
    }
    return false;
  }

  /** The number, day or microsecond of a row; {@link #BLANK} if it has none. */
  public long number(int row) {
    return longs[entry(row)];
  }

  /** The number, day or microsecond of an entry; {@link #BLANK} if it has none. */
  long numberOf(int entry) {
    return longs[entry];
  }

  /** Bytes of an entry's text. */
  int length(int entry) {
    return ends[entry] - starts[entry];
  }

  /** Adds the bytes of an entry's text. */
  void textOf(int entry, Utf8 out) {
    out.put(bytes, starts[entry], ends[entry]);
  }

  /** The value of a row; null if blank. */
  public @Nullable Object value(int row) {
    return valueOf(entry(row));
  }

  /** The value of an entry; null if blank. */
  public @Nullable Object valueOf(int entry) {
    if (form == Form.ANY) {
      return objects[entry];
    }
    if (form == Form.TEXT) {
      int start = starts[entry];
      return ends[entry] < 0
          ? null
          : new String(bytes, start, ends[entry] - start, StandardCharsets.UTF_8);
    }
    long held = longs[entry];
    if (held == BLANK) {
      return null;
    }
    return switch (form) {
      case NUMBER -> BigDecimal.valueOf(held, scale);
      case DATE -> LocalDate.ofEpochDay(held);
      default ->
          LocalDateTime.ofEpochSecond(
              Math.floorDiv(held, MICROS),
              (int) Math.floorMod(held, MICROS) * 1000,
              ZoneOffset.UTC);
    };
  }

  /** Adds the bytes of a row's text; the column must hold texts, and the row one of them. */
  public void text(int row, Utf8 out) {
    int entry = entry(row);
    out.put(bytes, starts[entry], ends[entry]);
  }

  /** Bytes of a row's text; the column must hold texts, and the row one of them. */
  public int textLength(int row) {
    return length(entry(row));
  }

  /** Writes the form in which a row's text is compared; false if that is not plain to tell. */
  public boolean prepare(int row, Comparison comparison, Utf8 out) {
    int entry = entry(row);
    return comparison.prepare(bytes, starts[entry], ends[entry], out);
  }

  /**
   * True if a row's value equals that of a row of another column, in its type and in the digits of
   * its scale, or both are blank.
   */
  public boolean isEqual(int row, ValueColumn other, int otherRow) {
    if (form == Form.ANY || form != other.form) {
      return Objects.equals(value(row), other.value(otherRow));
    }
    int entry = entry(row);
    int otherEntry = other.entry(otherRow);
    if (form != Form.TEXT) {
      long number = longs[entry];
      return number == other.longs[otherEntry] && (scale == other.scale || number == BLANK);
    }
    int end = ends[entry];
    int otherEnd = other.ends[otherEntry];
    return end < 0 || otherEnd < 0
        ? end < 0 && otherEnd < 0
        : Arrays.equals(bytes, starts[entry], end, other.bytes, other.starts[otherEntry], otherEnd);
  }

  /** A column whose rows have these values in the place of its entries. */
  public ValueColumn with(Object[] values) {
    return of(values, codes);
  }

  /**
   * The column of some of its rows.
   *
   * @param rows which of them, in any order; one under 0 has no value that may be asked for
   */
  public ValueColumn pick(int[] rows) {
    if (isAll(rows)) {
      return this;
    }
    int[] picked = rows;
    if (codes != null) {
      picked = new int[rows.length];
      for (int i = 0; i < picked.length; i++) {
        picked[i] = rows[i] < 0 ? rows[i] : codes[rows[i]];
      }
    }
    return new ValueColumn(form, entries, scale, longs, bytes, starts, ends, objects, picked);
  }

  /** True if these are all rows, in their order. */
  private boolean isAll(int[] some) {
    boolean is = some.length == rows();
    for (int i = 0; is && i < some.length; i++) {
      is = some[i] == i;
    }
    return is;
  }

  /** The rows of several columns, one after the other. */
  public static ValueColumn joined(List<ValueColumn> columns) {
    ValueColumn first = columns.get(0);
    int rows = columns.stream().mapToInt(ValueColumn::rows).sum();
    if (columns.stream().anyMatch(c -> !c.continues(first))) {
      ColumnMaker maker = new ColumnMaker();
      for (ValueColumn column : columns) {
        for (int row = 0; row < column.rows(); row++) {
          maker.put(column, row);
        }
      }
      return maker.column();
    }
    if (first.form == Form.TEXT) {
      return joinedTexts(columns, rows);
    }
    Object joined = first.form == Form.ANY ? new Object[rows] : new long[rows];
    int at = 0;
    for (ValueColumn column : columns) {
      Object own = first.form == Form.ANY ? column.objects : column.longs;
      System.arraycopy(own, 0, joined, at, column.entries);
      at += column.entries;
    }
    return joined instanceof long[] longs
        ? longs(first.form, longs, first.scale, null)
        : new ValueColumn(Form.ANY, rows, 0, null, null, null, null, (Object[]) joined, null);
  }

  private static ValueColumn joinedTexts(List<ValueColumn> columns, int rows) {
    byte[] bytes = new byte[columns.stream().mapToInt(c -> c.bytes.length).sum()];
    int[] starts = new int[rows];
    int[] ends = new int[rows];
    int row = 0;
    int at = 0;
    for (ValueColumn column : columns) {
      System.arraycopy(column.bytes, 0, bytes, at, column.bytes.length);
      for (int entry = 0; entry < column.entries; entry++) {
        starts[row] = at + column.starts[entry];
        ends[row++] = column.ends[entry] < 0 ? -1 : at + column.ends[entry];
      }
      at += column.bytes.length;
    }
    return texts(bytes, starts, ends, null);
  }

  private boolean continues(ValueColumn other) {
    return form == other.form && scale == other.scale && codes == null;
  }

  /** About how many bytes of memory it takes. */
  public long weight() {
    long weight = codes == null ? 64 : 64 + 4L * codes.length;
    return switch (form) {
      case TEXT -> weight + 8L * entries + bytes.length;
      // yes and no are the same two objects each time
      case ANY -> weight + (entries > 0 && objects[0] instanceof Boolean ? 4L : 48L) * entries;
      default -> weight + 8L * entries;
    };
  }
}
