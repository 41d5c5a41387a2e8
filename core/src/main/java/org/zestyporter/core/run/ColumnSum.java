package org.zestyporter.core.run;

import java.math.BigDecimal;
import org.zestyporter.core.value.ValueColumn;

/** A sum of numbers of columns, exact, without an object for each. */
final class ColumnSum {
  private static final BigDecimal HIGH = BigDecimal.valueOf(1L << 32);

  /** What was added of columns of other scales. */
  private BigDecimal rest = BigDecimal.ZERO;

  // numbers have up to 18 digits: in two parts, so that neither overflows
  private long high;
  private long low;
  private int scale;
  private boolean any;

  /** Adds the number of a row, if it has one; the column must hold numbers. */
  void add(ValueColumn column, int row) {
    long number = column.number(row);
    if (number == ValueColumn.BLANK) {
      return;
    }
    if (scale != column.scale()) {
      rest = sum();
      high = 0;
      low = 0;
      scale = column.scale();
    }
    high += number >> 32;
    low += number & 0xFFFF_FFFFL;
    any = true;
  }

  /** True if any number was added. */
  boolean isAny() {
    return any;
  }

  BigDecimal sum() {
    BigDecimal held = BigDecimal.valueOf(high).multiply(HIGH).add(BigDecimal.valueOf(low));
    return rest.add(held.scaleByPowerOfTen(-scale));
  }
}
