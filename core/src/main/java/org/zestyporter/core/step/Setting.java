package org.zestyporter.core.step;

import java.math.BigDecimal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Measures;
import org.zestyporter.core.value.Patterns;

/**
 * A setting of a step.
 *
 * @param type text, number, whole, count (a whole number, also under 0), choice, column, book,
 *     pattern, unit or formula
 * @param required false if it may be left open
 */
public record Setting(String name, String type, boolean required, List<String> choices) {

  private static Setting of(String name, String type) {
    return new Setting(name, type, true, List.of());
  }

  static Setting text(String name) {
    return of(name, "text");
  }

  static Setting number(String name) {
    return of(name, "number");
  }

  static Setting whole(String name) {
    return of(name, "whole");
  }

  static Setting count(String name) {
    return of(name, "count");
  }

  static Setting column(String name) {
    return of(name, "column");
  }

  static Setting book(String name) {
    return of(name, "book");
  }

  static Setting pattern(String name) {
    return of(name, "pattern");
  }

  static Setting unit(String name) {
    return of(name, "unit");
  }

  static Setting formula(String name) {
    return of(name, "formula");
  }

  static Setting choice(String name, String... choices) {
    return new Setting(name, "choice", true, List.of(choices));
  }

  /** The same, but it may be left open. */
  Setting open() {
    return new Setting(name, type, false, choices);
  }

  /** Why a value can't be used for it; null if it can. */
  @Nullable String refusal(@Nullable String value) {
    if (value == null) {
      return required ? "needs “" + name + "”" : null;
    }
    boolean fits =
        switch (type) {
          case "number" -> isNumber(value);
          case "whole" -> value.matches("\\d{1,4}");
          case "count" -> value.matches("-?\\d{1,4}");
          case "choice" -> choices.contains(value);
          case "unit" -> Measures.find(value) != null;
          case "pattern" -> Patterns.mistake(value) == null;
          default -> true;
        };
    return fits ? null : "can't use “" + value + "” for “" + name + "”";
  }

  private static boolean isNumber(String value) {
    try {
      return new BigDecimal(value).precision() < 40 && Math.abs(new BigDecimal(value).scale()) < 40;
    } catch (NumberFormatException e) {
      return false;
    }
  }
}
