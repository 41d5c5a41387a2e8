package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Amounts as they are written from one country to the next. */
class CurrencySignsTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "R$ 1.234,56|,|1234.56|BRL",
        "-R$ 12,50|,|-12.50|BRL",
        "R$-12,50|,|-12.50|BRL",
        "US$ 1,234.56|.|1234.56|USD",
        "1,234.56 US$|.|1234.56|USD",
        "A$12.50|.|12.50|AUD",
        "S/ 1,200.00|.|1200.00|PEN",
        "S/. 12.50|.|12.50|PEN",
        "$U 1.200|,|1200|UYU",
        "Rp 1.500.000|,|1500000|IDR",
        "Rp1.500.000,00|,|1500000.00|IDR",
        "RM 12.50|.|12.50|MYR",
        "1.234,56 TL|,|1234.56|TRY",
        "1.250.000 đ|,|1250000|VND",
        "1.250.000 VNĐ|,|1250000|VND",
        "12,50 Euro|,|12.50|EUR",
        "12,50 euros|,|12.50|EUR",
        "12,50 eur|,|12.50|EUR",
        "1 234,56 zł|,|1234.56|PLN",
        "12 500 тг.|,|12500|KZT",
        "Ksh 1,200|.|1200|KES",
        "99,50 Kč|,|99.50|CZK",
        "(R$ 3,00)|,|-3.00|BRL"
      })
  void areReadWithTheirAmounts(String text, String decimal, BigDecimal amount, String code) {
    assertThat(NumberReader.find(text, decimal)).isEqualTo(amount);
    assertThat(NumberReader.read(text, decimal)).isEqualTo(amount);
    assertThat(Codes.currency(NumberReader.currencyOf(text))).isEqualTo(code);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "Rs. 1,234.50",
        "Rs 500",
        "Bs. 12.50",
        "250 FCFA",
        "R 1 234.50",
        "R1,234.50",
        "Q 12.50",
        "120 din."
      })
  void ofSeveralCurrenciesTheAmountIsKnown(String text) {
    assertThat(NumberReader.find(text, ".")).isNotNull();
    assertThat(Codes.currency(NumberReader.currencyOf(text))).isInstanceOf(Problem.class);
  }

  /** Numbers of things, and numbers with units. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "RM1001", "TL-001", "KR12", "R12", "Q3", "R 12", "Q1 2026", "12 rm", "12 l", "12 km", "A4",
        "S/N 12", "Rs", "12 Rsx", "all 12", "12 pen", "try 5", "Top 10", "F-150", "EU 12"
      })
  void codesAndUnitsAreNoAmounts(String text) {
    assertThat(NumberReader.find(text, ".")).isNull();
    assertThat(NumberReader.find(text, ",")).isNull();
  }

  /** Plain words and codes are told at sight, which has to say the same. */
  @Test
  void whatIsPlainToSeeIsNoAmount() {
    for (String text : new String[] {"Rp 15000000", "Rs 15000000", "TL 15000000", "Bs 15000000"}) {
      byte[] bytes = text.getBytes(java.nio.charset.StandardCharsets.UTF_8);
      assertThat(new PlainText().look(bytes, 0, bytes.length, '.').type()).as(text).isNull();
      assertThat(NumberReader.find(text, ".")).isEqualTo(new BigDecimal("15000000"));
    }
  }
}
