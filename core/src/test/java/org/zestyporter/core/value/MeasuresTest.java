package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Units of measure: what one is in another, and how offices write them. */
class MeasuresTest {

  /** The factors are those of the definitions (ODF 1.2 part 2, 6.16.18; NIST SP 811). */
  @ParameterizedTest
  @CsvSource({
    "ft,m,0.3048",
    "in,cm,2.54",
    "yd,m,0.9144",
    "mi,km,1.609344",
    "Nmi,km,1.852",
    "fathom,ft,6",
    "lbm,kg,0.45359237",
    "ozm,g,28.349523125",
    "stone,lbm,14",
    "t,kg,1000",
    "gal,l,3.785411784",
    "uk_gal,l,4.54609",
    "m3,l,1000",
    "hr,min,60",
    "week,day,7",
    "kWh,J,3600000",
    "MWh,kWh,1000",
    "HP,W,745.69987158227",
    "bar,kPa,100",
    "kn,km/h,1.852",
    "mph,km/h,1.609344",
    "ha,m2,10000",
  })
  void oneUnitIsSoManyOfAnother(String from, String to, BigDecimal factor) {
    Measures.Conversion there = Measures.conversion(from, to);
    assertThat(there.apply(BigDecimal.ONE)).isEqualByComparingTo(factor);
    Measures.Conversion back = Measures.conversion(to, from);
    BigDecimal round = back.apply(there.apply(new BigDecimal("12.5")));
    assertThat(round.subtract(new BigDecimal("12.5")).abs())
        .isLessThan(new BigDecimal("0.000000000001"));
  }

  @ParameterizedTest
  @CsvSource({"C,F,100,212", "F,C,32,0", "C,K,-273.15,0", "K,C,300,26.85", "F,K,-459.67,0"})
  void temperaturesBeginAtDifferentZeros(
      String from, String to, BigDecimal value, BigDecimal expected) {
    assertThat(Measures.conversion(from, to).apply(value)).isEqualByComparingTo(expected);
  }

  @Test
  void whatMeasuresSomethingElseIsNotConverted() {
    assertThat(Measures.conversion("ft", "kg")).isNull();
    assertThat(Measures.conversion("ft", "parsnips")).isNull();
    assertThat(Measures.find("parsnips")).isNull();
  }

  @ParameterizedTest
  @CsvSource({"feet,ft", "FOOT,ft", "Metres,m", "lbs,lbm", "°C,C", "kt,kn", "sqm,m2", "hrs,hr"})
  void unitsHaveManyNames(String name, String symbol) {
    assertThat(Measures.find(name).symbol()).isEqualTo(symbol);
  }

  @Test
  void capitalsTellUnitsApartWhereTheyMust() {
    assertThat(Measures.find("K").title()).isEqualTo("kelvin");
    assertThat(Measures.find("MWh").title()).isEqualTo("megawatt-hours");
    assertThat(Measures.all()).extracting(Measures.Measure::symbol).doesNotHaveDuplicates();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "32' 6\" | ft | 32.5",
        "32’6” | ft | 32.5",
        "5 ft 3 in | in | 63",
        "5ft 3in | in | 63",
        "5 feet, 3 inches | in | 63",
        "5 feet and 3 inches | in | 63",
        "1 h 30 min | hr | 1.5",
        "7 1/2 ft | ft | 7.5",
        "3/4 in | in | 0.75",
        "12 st 4 lb | lbm | 172",
        "1.204,5 m | m | 1204.5",
        "9,75 | m | 9.75",
        "2 m | ft | 6.56167979002625",
      })
  void measuresAreReadAsOfficesWriteThem(String text, String unit, BigDecimal expected) {
    Object read = Measures.read(text, unit, ",");
    assertThat(read).as(String.valueOf(read)).isInstanceOf(BigDecimal.class);
    assertThat((BigDecimal) read).isEqualByComparingTo(expected);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "tbc | no number with its unit",
        "32 parsnips | “parsnips” is no unit that is known",
        "5 kg | “kg” can’t be converted to feet",
        "5 ft and some | no number with its unit",
        "1/0 ft | no number in “1/0”",
        "ft | no number with its unit",
      })
  void whatIsNoMeasureSaysWhy(String text, String reason) {
    Object read = Measures.read(text, "ft", ",");
    assertThat(read).isInstanceOf(Problem.class);
    assertThat(((Problem) read).reason()).isEqualTo(reason);
    assertThat(((Problem) read).value()).isEqualTo(text);
  }
}
