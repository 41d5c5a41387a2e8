package org.zestyporter.core.formula;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.zestyporter.core.Seeds;
import org.zestyporter.core.value.Problem;

/** Whatever is typed is computed or refused at a place, and nothing else. */
class FormulaProperties {
  private static final List<Class<?>> VALUES =
      List.of(
          String.class,
          BigDecimal.class,
          Boolean.class,
          LocalDate.class,
          LocalDateTime.class,
          LocalTime.class,
          Problem.class);

  @Provide
  Arbitrary<String> typed() {
    Arbitrary<String> word =
        Arbitraries.of(
            "[Kind]",
            "[Berth]",
            "[LOA (ft)]",
            "[Arrives]",
            "\"x\"",
            "\"38.5\"",
            "1",
            "0",
            "-3",
            "1e9",
            "2.5",
            "TRUE",
            "TODAY()",
            "(",
            ")",
            ";",
            ",",
            "+",
            "-",
            "*",
            "/",
            "^",
            "&",
            "=",
            "<",
            ">=",
            "<>",
            "%",
            "[",
            "\"",
            "é",
            "IF(",
            "LEFT(",
            "ROUND(",
            "DATE(",
            "REPT(");
    Arbitrary<String> call =
        Arbitraries.of(Functions.names())
            .flatMap(
                name ->
                    value()
                        .list()
                        .ofMaxSize(4)
                        .map(arguments -> name + "(" + String.join("; ", arguments) + ")"));
    return Arbitraries.oneOf(word, call, call).list().ofMaxSize(7).map(w -> String.join(" ", w));
  }

  private static Arbitrary<String> value() {
    return Arbitraries.of(
        "[Kind]",
        "[Berth]",
        "[LOA (ft)]",
        "[Arrives]",
        "\"\"",
        "\"x(\"",
        "\"38.5\"",
        "1",
        "0",
        "-3",
        "1E9",
        "-1E9",
        "2.5",
        "TRUE",
        "DATE(2026; 2; 28)",
        "TIME(1; 2; 3)",
        "NA()",
        "");
  }

  @Property(tries = 4_000 * Seeds.MORE, seed = Seeds.SEED)
  void isComputedOrRefused(@ForAll("typed") String formula) {
    Formula compiled;
    try {
      compiled = Formula.compile(formula, Functions.sampleNames());
    } catch (FormulaException e) {
      assertThat(e.from()).isBetween(0, formula.length());
      assertThat(e.to()).isBetween(e.from(), formula.length());
      return;
    }
    Object value = compiled.run(Functions.sampleRow());
    assertThat(value == null || VALUES.stream().anyMatch(c -> c.isInstance(value)))
        .as(formula + " gives " + value)
        .isTrue();
    boolean fits =
        value == null
            || value instanceof Problem
            || switch (compiled.kind()) {
              case ANY -> true;
              case TEXT -> value instanceof String;
              case NUMBER -> value instanceof BigDecimal;
              case DATE -> Reads.isDate(value);
              case TIME -> value instanceof LocalTime;
              case LOGICAL -> value instanceof Boolean;
            };
    assertThat(fits).as(formula + " is " + compiled.kind() + " and gives " + value).isTrue();
  }
}
