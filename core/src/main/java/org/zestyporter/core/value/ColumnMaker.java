package org.zestyporter.core.value;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Gathers the values of a column one after another, in the narrowest form that holds them all.
 *
 * <pre>{@code
 * ColumnMaker lengths = new ColumnMaker();
 * lengths.number(975, 2);
 * lengths.blank();
 * lengths.column().value(0);   // 9.75
 * }</pre>
 */
public final class ColumnMaker {
  private static final int FIRST = 64;

  /** The form of all values so far; null while all of them are blank. */
  private ValueColumn.@Nullable Form form;

  private int scale;
  private int count;
  private long[] longs = {};
  private int[] ends = {};
  private Utf8 bytes = new Utf8(0);
  private Object[] objects = {};

  /** Number of values, blanks among them. */
  public int count() {
    return count;
  }

  public void blank() {
    count++;
    if (form != null) {
      room();
      switch (form) {
        case TEXT -> ends[count - 1] = -1;
        case ANY -> objects[count - 1] = null;
        default -> longs[count - 1] = ValueColumn.BLANK;
      }
    }
  }

  /**
   * Adds a number.
   *
   * @param unscaled the number times ten to the power of the scale, of up to 18 digits
   */
  public void number(long unscaled, int scale) {
    put(ValueColumn.Form.NUMBER, unscaled, scale);
  }

  /** Adds a day, counted from 1970-01-01. */
  public void date(long day) {
    put(ValueColumn.Form.DATE, day, 0);
  }

  private void put(ValueColumn.Form wanted, long number, int ofScale) {
    if (form == null) {
      begin(wanted, ofScale);
    }
    if (form != wanted || scale != ofScale) {
      widen();
      object(ValueColumn.longs(wanted, new long[] {number}, ofScale, null).valueOf(0));
      return;
    }
    count++;
    room();
    longs[count - 1] = number;
  }

  /** Adds a text that is given as UTF-8. */
  public void text(byte[] text, int from, int to) {
    if (form == null) {
      begin(ValueColumn.Form.TEXT, 0);
    }
    if (form != ValueColumn.Form.TEXT) {
      widen();
      object(new String(text, from, to - from, java.nio.charset.StandardCharsets.UTF_8));
      return;
    }
    count++;
    room();
    ends[count - 1] = bytes.put(text, from, to).size();
  }

  /** Adds the value of a row of a column. */
  public void put(ValueColumn from, int row) {
    if (from.isBlank(row)) {
      blank();
      return;
    }
    switch (from.form()) {
      case ANY -> put(from.value(row));
      case TEXT -> {
        if (form == null) {
          begin(ValueColumn.Form.TEXT, 0);
        }
        if (form == ValueColumn.Form.TEXT) {
          count++;
          room();
          from.text(row, bytes);
          ends[count - 1] = bytes.size();
        } else {
          put(from.value(row));
        }
      }
      default -> put(from.form(), from.number(row), from.scale());
    }
  }

  /** Adds a value of any kind; null for a blank. */
  public void put(@Nullable Object value) {
    if (value == null) {
      blank();
      return;
    }
    ValueColumn.Form own = ValueColumn.form(value);
    switch (own) {
      case ANY -> {
        if (form == null) {
          begin(own, 0);
        }
        widen();
        object(value);
      }
      case TEXT -> {
        if (form == null) {
          begin(own, 0);
        }
        if (form == own) {
          count++;
          room();
          ends[count - 1] = bytes.put((String) value).size();
        } else {
          widen();
          object(value);
        }
      }
      default -> {
        int ownScale = value instanceof java.math.BigDecimal number ? number.scale() : 0;
        put(own, ValueColumn.toLong(value), ownScale);
      }
    }
  }

  private void object(Object value) {
    count++;
    room();
    objects[count - 1] = value;
  }

  private void begin(ValueColumn.Form first, int ofScale) {
    form = first;
    scale = ofScale;
    room();
    switch (first) {
      case TEXT -> Arrays.fill(ends, 0, count, -1);
      case ANY -> Arrays.fill(objects, 0, count, null);
      default -> Arrays.fill(longs, 0, count, ValueColumn.BLANK);
    }
  }

  /** Holds objects from now on. */
  private void widen() {
    if (form != ValueColumn.Form.ANY) {
      ValueColumn narrow = column();
      form = ValueColumn.Form.ANY;
      scale = 0;
      objects = new Object[Math.max(FIRST, count * 2)];
      for (int i = 0; i < count; i++) {
        objects[i] = narrow.valueOf(i);
      }
      longs = new long[0];
      ends = new int[0];
      bytes = new Utf8(0);
    }
  }

  private void room() {
    int wanted = Math.max(FIRST, count);
    switch (form) {
      case TEXT -> ends = ends.length < wanted ? Arrays.copyOf(ends, wanted * 2) : ends;
      case ANY -> objects = objects.length < wanted ? Arrays.copyOf(objects, wanted * 2) : objects;
      default -> longs = longs.length < wanted ? Arrays.copyOf(longs, wanted * 2) : longs;
    }
  }

  /** All values so far. */
  public ValueColumn column() {
    if (form == null) {
      return ValueColumn.of(new Object[count], null);
    }
    return switch (form) {
      case TEXT -> texts();
      case ANY -> ValueColumn.of(Arrays.copyOf(objects, count), null);
      default -> ValueColumn.longs(form, Arrays.copyOf(longs, count), scale, null);
    };
  }

  private ValueColumn texts() {
    int[] starts = new int[count];
    int end = 0;
    for (int i = 0; i < count; i++) {
      starts[i] = end;
      end = ends[i] < 0 ? end : ends[i];
    }
    return ValueColumn.texts(
        Arrays.copyOf(bytes.array(), bytes.size()), starts, Arrays.copyOf(ends, count), null);
  }
}
