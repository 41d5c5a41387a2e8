package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PlainAmountTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "$1,234.56|.|1234.56",
        "1.234,56 €|,|1234.56",
        "-£1,234,567|.|-1234567",
        "€ -3,5|,|-3.5",
        "1 234 567,8|,|1234567.8",
        "1’204.50|.|1204.50",
        "1.234|,|1234",
        "1.234|.|1.234",
        "12345,678|,|12345.678"
      })
  void amountsAreRead(String text, char decimal, BigDecimal expected) {
    assertThat(PlainAmount.of(text).value(decimal)).isEqualTo(expected);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "-",
        "$",
        "12 m",
        "1,23,456.7",
        "1.2.3",
        "1..2",
        "12,",
        ",5",
        "$5 €",
        "1 2345,6",
        "1234.567,8",
        "1.234,567,8"
      })
  void otherWritingIsLeft(String text) {
    PlainAmount amount = PlainAmount.of(text);
    assertThat(amount == null || amount.value(',') == null && amount.value('.') == null).isTrue();
  }

  /** With a blank before it an amount is read the other way, which must say the same. */
  @Test
  void bothWaysSayTheSame() {
    Random random = new Random(5);
    String signs = "0123456789012345678901234567890123456789.,.,.,.,  '-$€";
    for (int i = 0; i < 200_000; i++) {
      StringBuilder made = new StringBuilder();
      for (int n = 1 + random.nextInt(11); n > 0; n--) {
        made.append(signs.charAt(random.nextInt(signs.length())));
      }
      String text = made.toString().strip();
      PlainAmount amount = PlainAmount.of(text);
      for (String decimal : new String[] {",", "."}) {
        BigDecimal quick = amount == null ? null : amount.value(decimal.charAt(0));
        if (amount != null) {
          // the blank in front is taken off there
          Object slow = NumberReader.read(" " + text, decimal);
          assertThat(slow instanceof Problem ? null : slow)
              .as(text + " with " + decimal)
              .isEqualTo(quick);
        }
      }
    }
  }
}
