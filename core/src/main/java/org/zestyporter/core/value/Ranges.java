package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The least and the greatest value of each type; whole and decimal numbers are one. */
final class Ranges {
  private static final double[] POWERS = {1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9};

  private final Map<ValueType, Range> ranges = new EnumMap<>(ValueType.class);

  // what is surely inside these need not be made a value of
  private double least = Double.POSITIVE_INFINITY;
  private double greatest = Double.NEGATIVE_INFINITY;
  private long firstDay = Long.MAX_VALUE;
  private long lastDay = Long.MIN_VALUE;
  private byte @Nullable [] firstText;
  private byte @Nullable [] lastText;

  private static final class Range {
    private Comparable<Object> least;
    private Comparable<Object> greatest;

    @SuppressWarnings("unchecked")
    void add(Object value) {
      Comparable<Object> comparable = (Comparable<Object>) value;
      least = least == null || comparable.compareTo(least) < 0 ? comparable : least;
      greatest = greatest == null || comparable.compareTo(greatest) > 0 ? comparable : greatest;
    }
  }

  private static ValueType shared(ValueType type) {
    return type == ValueType.WHOLE ? ValueType.DECIMAL : type;
  }

  void add(ValueType type, Object value) {
    ranges.computeIfAbsent(shared(type), t -> new Range()).add(value);
  }

  /** Adds a number, given without its decimal sign; at most nine digits stand behind that. */
  void addNumber(long unscaled, int scale) {
    double size = unscaled / POWERS[scale];
    if (size <= least || size >= greatest) {
      least = Math.min(least, size);
      greatest = Math.max(greatest, size);
      add(ValueType.DECIMAL, BigDecimal.valueOf(unscaled, scale));
    }
  }

  /** Adds a day, given as days since 1970-01-01. */
  void addDay(long day) {
    if (day < firstDay || day > lastDay) {
      firstDay = Math.min(firstDay, day);
      lastDay = Math.max(lastDay, day);
      add(ValueType.DATE, LocalDate.ofEpochDay(day));
    }
  }

  /** Adds a text of {@link PlainReader#plainLength plain} letters, given in UTF-8. */
  void addText(byte[] bytes, int from, int to) {
    // these letters stand in the same order in UTF-8 as in a text
    boolean isLeast =
        firstText == null
            || Arrays.compareUnsigned(bytes, from, to, firstText, 0, firstText.length) < 0;
    if (isLeast || Arrays.compareUnsigned(bytes, from, to, lastText, 0, lastText.length) > 0) {
      byte[] text = Arrays.copyOfRange(bytes, from, to);
      lastText = isLeast && lastText != null ? lastText : text;
      firstText = isLeast ? text : firstText;
      add(ValueType.TEXT, new String(text, StandardCharsets.UTF_8));
    }
  }

  /** The least value of a type, as text; null if there is none. */
  @Nullable String least(ValueType type) {
    Range range = ranges.get(shared(type));
    return range == null ? null : Values.text(range.least);
  }

  /** The greatest value of a type, as text; null if there is none. */
  @Nullable String greatest(ValueType type) {
    Range range = ranges.get(shared(type));
    return range == null ? null : Values.text(range.greatest);
  }
}
