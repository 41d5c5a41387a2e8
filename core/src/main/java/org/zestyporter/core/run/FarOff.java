package org.zestyporter.core.run;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/**
 * Asks about numbers that are far above all others of their field: about a thousand times the
 * middle one and more, with a wide gap below, and few. Such a number is more often a lost decimal
 * sign or another unit than true.
 *
 * <p>Numbers are counted by their size to the power of two, so that memory does not grow with the
 * rows. Keys, links, choices and what is generated are passed over.
 */
final class FarOff {
  /** Fewer numbers tell nothing. */
  private static final int FEWEST = 20;

  /** From the middle to what is far, in powers of two. */
  private static final int FAR = 10;

  /** Below it so many powers of two hold no number. */
  private static final int GAP = 5;

  /** One of so many numbers may be far, or one of all. */
  private static final int ONE_OF = 20;

  /** More than these are not asked about. */
  private static final int MOST = 1_000;

  private static final int LEAST_EXPONENT = -64;
  private static final int SIZES = 192;

  private final List<Watched> watched = new ArrayList<>();

  /** A fill whose numbers are looked at. */
  private static final class Watched {
    private final int fill;
    private final TreeSet<BigDecimal> right = new TreeSet<>();
    private final long[] counts = new long[SIZES];
    private final double[] highest = new double[SIZES];

    /** The least size that is far; that of no number if none is. */
    private int far = SIZES;

    Watched(int fill) {
      this.fill = fill;
    }

    synchronized void add(long[] more, double[] high) {
      for (int size = 0; size < SIZES; size++) {
        counts[size] += more[size];
        highest[size] = Math.max(highest[size], high[size]);
      }
    }
  }

  FarOff(Destination destination, TableInfo table, List<CompiledFill> fills) {
    for (int f = 0; f < fills.size(); f++) {
      FieldInfo field = fills.get(f).field();
      Fill fill =
          destination.fills().stream()
              .filter(d -> d.field().equalsIgnoreCase(field.name()))
              .findFirst()
              .orElse(null);
      if (fill != null && isWatched(fill, field, destination, table)) {
        Watched one = new Watched(f);
        for (String text : said(fill)) {
          if (field.type().read(text) instanceof BigDecimal number) {
            one.right.add(number);
          }
        }
        watched.add(one);
      }
    }
  }

  private static List<String> said(Fill fill) {
    return fill.farOff() == null ? List.of() : fill.farOff();
  }

  private static boolean isWatched(
      Fill fill, FieldInfo field, Destination destination, TableInfo table) {
    boolean isNumber = field.type() == FieldType.WHOLE || field.type() == FieldType.DECIMAL;
    boolean isKey =
        field.link() != null
            || field.unique()
            || table.primaryKey().contains(field.name())
            || destination.keys().stream().anyMatch(k -> k.fields().contains(field.name()));
    boolean isMade =
        fill.origin() instanceof Origin.Generated || fill.origin() instanceof Origin.Fixed;
    return isNumber
        && !isKey
        && !isMade
        && field.choices() == null
        && !said(fill).contains(Fill.ANY);
  }

  /** Looks at no other fills than some, by their numbers. */
  void only(List<Integer> fills) {
    watched.removeIf(w -> !fills.contains(w.fill));
  }

  /** Numbers of the fills whose numbers are looked at. */
  List<Integer> fills() {
    return watched.stream().map(w -> w.fill).toList();
  }

  /** Counts the numbers of a chunk; on any thread. */
  void note(FilledChunk rows) {
    for (Watched one : watched) {
      ValueColumn column = rows.column(one.fill).values();
      double unit = unit(column);
      long[] counts = new long[SIZES];
      double[] highest = new double[SIZES];
      for (int r = 0; r < rows.rows(); r++) {
        double value = value(column, r, unit);
        int size = size(value);
        if (size >= 0) {
          counts[size]++;
          highest[size] = Math.max(highest[size], Math.abs(value));
        }
      }
      one.add(counts, highest);
    }
  }

  /** What the numbers of a column count. */
  private static double unit(ValueColumn column) {
    return column.form() == ValueColumn.Form.NUMBER ? Math.pow(10, -column.scale()) : 1;
  }

  /** Zero if it is blank, or no number. */
  private static double value(ValueColumn column, int row, double unit) {
    if (column.isBlank(row)) {
      return 0;
    }
    if (column.form() == ValueColumn.Form.NUMBER) {
      return column.number(row) * unit;
    }
    return column.value(row) instanceof BigDecimal number ? number.doubleValue() : 0;
  }

  /** The place of a number by its size; under 0 for zero. */
  private static int size(double value) {
    int exponent = Math.getExponent(value);
    return value == 0 ? -1 : Math.max(0, Math.min(SIZES - 1, exponent - LEAST_EXPONENT));
  }

  /** Finds out which sizes are far; nothing is noted after this. */
  void settle() {
    watched.forEach(FarOff::settle);
    watched.removeIf(one -> one.far == SIZES);
  }

  private static void settle(Watched one) {
    long all = 0;
    for (long count : one.counts) {
      all += count;
    }
    if (all < FEWEST) {
      return;
    }
    int size = 0;
    for (long below = one.counts[0]; below * 2 < all; below += one.counts[size]) {
      size++;
    }
    int middle = size;
    long above = 0;
    for (int s = SIZES - 1; s >= middle + FAR; s--) {
      above += one.counts[s];
      if (above > Math.max(1, Math.min(MOST, all / ONE_OF))) {
        return;
      }
      if (one.counts[s] > 0 && isGapBelow(one, s)) {
        one.far = s;
      }
    }
  }

  private static boolean isGapBelow(Watched one, int size) {
    for (int s = size - GAP; s < size; s++) {
      if (one.counts[s] > 0) {
        return false;
      }
    }
    return true;
  }

  /** True if a row has a number that is far off, whatever anybody has said of it. */
  boolean isFar(FilledChunk rows, int r) {
    for (Watched one : watched) {
      ValueColumn column = rows.column(one.fill).values();
      if (size(value(column, r, unit(column))) >= one.far) {
        return true;
      }
    }
    return false;
  }

  /** Lets a row wait that has a number which is far off, and which nobody has called right. */
  void tell(TargetRows rows, int r) {
    for (Watched one : watched) {
      ValueColumn column = rows.filled.column(one.fill).values();
      int size = size(value(column, r, unit(column)));
      if (size >= one.far
          && rows.odd(one.fill, r) == null
          && column.value(r) instanceof BigDecimal number
          && !one.right.contains(number)) {
        Problem problem =
            new Problem(
                ProblemCode.FAR_OFF,
                Values.plain(number),
                "far above all others, the highest of which is " + highestBelow(one));
        rows.settle(one.fill, r, new Filled(number, problem, false, true));
      }
    }
  }

  private static @Nullable String highestBelow(Watched one) {
    int size = one.far - 1;
    while (size > 0 && one.counts[size] == 0) {
      size--;
    }
    return Values.plain(new BigDecimal(Double.toString(one.highest[size])));
  }
}
