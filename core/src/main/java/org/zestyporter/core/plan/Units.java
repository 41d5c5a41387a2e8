package org.zestyporter.core.plan;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;

/** Units that stand in headings and field names, with their size in the base unit. */
final class Units {
  private Units() {}

  /** A unit; {@code size} of one in the base unit of its {@code dimension}. */
  record Unit(String name, String dimension, BigDecimal size) {}

  private static final Map<String, Unit> UNITS =
      Map.ofEntries(
          entry("m", "metres", "length", "1"),
          entry("metres", "metres", "length", "1"),
          entry("cm", "centimetres", "length", "0.01"),
          entry("mm", "millimetres", "length", "0.001"),
          entry("ft", "feet", "length", "0.3048"),
          entry("feet", "feet", "length", "0.3048"),
          entry("kg", "kilograms", "mass", "1"),
          entry("lb", "pounds", "mass", "0.45359237"),
          entry("lbs", "pounds", "mass", "0.45359237"),
          entry("t", "tonnes", "mass", "1000"),
          entry("kwh", "kilowatt-hours", "energy", "1"),
          entry("mwh", "megawatt-hours", "energy", "1000"));

  private static Map.Entry<String, Unit> entry(
      String word, String name, String dimension, String size) {
    return Map.entry(word, new Unit(name, dimension, new BigDecimal(size)));
  }

  static Unit find(String word) {
    return UNITS.get(word);
  }

  /** The unit named last in a heading or field name; null if there is none. */
  static Unit in(String name) {
    List<String> words = Words.split(name);
    return words.size() < 2 ? null : find(words.get(words.size() - 1));
  }

  /** What to multiply by; null if nothing is to be done or the units don't fit. */
  static BigDecimal factor(String column, String field) {
    Unit from = in(column);
    Unit to = in(field);
    if (from == null || to == null || !from.dimension().equals(to.dimension())) {
      return null;
    }
    if (from.size().compareTo(to.size()) == 0) {
      return null;
    }
    return from.size().divide(to.size(), new java.math.MathContext(12)).stripTrailingZeros();
  }
}
