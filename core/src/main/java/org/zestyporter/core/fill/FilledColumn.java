package org.zestyporter.core.fill;

import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ValueColumn;

/**
 * What a fill gave for the rows of a chunk.
 *
 * @param odd by entry, what there is to say beside the value; null where there is nothing, and null
 *     as a whole if there is nothing at all
 */
public record FilledColumn(ValueColumn values, Filled @Nullable [] odd) {

  /** What there is to say of a row's value; null if nothing. */
  public @Nullable Filled odd(int row) {
    return odd == null ? null : odd[values.entry(row)];
  }

  /**
   * Marks the rows whose value can't be taken, as {@link FilledChunk} has them.
   *
   * @return true if there are any
   */
  public boolean reject(byte[] rejected) {
    boolean any = false;
    for (int row = 0; odd != null && row < rejected.length; row++) {
      Filled told = odd(row);
      if (told != null && told.rejects()) {
        byte mark = told.question() ? FilledChunk.ASKED : FilledChunk.REJECTED;
        rejected[row] = FilledChunk.worse(rejected[row], mark);
        any = true;
      }
    }
    return any;
  }

  /** The value of a row; null if blank. */
  public @Nullable Object value(int row) {
    return values.value(row);
  }

  /** What the fill gave for a row. */
  public Filled filled(int row) {
    Filled odd = odd(row);
    return odd == null ? new Filled(value(row), null, false) : odd;
  }

  /** Collects what was computed value by value. */
  static final class Builder {
    private final Object[] values;
    private Filled @Nullable [] odd;

    Builder(int entries) {
      values = new Object[entries];
    }

    void put(int entry, Filled filled) {
      values[entry] = filled.value();
      if (filled.problem() != null) {
        if (odd == null) {
          odd = new Filled[values.length];
        }
        odd[entry] = filled;
      }
    }

    FilledColumn build(int @Nullable [] codes) {
      return new FilledColumn(ValueColumn.of(values, codes), odd);
    }
  }
}
