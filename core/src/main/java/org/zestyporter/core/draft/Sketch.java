package org.zestyporter.core.draft;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.Comparison.Ignore;
import org.zestyporter.core.value.Texts;

/**
 * What a column's values, or those that a field holds already, are like: the values themselves, how
 * they are written, the words in them, and where numbers and days lie.
 */
final class Sketch {
  /** Fewer values say nothing. */
  private static final int FEWEST = 5;

  /** More ways of writing say nothing. */
  private static final int MOST_SHAPES = 6;

  private static final Comparison PREPARED =
      Comparison.ignoring(List.of(Ignore.CASE, Ignore.SPACES));

  private final Map<String, Long> values = new HashMap<>();
  private final Map<String, Long> shapes = new HashMap<>();

  /** Those of them that tell something: letters and digits, or marks between them. */
  private final Set<String> telling = new HashSet<>();

  private final Set<String> words = new HashSet<>();
  private final Span numbers = new Span();
  private final Span days = new Span();
  private long rows;
  private int places;
  private long letters;

  /**
   * How well two agree.
   *
   * @param score 0 to 100
   */
  record Agreement(int score, String because) {
    static final Agreement NONE = new Agreement(0, "");
  }

  /** True if no value is written as any of a field is. */
  boolean isUnlike(Sketch field) {
    return isTelling()
        && field.isTelling()
        && !field.shapes.isEmpty()
        && shapes.keySet().stream().noneMatch(field.shapes::containsKey);
  }

  /** True if hardly any of the texts has a digit in it. */
  boolean isWithoutDigits() {
    long with =
        shapes.entrySet().stream()
            .filter(s -> s.getKey().indexOf('9') >= 0)
            .mapToLong(Map.Entry::getValue)
            .sum();
    return with * 10 < rows;
  }

  /** Adds a value that so many rows hold. */
  void add(Object value, long count) {
    if (value instanceof String text) {
      addText(text, count);
    } else {
      addTyped(value);
    }
    rows += count;
  }

  /**
   * Adds a value of a file, which is a text and perhaps something else as well.
   *
   * @param typed what it is read as; the text itself if nothing else
   */
  void add(String text, Object typed, long count) {
    addText(text, count);
    addTyped(typed);
    rows += count;
  }

  private void addTyped(Object value) {
    if (value instanceof BigDecimal number) {
      numbers.add(number.doubleValue());
      places = Math.max(places, Math.max(0, number.stripTrailingZeros().scale()));
    } else if (value instanceof LocalDate day) {
      days.add(day.toEpochDay());
    } else if (value instanceof LocalDateTime moment) {
      days.add(moment.toLocalDate().toEpochDay());
    }
  }

  private void addText(String text, long count) {
    values.merge(PREPARED.prepare(text), count, Long::sum);
    String shape = shape(text);
    if (shapes.merge(shape, count, Long::sum) == count
        && shape.chars().map(Sketch::kind).distinct().count() > 1) {
      telling.add(shape);
    }
    letters += text.length() * count;
    addWords(text.toLowerCase(Locale.ROOT));
  }

  /** Adds the words of three letters and more. */
  private void addWords(String text) {
    int start = 0;
    for (int i = 0; i <= text.length(); i++) {
      if (i == text.length() || !Texts.isLetter(text.charAt(i))) {
        if (i - start > 2) {
          words.add(text.substring(start, i));
        }
        start = i + 1;
      }
    }
  }

  /** True if it is known what the values are like. */
  boolean isTelling() {
    return rows >= FEWEST;
  }

  /** How a text is written: letters and digits by their kind, the same one after another once. */
  static String shape(String text) {
    StringBuilder shape = new StringBuilder();
    char before = 0;
    for (int i = 0; i < text.length() && shape.length() < 40; i++) {
      char c = text.charAt(i);
      char kind =
          Character.isDigit(c) ? '9' : Character.isUpperCase(c) ? 'A' : Texts.isLetter(c) ? 'a' : c;
      if (kind != before || !Texts.isOfWord(c)) {
        shape.append(kind);
      }
      before = kind;
    }
    return shape.toString();
  }

