package org.zestyporter.core.run;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
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
 * Asks about numbers and days that are far from all others of their field, and few: numbers of
 * about a thousand times or a thousandth of the middle one and beyond, days that are decades away,
 * each with a wide gap before the others. Such a value is more often a lost decimal sign, another
 * unit or a slip of the century than true.
 *
 * <p>Numbers are counted by their size to the power of two, days by their year, so that memory does
 * not grow with the rows. Keys, links, choices and what is generated are passed over.
 */
final class FarOff {
  /** Fewer values tell nothing. */
  private static final int FEWEST = 20;

  /** One of so many values may be far, or one of all. */
  private static final int ONE_OF = 20;

  /** More than these are not asked about. */
  private static final int MOST = 1_000;

  private final List<Watched> watched = new ArrayList<>();

  /** How values are put in places, one behind the other. */
  private enum Scale {
    /** By powers of two, whatever the sign. */
    SIZE(
        192,
        "far above all others, the highest of which is ",
        "far below all others, the lowest of which is ") {
      private static final int LEAST_EXPONENT = -64;

      @Override
      int place(double value) {
        return clamped(Math.getExponent(value) - LEAST_EXPONENT);
      }

      @Override
      String text(double value) {
        return Values.plain(new BigDecimal(Double.toString(value)));
      }
    },

    /** By years; a value is a day since 1970-01-01. */
    YEAR(
        3000,
        "long after all others, the latest of which is ",
        "long before all others, the earliest of which is ") {
      private static final int TO_YEAR_0 = 719_528;

      @Override
      int place(double value) {
        return clamped((int) Math.floor((value + TO_YEAR_0) / 365.2425));
      }

      @Override
      String text(double value) {
        return LocalDate.ofEpochDay((long) value).toString();
      }
    };

    private final int places;
    private final String above;
    private final String below;

    Scale(int places, String above, String below) {
      this.places = places;
      this.above = above;
      this.below = below;
    }

    abstract int place(double value);

    abstract String text(double value);

    int clamped(int place) {
      return Math.max(0, Math.min(places - 1, place));
    }
  }

  /** Values by their places. */
  private static final class Tally {
    private final Scale scale;
    private final long[] counts;
    private final double[] highest;
    private final double[] lowest;

    Tally(Scale scale) {
      this.scale = scale;
      counts = new long[scale.places];
      highest = new double[scale.places];
      lowest = new double[scale.places];
      Arrays.fill(highest, Double.NEGATIVE_INFINITY);
      Arrays.fill(lowest, Double.POSITIVE_INFINITY);
    }

    void add(double value) {
      int place = scale.place(value);
      counts[place]++;
      if (value > highest[place]) {
        highest[place] = value;
      }
      if (value < lowest[place]) {
        lowest[place] = value;
      }
    }

    synchronized void addAll(Tally other) {
      for (int place = 0; place < counts.length; place++) {
        counts[place] += other.counts[place];
        highest[place] = Math.max(highest[place], other.highest[place]);
        lowest[place] = Math.min(lowest[place], other.lowest[place]);
      }
    }

    /** The place of the value before which there are so many others. */
    int placeOf(long before) {
      int place = 0;
      for (long sum = counts[0]; sum <= before; sum += counts[place]) {
        place++;
      }
      return place;
    }

    boolean isEmpty(int from, int to) {
      for (int place = from; place < to; place++) {
        if (counts[place] > 0) {
          return false;
        }
      }
      return true;
    }

    /** The nearest place that holds something, from one on up or down. */
    int filled(int from, int by) {
      int place = from;
      while (counts[place] == 0) {
        place += by;
      }
      return place;
    }
  }

  /** A fill whose values are looked at. */
  private static final class Watched {
    private final int fill;
    private final Set<Object> right = new HashSet<>();
    private final Tally tally;

    /** From this place on values are far above; that of none if none is. */
    private int above;

    /** Up to this place values are far below; under 0 if none is. */
    private int below = -1;

    Watched(int fill, Scale scale) {
      this.fill = fill;
      this.tally = new Tally(scale);
      this.above = scale.places;
    }

    boolean isFar(double value) {
      int place = Double.isNaN(value) ? -1 : tally.scale.place(value);
      return place >= 0 && (place >= above || place <= below);
    }

    /** Finds out from where on values are far. */
    void settle() {
      long all = Arrays.stream(tally.counts).sum();
      if (all < FEWEST) {
        return;
      }
      int middle = tally.placeOf((all - 1) / 2);
      int gap = 5;
      int reach = 10;
      if (tally.scale == Scale.YEAR) {
        long tail = all / ONE_OF;
        gap = Math.max(20, tally.placeOf(all - 1 - tail) - tally.placeOf(tail));
        reach = gap;
      }
      long few = Math.max(1, Math.min(MOST, all / ONE_OF));
      long beyond = 0;
      for (int p = tally.scale.places - 1; p >= middle + reach && beyond <= few; p--) {
        beyond += tally.counts[p];
        if (tally.counts[p] > 0 && beyond <= few && tally.isEmpty(p - gap, p)) {
          above = p;
        }
      }
      beyond = 0;
      for (int p = 0; p <= middle - reach && beyond <= few; p++) {
        beyond += tally.counts[p];
        if (tally.counts[p] > 0 && beyond <= few && tally.isEmpty(p + 1, p + 1 + gap)) {
          below = p;
        }
      }
    }

