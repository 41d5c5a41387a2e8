package org.zestyporter.core.value;

import java.util.List;
import java.util.Set;

/** Units of measure that stand in headings and field names. */
public final class UnitWords {
  /** Words that are units, but more often something else in a heading. */
  private static final Set<String> DOUBTFUL =
      Set.of(
          "in", "day", "days", "d", "c", "f", "k", "to", "st", "bar", "second", "min", "minute",
          "stone");

  private UnitWords() {}

  public static Measures.Measure find(String word) {
    return DOUBTFUL.contains(word) ? null : Measures.find(word);
  }

  /** The unit named last in a heading or field name; null if there is none. */
  public static Measures.Measure in(String name) {
    List<String> words = Words.split(name);
    return words.size() < 2 ? null : find(words.get(words.size() - 1));
  }

  /** True if a column's values must be converted to fill a field, and can be. */
  public static boolean differ(String column, String field) {
    Measures.Measure from = in(column);
    Measures.Measure to = in(field);
    return from != null
        && to != null
        && !from.symbol().equals(to.symbol())
        && Measures.conversion(from.symbol(), to.symbol()) != null;
  }
}
