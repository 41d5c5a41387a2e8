package org.zestyporter.core.step;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.zestyporter.core.Seeds;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Problem;

/** Whatever comes, each step gives a value, a blank or a reason, and never breaks off. */
class AnyStepTest {
  /** Kinds with what may be said of them, at the limits of what is sensible and beyond. */
  private static final String[][] STEPS = {
    {"trim"},
    {"collapse-spaces"},
    {"remove-controls"},
    {"case", "to", "upper"},
    {"case", "to", "title"},
    {"case", "to", "sentence"},
    {"case", "to", "name"},
    {"remove-accents"},
    {"cut", "length", "3"},
    {"cut", "length", "0"},
    {"pad", "length", "6", "with", "0"},
    {"pad", "length", "7", "with", "\uD83D\uDEA4", "side", "right"},
    {"take-left", "count", "2"},
    {"take-right", "count", "2"},
    {"take-between", "after", "(", "before", ")"},
    {"take-between", "before", " "},
    {"take-word", "which", "-1"},
    {"take-word", "which", "2147483647"},
    {"take-pattern", "pattern", "(a|b)*c"},
    {"take-pattern", "pattern", "\\d+(x)?"},
    {"split", "at", ".", "which", "-1"},
    {"split", "at", "-", "which", "2147483647"},
    {"replace", "from", "a", "to", ""},
    {"replace-words", "from", "İ", "to", "$1\\"},
    {"replace-pattern", "pattern", "(\\d)", "to", "$1$1"},
    {"replace-pattern", "pattern", "x*", "to", "-"},
    {"blank-when", "words", "-|n/a|"},
    {"default", "value", "0"},
    {"read-number"},
    {"read-number", "decimal", "."},
    {"read-money", "currency", "EUR"},
    {"read-percent", "as", "points"},
    {"read-percent"},
    {"read-measure", "in", "m"},
    {"read-measure", "in", "h"},
    {"read-date"},
    {"read-date", "order", "month-day-year", "century", "19"},
    {"read-date", "pattern", "d. MMMM yy"},
    {"read-time"},
    {"read-boolean"},
    {"read-boolean", "yes", "x", "no", ""},
    {"multiply", "by", "99999999999999999999999999999999"},
    {"multiply", "by", "0"},
    {"add", "number", "-0.0000000000000000000000000001"},
    {"round", "places", "-3"},
    {"round", "places", "2", "how", "up"},
    {"convert-unit", "from", "ft", "to", "m"},
    {"shift-date", "by", "2147483647", "unit", "years"},
    {"shift-date", "by", "-2147483648", "unit", "days"},
    {"shift-date", "by", "1", "unit", "months"},
    {"period-edge", "which", "last", "of", "month"},
    {"period-edge", "which", "first", "of", "year"},
    {"format", "format", "#,##0.00"},
    {"format", "format", "d mmmm yyyy"},
    {"phone", "country", "DE"},
    {"phone", "country", "JP", "form", "plain"},
    {"email"},
    {"country"},
    {"country", "form", "number"},
    {"language"},
    {"currency"}
  };

  private final List<StepFunction> functions = new ArrayList<>();
  private final List<String> said = new ArrayList<>();

  AnyStepTest() {
    Names names = Names.of(List.of(), new LocaleSettings(",", DateOrder.DAY_MONTH_YEAR));
    for (String[] step : STEPS) {
      String[] settings = java.util.Arrays.copyOfRange(step, 1, step.length);
      StepKind kind =
          java.util.Arrays.stream(StepKind.values())
              .filter(k -> k.word().equals(step[0]))
              .findFirst()
              .orElseThrow();
      try {
        functions.add(Step.of(kind, settings).compile(names));
        said.add(String.join(" ", step));
      } catch (PorterException e) {
        assertThat(e.getMessage()).isNotBlank();
      }
    }
    assertThat(functions).hasSizeGreaterThan(STEPS.length - 8);
  }

  @Provide
  Arbitrary<Object> values() {
    Arbitrary<String> texts =
        Arbitraries.strings()
            .withChars("aZxİß09 \t\n\u00A0.,:;-+/\\()'\"%°€$#@\uD83D\uDEA4\uD83Deé\u0301יא月年")
            .ofMaxLength(14);
    Arbitrary<Object> typed =
        Arbitraries.of(
            new BigDecimal("1E+40"),
            new BigDecimal("-1E-40"),
            new BigDecimal("9999999999999999999999999999999999999999.5"),
            BigDecimal.ZERO,
            LocalDate.of(1, 1, 1),
            LocalDate.of(9999, 12, 31),
            LocalDateTime.of(2026, 2, 28, 23, 59, 59, 999_999_999),
            LocalTime.MAX,
            Boolean.FALSE);
    Arbitrary<String> nearly =
        Arbitraries.of(
            "31/02/2026",
            "29.2.1900",
            "0/0/0",
            "99999999999/1/1",
            "12:60",
            "25:00",
            "24:00",
            "1e400",
            "1,2,3",
            "1.204",
            "(12)",
            "-(-3)",
            "+-4",
            "1'000",
            "½",
            "³",
            "١٢٣",
            "１２",
            "5 ft 99 in",
            "' \"",
            "1 h 99 min",
            "12 %%",
            "€ 1,-",
            "USD EUR 3",
            "a@b",
            "@",
            "a@@b.c",
            "+",
            "+00000000000000000000000",
            "tel: 030 / 12-34",
            "DEU",
            "xx",
            "ja",
            "nein",
            "true ");
    return Arbitraries.oneOf(texts.map(t -> t), nearly.map(t -> t), typed);
  }

  @Property(tries = 1_000 * Seeds.MORE, seed = Seeds.SEED)
  void givesAValueOrSaysWhyNot(@ForAll("values") Object value) {
    for (int s = 0; s < functions.size(); s++) {
      Object given;
      try {
        given = functions.get(s).apply(value, null);
      } catch (RuntimeException e) {
        throw new AssertionError(said.get(s) + " of <" + value + ">", e);
      }
      if (given instanceof Problem problem) {
        assertThat(problem.reason()).as("%s of <%s>", said.get(s), value).isNotBlank();
      } else if (given != null) {
        assertThat(given)
            .as("%s of <%s>", said.get(s), value)
            .isInstanceOfAny(
                Noted.class,
                String.class,
                BigDecimal.class,
                LocalDate.class,
                LocalDateTime.class,
                OffsetDateTime.class,
                LocalTime.class,
                Boolean.class);
      }
    }
  }
}
