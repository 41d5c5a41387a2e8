package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.formula.FormulaException;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

class PatternsTest {

  @ParameterizedTest
  @ValueSource(
      strings = {
        "((a{1000}){1000}){1000}",
        "(((((a{9}){9}){9}){9}){9}){9}",
        "(a{1,1000}){1000}",
        "((a|b){500}c{500}){500}",
        "(?:[a-z]{1000}x){1000}",
        "(\\d{1000}){21}",
        "([]{2}]{1000}){21}"
      })
  void repetitionsThatMultiplyAreRefusedBeforeTheyAreCompiled(String pattern) {
    assertThat(Patterns.mistake(pattern)).contains("more than 20,000 characters");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "[A-Z]{2}-?\\d{3,5}",
        "(\\d{4})-(\\d{2})",
        "a{1000}",
        "(a{100}){100}",
        "\\(a{1000}\\){1000}",
        "[(]{3}[{]{2}",
        "x{,3}"
      })
  void whatPeopleWriteIsLeftAlone(String pattern) {
    assertThat(Patterns.mistake(pattern)).isNull();
  }

  @ParameterizedTest
  @ValueSource(strings = {"(", "a)", "[a", "*", "a{2000}", "(?<name"})
  void whatIsNoPatternIsSaidSo(String pattern) {
    assertThat(Patterns.mistake(pattern)).startsWith("it is no pattern");
  }

  @Test
  void aPatternThatGoesOnIsRefused() {
    assertThat(Patterns.mistake("a".repeat(2_001))).contains("2,000");
    assertThat(Patterns.mistake("(".repeat(1_000) + ")".repeat(1_000))).isNotNull();
  }

  /** The same bound wherever a pattern can be written. */
  @Test
  void formulasAndStepsAreBoundAlike() {
    String bomb = "((a{1000}){1000}){1000}";
    Names names =
        new Names() {
          @Override
          public List<String> columns() {
            return List.of("a");
          }

          @Override
          public LocaleSettings locale() {
            return LocaleSettings.DEFAULT;
          }

          @Override
          public java.util.function.UnaryOperator<String> phrasebook(String name) {
            return null;
          }
        };
    assertThatThrownBy(() -> Formula.compile("MATCHES([a]; \"" + bomb + "\")", names))
        .isInstanceOf(FormulaException.class)
        .hasMessageContaining("20,000");
    assertThat(Step.of(StepKind.TAKE_PATTERN, "pattern", bomb).refusal()).isNotNull();
    assertThat(Step.of(StepKind.REPLACE_PATTERN, "pattern", bomb, "to", "x").refusal()).isNotNull();
  }
}
