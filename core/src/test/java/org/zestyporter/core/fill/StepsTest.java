package org.zestyporter.core.fill;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.plan.Step;
import org.zestyporter.core.plan.StepKind;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;

class StepsTest {
  private static final LocaleSettings COMMA = new LocaleSettings(",", DateOrder.DAY_MONTH_YEAR);

  private static Object apply(Object value, StepKind kind, String... settings) {
    return Steps.compile(Step.of(kind, settings), COMMA).apply(value);
  }

  @Test
  void trimAndCollapseKnowAllSpaces() {
    assertThat(apply("\u00A0 Wren \t", StepKind.TRIM)).isEqualTo("Wren");
    assertThat(apply("   ", StepKind.TRIM)).isNull();
    assertThat(apply("Grey \u00A0  Heron", StepKind.COLLAPSE_SPACES)).isEqualTo("Grey Heron");
  }

  @ParameterizedTest
  @CsvSource({
    "upper,straße 9,STRASSE 9",
    "lower,ÉLISE,élise",
    "title,o'dowd mcBAIN-smith,O'dowd Mcbain-Smith",
    "title,ЯХТА МЕЧТА,Яхта Мечта"
  })
  void caseIsChanged(String to, String text, String expected) {
    assertThat(apply(text, StepKind.CASE, "to", to)).isEqualTo(expected);
  }

  @Test
  void replaceTakesWholeValuesOnly() {
    assertThat(apply("KETCH RIG", StepKind.REPLACE, "from", "Ketch rig", "to", "ketch"))
        .isEqualTo("ketch");
    assertThat(apply("Ketch rigged", StepKind.REPLACE, "from", "Ketch rig", "to", "ketch"))
        .isEqualTo("Ketch rigged");
  }

  @Test
  void numbersOfAWorkbookAreNotReadASecondTime() {
    BigDecimal number = new BigDecimal("1.204");
    assertThat(apply(number, StepKind.READ_NUMBER)).isSameAs(number);
    assertThat(apply("1.204", StepKind.READ_NUMBER)).isEqualTo(new BigDecimal("1204"));
    assertThat(apply("1.204", StepKind.READ_NUMBER, "decimal", ".")).isEqualTo(number);
    assertThat(apply(LocalDate.EPOCH, StepKind.READ_NUMBER)).isInstanceOf(Problem.class);
  }

  @Test
  void datesFollowTheFileUnlessTheStepSaysOtherwise() {
    assertThat(apply("03/04/2026", StepKind.READ_DATE)).isEqualTo(LocalDate.of(2026, 4, 3));
    assertThat(apply("03/04/2026", StepKind.READ_DATE, "order", "month-day-year"))
        .isEqualTo(LocalDate.of(2026, 3, 4));
    assertThat(apply("03/04/26", StepKind.READ_DATE, "century", "20"))
        .isEqualTo(LocalDate.of(2026, 4, 3));
    assertThat(apply("3.4.2026 9:15", StepKind.READ_DATE))
        .isEqualTo(LocalDateTime.of(2026, 4, 3, 9, 15));
    assertThat(apply(LocalDate.EPOCH, StepKind.READ_DATE)).isEqualTo(LocalDate.EPOCH);
    assertThat(apply(BigDecimal.TEN, StepKind.READ_DATE))
        .isEqualTo(new Problem(ProblemCode.NOT_A_DATE, "10", "a number, not a date"));
  }

  @Test
  void arithmeticIsExactAndRoundsHalfAwayFromZero() {
    assertThat(apply(new BigDecimal("36.25"), StepKind.MULTIPLY, "by", "0.3048"))
        .isEqualTo(new BigDecimal("11.049000"));
    assertThat(apply(new BigDecimal("2.345"), StepKind.ROUND, "places", "2"))
        .isEqualTo(new BigDecimal("2.35"));
    assertThat(apply(new BigDecimal("-2.345"), StepKind.ROUND, "places", "2"))
        .isEqualTo(new BigDecimal("-2.35"));
    assertThat(apply("2,5", StepKind.MULTIPLY, "by", "2"))
        .isInstanceOfSatisfying(
            Problem.class, p -> assertThat(p.reason()).contains("read it as a number first"));
  }

  @Test
  void cutCountsCharactersAndNotHalves() {
    assertThat(apply("Wren 🚤🚤", StepKind.CUT, "length", "6")).isEqualTo("Wren 🚤");
    assertThat(apply("Wren", StepKind.CUT, "length", "6")).isEqualTo("Wren");
  }

  @ParameterizedTest
  @CsvSource({
    "MULTIPLY,by,much",
    "MULTIPLY,other,1",
    "ROUND,places,-1",
    "CASE,to,sideways",
    "READ_DATE,order,backwards",
    "CUT,length,"
  })
  void settingsThatCannotBeUsedAreNamed(StepKind kind, String name, String value) {
    Step step = value == null ? Step.of(kind) : Step.of(kind, name, value);
    assertThatThrownBy(() -> Steps.compile(step, COMMA))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining(kind.title());
  }
}
