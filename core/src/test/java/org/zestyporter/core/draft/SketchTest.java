package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Values are compared as a person would who does not know what they mean. */
class SketchTest {
  private static Sketch of(int from, int to, IntFunction<Object> value) {
    Sketch sketch = new Sketch();
    IntStream.range(from, to).forEach(i -> sketch.add(value.apply(i), 1));
    return sketch;
  }

  private static int score(Sketch column, Sketch field) {
    return column.with(field, "boat.code").score();
  }

  @Test
  void valuesThatAreThereAlreadySayMost() {
    IntFunction<Object> code = i -> "QX-" + i * 7 % 1_000 + "-z";
    Sketch field = of(0, 100, code);
    assertThat(score(of(50, 150, code), field)).isGreaterThan(70);
    assertThat(of(50, 150, code).with(field, "boat.code").because())
        .isEqualTo("50 of 100 values are in boat.code already");
    assertThat(score(of(200, 300, code), field)).as("written alike").isEqualTo(60);
    assertThat(score(of(0, 100, i -> "q" + i), field)).isZero();
  }

  @Test
  void fewWordsAreTheSameOrNot() {
    Sketch field = of(0, 60, i -> new String[] {"ketch", "sloop", "barge"}[i % 3]);
    assertThat(score(of(0, 60, i -> new String[] {"Sloop", "Ketch"}[i % 2]), field))
        .isGreaterThanOrEqualTo(60);
    assertThat(score(of(0, 60, i -> new String[] {"red", "blue"}[i % 2]), field)).isZero();
  }

  @Test
  void numbersAndDaysLieWhereOthersDo() {
    IntFunction<Object> lengths = i -> new BigDecimal(900 + i * 13 % 700).movePointLeft(2);
    IntFunction<Object> prices = i -> new BigDecimal(40_000 + i * 131 % 90_000).movePointLeft(2);
    Sketch field = of(0, 100, lengths);
    assertThat(score(of(100, 200, lengths), field)).isGreaterThanOrEqualTo(55);
    assertThat(score(of(0, 100, prices), field)).isLessThan(50);
    IntFunction<Object> days = i -> LocalDate.of(2026, 1, 1).plusDays(i);
    assertThat(score(of(0, 100, days), of(0, 100, days))).isEqualTo(60);
    assertThat(score(of(2_000, 2_100, days), of(0, 100, days))).isLessThan(50);
  }

  @Test
  void fewValuesSayNothing() {
    assertThat(score(of(0, 4, i -> "QX-" + i), of(0, 100, i -> "QX-" + i))).isZero();
    assertThat(score(of(0, 100, i -> "QX-" + i), of(0, 4, i -> "QX-" + i))).isZero();
  }

  @Test
  void shapesTellLettersFromDigits() {
    assertThat(Sketch.shape("QX-0471 b")).isEqualTo("A-9 a");
    assertThat(Sketch.shape("Hana.Voss@post")).isEqualTo("Aa.Aa@a");
    assertThat(of(0, 9, i -> "12").isUnlike(of(0, 9, i -> "ab"))).isTrue();
    assertThat(of(0, 9, i -> "12").isUnlike(of(0, 9, i -> "34567"))).isFalse();
  }
}
