package org.zestyporter.core.fill;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;

class FieldCheckTest {

  private static FieldInfo field(
      FieldType type, Integer length, Integer precision, Integer scale, List<String> choices) {
    BigDecimal least = type == FieldType.DECIMAL ? new BigDecimal(2) : null;
    BigDecimal greatest = type == FieldType.DECIMAL ? new BigDecimal(60) : null;
    return FieldInfo.of("f", type)
        .withLength(length)
        .withPrecision(precision)
        .withScale(scale)
        .withChoices(choices)
        .withLeast(least)
        .withGreatest(greatest);
  }

  private static ProblemCode code(Object value, FieldInfo field) {
    return ((Problem) FieldCheck.conform(value, field)).code();
  }

  @Test
  void textIsNeverCutInSilence() {
    FieldInfo five = field(FieldType.TEXT, 5, null, null, null);
    assertThat(FieldCheck.conform("Wrens", five)).isEqualTo("Wrens");
    assertThat(code("Wrens!", five)).isEqualTo(ProblemCode.TOO_LONG);
    assertThat(FieldCheck.conform("🚤🚤🚤🚤🚤", five)).isEqualTo("🚤🚤🚤🚤🚤");
    assertThat(FieldCheck.conform(new BigDecimal("12.50"), five)).isEqualTo("12.50");
    assertThat(
            FieldCheck.conform(
                LocalDate.of(2026, 1, 2), field(FieldType.TEXT, 10, null, null, null)))
        .isEqualTo("2026-01-02");
  }

  @Test
  void choicesAreExact() {
    FieldInfo state = field(FieldType.TEXT, 9, null, null, List.of("afloat", "ashore"));
    assertThat(FieldCheck.conform("ashore", state)).isEqualTo("ashore");
    assertThat(code("Ashore", state)).isEqualTo(ProblemCode.UNKNOWN_CHOICE);
    // what it means is asked, however long it is
    FieldInfo letter = field(FieldType.TEXT, 1, null, null, List.of("m", "f"));
    assertThat(code("not said", letter)).isEqualTo(ProblemCode.UNKNOWN_CHOICE);
    assertThat(code("महिला", letter.withLetters(StandardCharsets.ISO_8859_1)))
        .isEqualTo(ProblemCode.UNKNOWN_CHOICE);
  }

  @Test
  void numbersAreNeverRoundedInSilence() {
    FieldInfo length = field(FieldType.DECIMAL, null, 5, 2, null);
    assertThat(FieldCheck.conform(new BigDecimal("9.5"), length)).isEqualTo(new BigDecimal("9.50"));
    assertThat(FieldCheck.conform(new BigDecimal("9.7500"), length))
        .isEqualTo(new BigDecimal("9.75"));
    assertThat(code(new BigDecimal("9.7536"), length)).isEqualTo(ProblemCode.TOO_PRECISE);
    assertThat(code(new BigDecimal("60.01"), length)).isEqualTo(ProblemCode.OUT_OF_RANGE);
    assertThat(code(new BigDecimal("1.99"), length)).isEqualTo(ProblemCode.OUT_OF_RANGE);
    assertThat(code(new BigDecimal("12345"), length)).isEqualTo(ProblemCode.OUT_OF_RANGE);
    assertThat(FieldCheck.conform("9.5", length)).isEqualTo(new BigDecimal("9.50"));
    assertThat(code("9,5", length)).isEqualTo(ProblemCode.WRONG_TYPE);
    FieldInfo whole = field(FieldType.WHOLE, null, null, null, null);
    assertThat(code(new BigDecimal("9.5"), whole)).isEqualTo(ProblemCode.TOO_PRECISE);
    assertThat(FieldCheck.conform(new BigDecimal("9.0"), whole)).isEqualTo(new BigDecimal("9"));
  }

  @Test
  void timesOfDayAreNotDroppedInSilence() {
    FieldInfo day = field(FieldType.DATE, null, null, null, null);
    assertThat(FieldCheck.conform(LocalDateTime.of(2026, 1, 2, 0, 0), day))
        .isEqualTo(LocalDate.of(2026, 1, 2));
    assertThat(code(LocalDateTime.of(2026, 1, 2, 9, 0), day)).isEqualTo(ProblemCode.WRONG_TYPE);
    assertThat(FieldCheck.conform("2026-01-02", day)).isEqualTo(LocalDate.of(2026, 1, 2));
    assertThat(code("02.01.2026", day)).isEqualTo(ProblemCode.WRONG_TYPE);
    FieldInfo moment = field(FieldType.DATETIME, null, null, null, null);
    assertThat(FieldCheck.conform(LocalDate.of(2026, 1, 2), moment))
        .isEqualTo(LocalDateTime.of(2026, 1, 2, 0, 0));
  }

  @Test
  void textIsNoTruthValue() {
    FieldInfo flag = field(FieldType.BOOLEAN, null, null, null, null);
    assertThat(FieldCheck.conform(true, flag)).isEqualTo(true);
    assertThat(code("yes", flag)).isEqualTo(ProblemCode.WRONG_TYPE);
  }
}
