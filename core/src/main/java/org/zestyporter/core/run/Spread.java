package org.zestyporter.core.run;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Arrays;
import org.zestyporter.core.value.Values;

/**
 * How the values of a field spread: counted by their places on a scale, with the highest and the
 * lowest of each place, and from where on they are far from all others.
 *
 * <pre>{@code
 * Spread lengths = new Spread(Spread.Scale.SIZE);
 * lengths.add(9.75);   // and all others
 * lengths.settle();
 * lengths.isFar(9_750);
 * }</pre>
 */
final class Spread {
  /** Fewer values tell nothing. */
  private static final int FEWEST = 20;

  /** One of so many values may be far, or one of all. */
  private static final int ONE_OF = 20;

  /** More than these are not asked about. */
  private static final int MOST = 1_000;

  /** Places of sizes that are empty before one that is far. */
  private static final int GAP = 5;

  /** Places between the middle and a size that is far: a thousand times as much. */
  private static final int REACH = 10;

  /** The same from where nineteen of twenty end: a lost decimal sign among values of one size. */
  private static final int REACH_OF_MOST = 8;

  /** How values are put in places, one behind the other. */
  enum Scale {
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

  private final Scale scale;
  private final long[] counts;
  private final double[] highest;
  private final double[] lowest;

  /** From this place on values are far above; that of none if none is. */
  private int above;

  /** Up to this place values are far below; under 0 if none is. */
  private int below = -1;

  Spread(Scale scale) {
    this.scale = scale;
    above = scale.places;
    counts = new long[scale.places];
    highest = new double[scale.places];
    lowest = new double[scale.places];
    Arrays.fill(highest, Double.NEGATIVE_INFINITY);
    Arrays.fill(lowest, Double.POSITIVE_INFINITY);
  }

  /** Another one on the same scale that holds nothing yet. */
  Spread empty() {
    return new Spread(scale);
  }

  /** Counts a value; {@link Double#NaN} is none. */
  void add(double value) {
    if (Double.isNaN(value)) {
      return;
    }
    int place = scale.place(value);
    counts[place]++;
    if (value > highest[place]) {
      highest[place] = value;
    }
    if (value < lowest[place]) {
      lowest[place] = value;
    }
  }

  /** Counts the values of another one; on any thread. */
  synchronized void addAll(Spread other) {
    for (int place = 0; place < counts.length; place++) {
      counts[place] += other.counts[place];
      highest[place] = Math.max(highest[place], other.highest[place]);
      lowest[place] = Math.min(lowest[place], other.lowest[place]);
    }
  }

  /** The place of the value before which there are so many others. */
  private int placeOf(long before) {
    int place = 0;
    for (long sum = counts[0]; sum <= before; sum += counts[place]) {
      place++;
    }
    return place;
  }

  private boolean isEmpty(int from, int to) {
    for (int place = from; place < to; place++) {
      if (counts[place] > 0) {
        return false;
      }
    }
    return true;
  }

  /** The nearest place that holds something, from one on up or down. */
  private int filled(int from, int by) {
    int place = from;
    while (counts[place] == 0) {
      place += by;
    }
    return place;
  }

  /** True if a value is far from all others. */
  boolean isFar(double value) {
    int place = Double.isNaN(value) ? -1 : scale.place(value);
    return place >= 0 && (place >= above || place <= below);
  }

  /** Finds out from where on values are far. */
  void settle() {
    long all = Arrays.stream(counts).sum();
    if (all < FEWEST) {
      return;
    }
    int middle = placeOf((all - 1) / 2);
    long tail = all / ONE_OF;
    int low = placeOf(tail);
    int high = placeOf(all - 1 - tail);
    int gap = GAP;
    int from = Math.min(middle + REACH, high + REACH_OF_MOST);
    int to = Math.max(middle - REACH, low - REACH_OF_MOST);
    if (scale == Scale.YEAR) {
      gap = Math.max(20, high - low);
      from = middle + gap;
      to = middle - gap;
    }
    long few = Math.max(1, Math.min(MOST, tail));
    long beyond = 0;
    for (int p = scale.places - 1; p >= from && beyond <= few; p--) {
      beyond += counts[p];
      if (counts[p] > 0 && beyond <= few && isEmpty(p - gap, p)) {
        above = p;
      }
    }
    beyond = 0;
    for (int p = 0; p <= to && beyond <= few; p++) {
      beyond += counts[p];
      if (counts[p] > 0 && beyond <= few && isEmpty(p + 1, p + 1 + gap)) {
        below = p;
      }
    }
  }

  /** True if any value is far. */
  boolean findsAny() {
    return above < scale.places || below >= 0;
  }

  /** How a value that is far stands to the others. */
  String reason(double value) {
    return scale.place(value) >= above
        ? scale.above + scale.text(highest[filled(above - 1, -1)])
        : scale.below + scale.text(lowest[filled(below + 1, 1)]);
  }
}