    boolean findsAny() {
      return above < tally.scale.places || below >= 0;
    }

    /** How a value that is far stands to the others. */
    String reason(double value) {
      Scale scale = tally.scale;
      return scale.place(value) >= above
          ? scale.above + scale.text(tally.highest[tally.filled(above - 1, -1)])
          : scale.below + scale.text(tally.lowest[tally.filled(below + 1, 1)]);
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
      Scale scale = scale(field);
      if (fill != null && scale != null && isWatched(fill, field, destination, table)) {
        Watched one = new Watched(f, scale);
        said(fill).forEach(text -> one.right.add(same(field.type().read(text))));
        watched.add(one);
      }
    }
  }

  private static @Nullable Scale scale(FieldInfo field) {
    return switch (field.type()) {
      case WHOLE, DECIMAL -> Scale.SIZE;
      case DATE, DATETIME -> Scale.YEAR;
      default -> null;
    };
  }

  private static List<String> said(Fill fill) {
    return fill.farOff() == null ? List.of() : fill.farOff();
  }

  /** What is equal for equal values. */
  private static @Nullable Object same(@Nullable Object value) {
    return value instanceof BigDecimal number ? Values.bare(number) : value;
  }

  private static boolean isWatched(
      Fill fill, FieldInfo field, Destination destination, TableInfo table) {
    boolean isKey =
        field.link() != null
            || field.unique()
            || table.primaryKey().contains(field.name())
            || destination.keys().stream().anyMatch(k -> k.fields().contains(field.name()));
    boolean isMade =
        fill.origin() instanceof Origin.Generated || fill.origin() instanceof Origin.Fixed;
    return !isKey && !isMade && field.choices() == null && !said(fill).contains(Fill.ANY);
  }

  /** Looks at no other fills than some, by their numbers. */
  void only(List<Integer> fills) {
    watched.removeIf(w -> !fills.contains(w.fill));
  }

  /** Numbers of the fills whose values are looked at. */
  List<Integer> fills() {
    return watched.stream().map(w -> w.fill).toList();
  }

  /** Counts the values of a chunk; on any thread. */
  void note(FilledChunk rows) {
    for (Watched one : watched) {
      Tally tally = new Tally(one.tally.scale);
      note(rows.column(one.fill).values(), rows.rows(), tally);
      one.tally.addAll(tally);
    }
  }

  private static void note(ValueColumn column, int rows, Tally tally) {
    double unit = unit(column);
    boolean isNumber = column.form() == ValueColumn.Form.NUMBER;
    boolean isPlain = isNumber || column.form() == ValueColumn.Form.DATE;
    for (int r = 0; r < rows; r++) {
      if (!isPlain) {
        double value = value(column, r, unit);
        if (!Double.isNaN(value)) {
          tally.add(value);
        }
        continue;
      }
      long held = column.number(r);
      if (held != ValueColumn.BLANK && !(isNumber && held == 0)) {
        tally.add(isNumber ? Math.abs(held * unit) : held);
      }
    }
  }

  /** What the numbers of a column count. */
  private static double unit(ValueColumn column) {
    return switch (column.form()) {
      case NUMBER -> Math.pow(10, -column.scale());
      case MOMENT -> 1 / 86_400e6;
      default -> 1;
    };
  }

  /** A number without its sign, or a day; none if it is blank, zero, or anything else. */
  private static double value(ValueColumn column, int row, double unit) {
    if (column.isBlank(row)) {
      return Double.NaN;
    }
    return switch (column.form()) {
      case NUMBER -> size(column.number(row) * unit);
      case DATE, MOMENT -> Math.floor(column.number(row) * unit);
      default -> value(column.value(row));
    };
  }

  private static double value(@Nullable Object value) {
    if (value instanceof BigDecimal number) {
      return size(number.doubleValue());
    }
    LocalDate day =
        value instanceof LocalDate date
            ? date
            : value instanceof LocalDateTime moment
                ? moment.toLocalDate()
                : value instanceof OffsetDateTime moment ? moment.toLocalDate() : null;
    return day == null ? Double.NaN : day.toEpochDay();
  }

  private static double size(double number) {
    return number == 0 ? Double.NaN : Math.abs(number);
  }

  /** Finds out which values are far; nothing is noted after this. */
  void settle() {
    watched.forEach(Watched::settle);
    watched.removeIf(one -> !one.findsAny());
  }

  /** True if a row has a value that is far off, whatever anybody has said of it. */
  boolean isFar(FilledChunk rows, int r) {
    for (Watched one : watched) {
      ValueColumn column = rows.column(one.fill).values();
      if (one.isFar(value(column, r, unit(column)))) {
        return true;
      }
    }
    return false;
  }

  /** Lets a row wait that has a value which is far off, and which nobody has called right. */
  void tell(TargetRows rows, int r) {
    for (Watched one : watched) {
      ValueColumn column = rows.filled.column(one.fill).values();
      double size = value(column, r, unit(column));
      if (one.isFar(size) && rows.odd(one.fill, r) == null) {
        Object value = column.value(r);
        if (!one.right.contains(same(value))) {
          String text =
              value instanceof BigDecimal number ? Values.plain(number) : Values.text(value);
          Problem problem = new Problem(ProblemCode.FAR_OFF, text, one.reason(size));
          rows.settle(one.fill, r, new Filled(value, problem, false, true));
        }
      }
    }
  }
}
