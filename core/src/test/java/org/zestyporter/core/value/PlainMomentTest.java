package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PlainMomentTest {
  private static final DateOrder DAY = DateOrder.DAY_MONTH_YEAR;

  @Test
  void plainFormsAreRead() {
    LocalDate day = LocalDate.of(2026, 11, 3);
    assertThat(PlainMoment.date("2026-11-03", DAY)).isEqualTo(day);
    assertThat(PlainMoment.date("2026/11/3", DAY)).isEqualTo(day);
    assertThat(PlainMoment.date("3.11.2026", DAY)).isEqualTo(day);
    assertThat(PlainMoment.date("11/3/2026", DateOrder.MONTH_DAY_YEAR)).isEqualTo(day);
    assertThat(PlainMoment.date("29.02.2028", DAY)).isEqualTo(LocalDate.of(2028, 2, 29));
    assertThat(PlainMoment.time("7:05")).isEqualTo(LocalTime.of(7, 5));
    assertThat(PlainMoment.time("2:05 PM")).isEqualTo(LocalTime.of(14, 5));
    assertThat(PlainMoment.time("12:05:09am")).isEqualTo(LocalTime.of(0, 5, 9));
    assertThat(PlainMoment.time("12:00 pm")).isEqualTo(LocalTime.NOON);
    assertThat(PlainMoment.time("23:59:59")).isEqualTo(LocalTime.of(23, 59, 59));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "29.02.2026",
        "31.04.2026",
        "0.1.2026",
        "1.13.2026",
        "3.11.26",
        "3/11.2026",
        "2026-11",
        "",
        "2026-111-3",
        "3.11.20261",
        "20261103",
        "a.b.2026",
        "3..2026",
        "3.11.",
        "....... ."
      })
  void whatIsNotPlainIsLeft(String text) {
    assertThat(PlainMoment.date(text, DAY)).isNull();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "24:00",
        "7:60",
        "7:5",
        "7:05:60",
        "7:05:1",
        "007:05",
        "7-05",
        ":05",
        "",
        "13:05 pm",
        "7:05 xm",
        "7 pm",
        "m",
        "7:05  pm"
      })
  void whatIsNoPlainTimeIsLeft(String text) {
    assertThat(PlainMoment.time(text)).isNull();
  }

  /** With a letter before it a date is not plain; read without that it must be the same. */
  @Test
  void bothWaysReadTheSame() {
    Random random = new Random(11);
    for (int i = 0; i < 2_000; i++) {
      char sign = "./-".charAt(random.nextInt(3));
      String text =
          random.nextInt(34) + "" + sign + random.nextInt(14) + sign + (1990 + random.nextInt(40));
      for (DateOrder order : DateOrder.values()) {
        LocalDate plain = PlainMoment.date(text, order);
        // with a blank inside the other way is taken
        Object other = DateReader.read(text.replaceFirst("[./-]", "$0 "), order, null);
        assertThat(other instanceof LocalDate ? other : null).as(text + order).isEqualTo(plain);
      }
    }
  }
}