  /**
   * How well a column's values agree with those that a field holds.
   *
   * @param name of the field, for the evidence
   */
  Agreement with(Sketch field, String name) {
    if (!isTelling() || !field.isTelling()) {
      return Agreement.NONE;
    }
    if (!numbers.isEmpty() && !field.numbers.isEmpty()) {
      double common = numbers.common(field.numbers);
      int score = (int) Math.round(places == field.places ? 30 + 30 * common : 15 + 20 * common);
      return new Agreement(score, "its numbers lie where those of " + name + " do");
    }
    if (!days.isEmpty() && !field.days.isEmpty()) {
      int score = (int) Math.round(30 + 30 * days.common(field.days));
      return new Agreement(score, "its days lie where those of " + name + " do");
    }
    return values.isEmpty() || field.values.isEmpty() ? Agreement.NONE : texts(field, name);
  }

  private Agreement texts(Sketch field, String name) {
    long known = 0;
    long knownRows = 0;
    Set<String> fewer = (values.size() < field.values.size() ? values : field.values).keySet();
    for (String value : fewer) {
      if (values.containsKey(value) && field.values.containsKey(value)) {
        known++;
        knownRows += values.get(value);
      }
    }
    double share = (double) knownRows / rows;
    boolean isVaried = field.values.size() * 2L > field.rows;
    boolean isWordy = letters >= 3 * rows;
    boolean manyNames = isVaried && known >= 3 && isWordy && share >= 0.05;
    if (manyNames || !isVaried && share >= 0.6) {
      int least = manyNames ? 65 : isWordy ? 45 : 35;
      String told = String.format("%,d of %,d values are in %s already", knownRows, rows, name);
      return new Agreement((int) Math.round(least + 30 * share), told);
    }
    double alike = shapesIn(field);
    boolean bothVaried = isVaried && values.size() * 2L > rows;
    if (alike >= 0.8 && field.shapes.size() <= MOST_SHAPES) {
      String shape = Collections.max(shapes.entrySet(), Map.Entry.comparingByValue()).getKey();
      return new Agreement(
          bothVaried ? 60 : 45, "its values are written as those of " + name + " are: " + shape);
    }
    long common = words.size() < FEWEST ? 0 : words.stream().filter(field.words::contains).count();
    if (words.size() >= FEWEST && common * 10 >= words.size() * 6L) {
      return new Agreement(55, "most of its words stand in " + name + " too");
    }
    return Agreement.NONE;
  }

  /** The share of rows that are written in a telling way in which values of the field are. */
  private double shapesIn(Sketch field) {
    long alike = 0;
    for (String shape : telling) {
      alike += field.shapes.containsKey(shape) ? shapes.get(shape) : 0;
    }
    return (double) alike / rows;
  }

  private static int kind(int c) {
    return Character.isDigit(c) ? 1 : Character.isLetter(c) ? 2 : c == ' ' ? 2 : c;
  }

  /** Where numbers or days lie. */
  private static final class Span {
    private final List<Double> values = new ArrayList<>();
    private double @Nullable [] middle;

    void add(double value) {
      values.add(value);
      middle = null;
    }

    boolean isEmpty() {
      return values.isEmpty();
    }

    /** Between which the middle four fifths lie. */
    private synchronized double[] middle() {
      if (middle == null) {
        double[] sorted = values.stream().mapToDouble(v -> v).toArray();
        Arrays.sort(sorted);
        middle =
            new double[] {
              sorted[sorted.length / 10], sorted[sorted.length - 1 - sorted.length / 10]
            };
      }
      return middle;
    }

    /** What the middles of both have in common, of what they cover together. */
    double common(Span other) {
      double[] ofA = middle();
      double[] ofB = other.middle();
      double common = Math.min(ofA[1], ofB[1]) - Math.max(ofA[0], ofB[0]);
      double all = Math.max(ofA[1], ofB[1]) - Math.min(ofA[0], ofB[0]);
      return all == 0 ? 1 : Math.max(0, common / all);
    }
  }
}
