package org.zestyporter.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;

class FormulaTest {
  private static Object run(String formula) {
    return Formula.compile(formula, Functions.sampleNames()).run(Functions.sampleRow());
  }

  private static String text(String formula) {
    Object value = run(formula);
    assertThat(value).as(formula).isNotInstanceOf(Problem.class);
    return value == null ? null : (String) Reads.text(value);
  }

  private static Problem problem(String formula) {
    Object value = run(formula);
    assertThat(value).as(formula).isInstanceOf(Problem.class);
    return (Problem) value;
  }

  private static FormulaException refusal(String formula) {
    try {
      Formula.compile(formula, Functions.sampleNames());
    } catch (FormulaException e) {
      return e;
    }
    throw new AssertionError(formula + " was taken");
  }

  static Stream<String[]> examples() {
    return Functions.all().stream()
        .flatMap(f -> f.examples().stream().map(e -> new String[] {e.formula(), e.gives()}));
  }

  @ParameterizedTest(name = "{0} gives {1}")
  @MethodSource("examples")
  void theExamplesOfTheReferenceAreTrue(String formula, String gives) {
    assertThat(text(formula)).isEqualTo(gives);
  }

  @Test
  void everyFunctionHasAnExampleThatCallsIt() {
    assertThat(Functions.all()).hasSizeGreaterThan(100);
    for (Function function : Functions.all()) {
      assertThat(function.says()).as(function.name()).isNotBlank();
      assertThat(function.examples()).as(function.name()).isNotEmpty();
      assertThat(function.examples())
          .as(function.name())
          .allMatch(e -> e.formula().contains(function.name() + "("));
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\'',
      value = {
        "1 + 2 * 3 | 7",
        "(1 + 2) * 3 | 9",
        "-2 ^ 2 | 4",
        "2 ^ 3 ^ 2 | 64",
        "10 - 4 - 3 | 3",
        "100 / 10 / 5 | 2",
        "50% | 0.5",
        "200 * 10% | 20",
        "2 ^ 50% * 2 ^ 50% < 2.0001 | TRUE",
        "1 + 1 & 2 * 2 | 24",
        "\"a\" & \"b\" = \"AB\" | TRUE",
        "1 < 2 = TRUE | TRUE",
        "--3 | 3",
        "= 4 | 4",
        "1E2 + .5 | 100.5",
        "\"say \"\"hi\"\"\" | say \"hi\"",
        "IF(1 > 2, \"x\", \"y\") | y",
        "0.1 + 0.2 | 0.3",
        "1 / 3 * 3 | 0.99999999999999999999",
        "12345678901234567890 + 1 | 12345678901234567891",
        "2 ^ 0.5 | 1.4142135623731",
      })
  void signsBindAsOpenFormulaSays(String formula, String gives) {
    String given = text(formula);
    assertThat(formula.equals("2 ^ 0.5") ? given.substring(0, 15) : given).isEqualTo(gives);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\'',
      value = {
        "[LOA (ft)] * 2 | 77",
        "[loa (FT)] + 0 | 38.5",
        "[Arrives] + 1 | 2026-11-04",
        "1 + [Arrives] | 2026-11-04",
        "[Arrives] - 3 | 2026-10-31",
        "[Insured until] - [Arrives] | 148",
        "[Insured until] >= [Arrives] | TRUE",
        "[Arrives] < DATE(2026; 12; 1) | TRUE",
        "[Arrives] = \"x\" | FALSE",
        "[Arrives] + 0.5 | 2026-11-03T12:00:00",
        "[Kind] = \"KETCH RIG\" | TRUE",
        "[Kind] = 3 | FALSE",
        "[LOA (ft)] > 9 | TRUE",
        "[Boat name] > \"Great\" | TRUE",
      })
  void columnsAreReadInTheSendersWay(String formula, String gives) {
    assertThat(text(formula)).isEqualTo(gives);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\'',
      value = {
        "[Berth] * 2",
        "[Berth] + 1",
        "-[Berth]",
        "ROUND([Berth]; 2)",
        "[Berth] > 3",
        "YEAR([Berth])",
        "SUM([Berth])",
        "IF(FALSE; 1; )",
        "[Berth]",
        "\"\"",
        "TRIM(\"  \")",
      })
  void blanksStayBlankSoThatNoZeroIsWritten(String formula) {
    assertThat(run(formula)).isNull();
  }

  @Test
  void blanksEqualNothingButBlanks() {
    assertThat(run("[Berth] = \"\"")).isEqualTo(true);
    assertThat(run("[Berth] = 0")).isEqualTo(false);
    assertThat(run("[Berth] <> \"A\"")).isEqualTo(true);
    assertThat(run("IF([Berth] > 3; \"far\"; \"near\")")).isEqualTo("near");
    assertThat(run("\"Berth \" & [Berth] & \".\"")).isEqualTo("Berth .");
  }

  @Test
  void problemsNameTheFunctionThePlaceAndTheValue() {
    assertThat(problem("1 + [Boat name] * 2"))
        .isEqualTo(
            new Problem(
                ProblemCode.NOT_A_NUMBER, "Grey Heron", "no number in it (“*” at character 5)"));
    assertThat(problem("UPPER(LEFT([Kind]; -1))").reason())
        .isEqualTo("the count is under 0 (“LEFT” at character 7)");
    assertThat(problem("5 / 0").reason()).isEqualTo("divided by zero (“/” at character 3)");
    assertThat(problem("DATE(99999; 1; 1)").code()).isEqualTo(ProblemCode.FORMULA);
    assertThat(problem("REFUSE(\"too long for us\")").reason()).isEqualTo("too long for us");
    assertThat(problem("FIND(\"gull\"; [Boat name])").value()).isEqualTo("Grey Heron");
    assertThat(problem("CONVERT(1; \"ft\"; \"kg\")").reason()).startsWith("can’t be converted");
    assertThat(problem("YEAR(\"31.02.2026\" & \"\")").code()).isEqualTo(ProblemCode.NOT_A_DATE);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\'',
      value = {
        "LEFT([Kind] | 4 | 5 | this ( is never closed",
        "LEFT([Kind)) | 5 | 12 | the column’s name is never closed by ]",
        "\"open | 0 | 5 | the text is never closed by \"",
        "1 + | 3 | 3 | it ends where a value must follow",
        "1 + ) | 4 | 5 | a value must stand here, not “)”",
        "1 2 | 2 | 3 | a sign such as + or & is missing before this",
        "Kind | 0 | 4 | “Kind”: a column stands in [ ], a text in \" \"",
        "[Kynd] | 0 | 6 | there is no column “Kynd”; is it [Kind]?",
        "UPER([Kind]) | 0 | 4 | there is no function UPER; is it UPPER?",
        "LEFT() | 0 | 6 | LEFT takes (text; [count]), and is given nothing",
        "PI(1) | 0 | 5 | PI takes (), and is given 1",
        "\"x\" * 2 | 0 | 3 | “*” needs a number, and “x” is none",
        "ROUND(1,5; 2) | 7 | 8 |",
        "[Arrives] + [Insured until] | 10 | 11 | two dates can’t be added",
        "TODAY() * 2 | 0 | 7 | “*” needs a number, and this is a date",
        "YEAR(2026) | 5 | 9 | YEAR needs a date, and this is a number",
        "MATCHES([Kind]; \"(\") | 16 | 19 |",
        "PHRASE([Kind]; \"Sorts\") | 15 | 22 | there is no phrasebook “Sorts”",
        "1 ? 2 | 2 | 3 | “?” has no meaning here",
        "'' | 0 | 0 | there is no formula yet",
      })
  void whatCannotBeComputedIsSaidAtItsPlace(String formula, int from, int to, String what) {
    FormulaException refusal = refusal(formula == null ? "" : formula);
    assertThat(List.of(refusal.from(), refusal.to()))
        .as(refusal.what())
        .isEqualTo(List.of(from, to));
    if (what != null) {
      assertThat(refusal.what()).isEqualTo(what);
    }
  }

  @Test
  void namesWithBracketsAreQuoted() {
    Names names = Names.of(List.of("Size [m]"), new LocaleSettings(",", DateOrder.DAY_MONTH_YEAR));
    String quoted = Formula.quote("Size [m]");
    assertThat(quoted).isEqualTo("[Size [m]]]");
    assertThat(Formula.compile(quoted + " + 1", names).columns()).containsExactly(0);
    assertThat(Formula.columnsOf(quoted + " & [Kind] & \"[no]\""))
        .containsExactly("Size [m]", "Kind");
  }

  @Test
  void whatAFormulaMakesIsBounded() {
    assertThat(problem("REPT(\"x\"; 1000000)").reason()).contains("100,000 characters");
    assertThat(problem(nested("x", 9)).reason()).contains("100,000 characters");
    assertThat(problem("SUBSTITUTE(REPT(\"a\"; 90000); \"a\"; REPT(\"b\"; 90000))").reason())
        .contains("100,000 characters");
    assertThat(problem("SWAP(REPT(\"a\"; 90000); \"\"; REPT(\"b\"; 90000))").reason())
        .contains("too long");
    assertThat(text("SUBSTITUTE(\"banana\"; \"an\"; \"-\")")).isEqualTo("b--a");
    assertThat(problem("9 ^ 999 * 9 ^ 999").reason()).contains("too many digits");
    assertThat(problem("1E200 * 1E200").code()).isEqualTo(ProblemCode.FORMULA);
    assertThat(refusal("(".repeat(200) + "1" + ")".repeat(200)).what()).contains("64 levels");
    assertThat(refusal("1" + "+1".repeat(3_000)).what()).contains("2,000 words");
    assertThat(refusal("\"" + "x".repeat(9_000) + "\"").what()).contains("8,000 characters");
    assertThat(refusal("1E999999999").what()).contains("too many digits");
  }

  private static String nested(String text, int levels) {
    return levels == 0 ? "\"" + text + "\"" : "REPT(" + nested(text, levels - 1) + "; 10)";
  }

  @Test
  void patternsThatCostOthersYearsTakeNoTime() {
    String many = "REPT(\"a\"; 20000) & \"!\"";
    assertThat(run("MATCHES(" + many + "; \"(a+)+\")")).isEqualTo(false);
    assertThat(run("EXTRACT(" + many + "; \"(a*)*b\")")).isNull();
  }

  @Test
  void typesAreKnownBeforehand() {
    Names names = Functions.sampleNames();
    assertThat(Formula.compile("[LOA (ft)] * 2", names).kind()).isEqualTo(Kind.NUMBER);
    assertThat(Formula.compile("[Arrives] + 2", names).kind()).isEqualTo(Kind.DATE);
    assertThat(Formula.compile("[Arrives] > 2", names).kind()).isEqualTo(Kind.LOGICAL);
    assertThat(Formula.compile("[Kind] & 2", names).kind()).isEqualTo(Kind.TEXT);
    assertThat(Formula.compile("LINE() + 1", names).usesLine()).isTrue();
    assertThat(Formula.compile("1 + 1", names).usesLine()).isFalse();
  }

  @Test
  void numbersOfAWorkbookAreNotReadASecondTime() {
    Names comma = Names.of(List.of("N"), new LocaleSettings(",", DateOrder.DAY_MONTH_YEAR));
    Scope row =
        new SampleScope() {
          @Override
          public Object column(int index) {
            return new BigDecimal("1.5");
          }
        };
    assertThat(Formula.compile("[N] * 2", comma).run(row)).isEqualTo(new BigDecimal("3.0"));
  }

  @Test
  void anErrorOfTheFileIsPassedOn() {
    Problem broken = new Problem(ProblemCode.CELL_ERROR, "#DIV/0!", "the cell holds an error");
    Scope row =
        new SampleScope() {
          @Override
          public Object column(int index) {
            return broken;
          }
        };
    Names names = Names.of(List.of("N"), LocaleSettings.DEFAULT);
    assertThat(Formula.compile("UPPER([N]) & \"x\"", names).run(row)).isSameAs(broken);
    assertThat(Formula.compile("IFERROR([N]; 0)", names).run(row)).isEqualTo(BigDecimal.ZERO);
  }

  @Test
  void messagesSayThePlaceFromOne() {
    assertThatThrownBy(() -> run("1 + [Kynd]"))
        .hasMessageStartingWith("At character 5 of the formula");
  }

  /** A row in which only the column is of interest. */
  private abstract static class SampleScope implements Scope {
    @Override
    public long line() {
      return 1;
    }

    @Override
    public java.time.LocalDateTime now() {
      return Functions.sampleRow().now();
    }

    @Override
    public String who() {
      return "odile";
    }

    @Override
    public String fileName() {
      return "a.csv";
    }
  }
}
