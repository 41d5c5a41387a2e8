package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ValueReaderTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "28,5|,|28.5",
        "1.204|,|1204",
        "1.204,5|,|1204.5",
        "1.234.567,89|,|1234567.89",
        "1 204|,|1204",
        "1'204,5|,|1204.5",
        "28.5|.|28.5",
        "1,204.50|.|1204.50",
        "-7|.|-7",
        "+7|.|7",
        "7-|.|-7",
        ".5|.|0.5",
        "' 36,25  '|,|36.25",
        "0|.|0"
      })
  void numbersAreReadInTheSendersWay(String text, String decimal, String expected) {
    assertThat(ValueReader.number(text, decimal)).isEqualTo(new BigDecimal(expected));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "tbc|,|no number in it",
        "32' 6\"|,|two numbers, feet and inches",
        "8.75|,|the point does not part thousands here",
        "8,75|.|the comma does not part thousands here",
        "1.20.4|,|not written as a number",
        "12 m|.|not written as a number",
        "12 or 13|.|more than a number in it",
        "-5-|.|it has two signs",
        "-|.|no number in it"
      })
  void whatIsNoNumberSaysWhy(String text, String decimal, String reason) {
    assertThat(ValueReader.number(text, decimal))
        .isEqualTo(new Problem(ProblemCode.NOT_A_NUMBER, text, reason));
  }

  @ParameterizedTest
  @CsvSource({
    "03/04/2026,DAY_MONTH_YEAR,2026-04-03",
    "03/04/2026,MONTH_DAY_YEAR,2026-03-04",
    "3.11.2026,DAY_MONTH_YEAR,2026-11-03",
    "2026-11-03,MONTH_DAY_YEAR,2026-11-03",
    "2026/11/03,DAY_MONTH_YEAR,2026-11-03",
    "3 Nov 2026,DAY_MONTH_YEAR,2026-11-03",
    "'Nov 3, 2026',DAY_MONTH_YEAR,2026-11-03",
    "29.02.2028,DAY_MONTH_YEAR,2028-02-29"
  })
  void datesAreReadInTheirOrder(String text, DateOrder order, LocalDate expected) {
    assertThat(ValueReader.date(text, order, null)).isEqualTo(expected);
  }

  @ParameterizedTest
  @CsvSource({
    "31.02.2026,no such day",
    "29.02.2026,no such day",
    "11/25/2026,there is no month 25",
    "01.02.26,the year has two figures",
    "w/c 9 Nov,no single day",
    "soon,no date in it",
    "1.2.345,not written as a date"
  })
  void aBadDateNeverBecomesAnotherDay(String text, String reason) {
    assertThat(ValueReader.date(text, DateOrder.DAY_MONTH_YEAR, null))
        .isEqualTo(new Problem(ProblemCode.NOT_A_DATE, text, reason));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "１２，０００|.|12000",
        "￥5,000|.|5000",
        "\\5,000|.|5000",
        "3,000円|.|3000",
        "－４．５|.|-4.5",
        "12 000,50 руб.|,|12000.50",
        "٣٤٥|.|345",
        "١٬٢٠٤٫٥|.|1204.5",
        "4.339 د.أ|.|4.339",
        "٢٫٦٣٦ د.ك.|.|2.636",
        "ر.س 1,250|.|1250",
        "\u200F120.50 ج.م.\u200F|.|120.50",
        "89.90 ש\"ח|.|89.90",
        "89.90 ש״ח|.|89.90",
        "१२,३४,५६७|.|1234567"
      })
  void numbersAreReadInAnyScript(String text, String decimal, BigDecimal expected) {
    assertThat(ValueReader.number(text, decimal)).isEqualTo(expected);
  }

  @Test
  void twoFigureYearsAreReadOnceTheCenturyIsSaid() {
    assertThat(ValueReader.date("01.02.26", DateOrder.DAY_MONTH_YEAR, "20"))
        .isEqualTo(LocalDate.of(2026, 2, 1));
  }

  @Test
  void timesStandAloneOrAfterADate() {
    assertThat(ValueReader.time("7:05")).isEqualTo(LocalTime.of(7, 5));
    assertThat(ValueReader.time("25:00")).isInstanceOf(Problem.class);
    assertThat(ValueReader.dateTime("3.11.2026 07:05", DateOrder.DAY_MONTH_YEAR, null))
        .isEqualTo(LocalDateTime.of(2026, 11, 3, 7, 5));
    assertThat(ValueReader.dateTime("31.02.2026 07:05", DateOrder.DAY_MONTH_YEAR, null))
        .isEqualTo(new Problem(ProblemCode.NOT_A_DATE, "31.02.2026 07:05", "no such day"));
  }

  @Test
  void yesAndNoAreWords() {
    assertThat(ValueReader.truth(" Yes ")).isEqualTo(true);
    assertThat(ValueReader.truth("0")).isEqualTo(false);
    assertThat(ValueReader.truth("○")).isEqualTo(true);
    assertThat(ValueReader.truth("なし")).isEqualTo(false);
    // a cross ticks a box in some countries, and says no in others
    assertThat(ValueReader.truth("×")).isInstanceOf(Problem.class);
    assertThat(ValueReader.truth("maybe")).isInstanceOf(Problem.class);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "€ 12,50|,|12.50",
        "12,50 €|,|12.50",
        "EUR 1.204,00|,|1204.00",
        "$1,204.50|.|1204.50",
        "1 204,50 kr|,|1204.50",
        "CHF 7.-|.|7",
        "99,-|,|99",
        "1.096,-- €|,|1096",
        "€ 12,–|,|12",
        "-5,-|,|-5",
        "CHF 1'200.—|.|1200",
        "7-,|,|",
        "7,-5|,|",
        "7,-3,-|,|",
        "(1,204.50)|.|-1204.50",
        "(€ 12,25)|,|-12.25",
        "€ -3,5|,|-3.5",
        "−4,5|,|-4.5",
        "1.204,50-|,|-1204.50",
        "12,34,567.5|.|1234567.5",
        "1\u00A0204,5|,|1204.5",
        "1\u202F204|,|1204",
        "00042|,|42",
        "-$5.00|.|-5.00",
        "-€5,00|,|-5.00",
        "+€5.00|.|5.00",
        "-USD 5.00|.|-5.00",
        "-$-5.00|.|",
        "1,5 T€|,|1500",
        "T€ 4|,|4000",
        "-2,25 Mio. EUR|,|-2250000",
        "(3 k€)|,|-3000",
        "1.5 T€|,|",
        "12 TEUR|,|12000",
        "4 T|,|",
        "5.|.|5",
        "5,|,|5",
        "9.5e-4|.|0.00095",
        "1.5E+3|.|1.5E+3",
        "1,5E+3|,|1.5E+3",
        "1.5E+3|,|",
        "1E999999999|.|",
        "1E-500|.|",
        "123456789012345678901234567890|.|123456789012345678901234567890"
      })
  void amountsAreReadAsOfficesWriteThem(String text, String decimal, String expected) {
    Object value = ValueReader.number(text, decimal);
    if (expected == null) {
      assertThat(value).isInstanceOf(Problem.class);
    } else {
      assertThat(value).isEqualTo(new BigDecimal(expected));
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "QH-2292",
        "8 ft",
        "12 AB",
        "A12",
        "12%",
        "1,2,3",
        "--5",
        "(5",
        "5)",
        "€",
        "1.2.2026",
        "12 € 3"
      })
  void whatOnlyLooksLikeANumberIsNone(String text) {
    assertThat(ValueReader.number(text, ".")).isInstanceOf(Problem.class);
    assertThat(ValueReader.number(text, ",")).isInstanceOf(Problem.class);
  }

  @ParameterizedTest
  @CsvSource({
    "3. März 2026,2026-03-03",
    "3 février 2026,2026-02-03",
    "12 de mayo 2026,2026-05-12",
    "14 maggio 2026,2026-05-14",
    "2 mei 2026,2026-05-02",
    "1 août 2026,2026-08-01",
    "7 октября 2026,2026-10-07",
    "9 Sept 2026,2026-09-09",
    "20261119,2026-11-19",
    "20261319,",
    "30000101,",
    "3 Foo 2026,"
  })
  void monthsHaveNamesInManyLanguages(String text, LocalDate expected) {
    Object value = ValueReader.date(text, DateOrder.DAY_MONTH_YEAR, null);
    if (expected == null) {
      assertThat(value).isInstanceOf(Problem.class);
    } else {
      assertThat(value).isEqualTo(expected);
    }
  }

  @ParameterizedTest
  @CsvSource({
    "Ja,true",
    "nein,false",
    "OUI,true",
    "non,false",
    "sì,true",
    "да,true",
    "нет,false",
    "Evet,true",
    "HAYIR,false",
    "hayır,false",
    "так,true",
    "όχι,false",
    "ΟΧΙ,false",
    "Ναι,true",
    "nē,false",
    "はい,true",
    "否,false"
  })
  void yesAndNoAreReadInManyLanguages(String text, boolean expected) {
    assertThat(ValueReader.truth(text)).isEqualTo(expected);
  }
}
