package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Locale;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CodesTest {

  @ParameterizedTest
  @CsvSource({
    "Norway,NO",
    "norge,NO",
    "NO,NO",
    "nor,NO",
    "Deutschland,DE",
    "Allemagne,DE",
    "Österreich,AT",
    "osterreich,AT",
    "U.K.,GB",
    "Great Britain,GB",
    "the Netherlands,NL",
    "USA,US",
    "Côte d’Ivoire,CI",
    "Česko,CZ",
    "Россия,RU",
    "Ελλάδα,GR"
  })
  void countriesAreKnownInTheLanguagesOfTheSenders(String name, String code) {
    assertThat(Codes.country(name)).isEqualTo(code);
  }

  @Test
  void everyCountryKnowsItsOwnCodes() {
    for (String code : Locale.getISOCountries()) {
      assertThat(Codes.country(code)).as(code).isEqualTo(code);
      assertThat(Codes.country(Codes.longCountry(code))).as(code).isEqualTo(code);
    }
    assertThat(Codes.countryNumber("AT")).isEqualTo("040");
    assertThat(Codes.countryNumber("US")).isEqualTo("840");
  }

  @ParameterizedTest
  @CsvSource({
    "German,de",
    "Deutsch,de",
    "allemand,de",
    "deu,de",
    "de,de",
    "Français,fr",
    "svenska,sv"
  })
  void languagesAreKnownByTheirNames(String name, String code) {
    assertThat(Codes.language(name)).isEqualTo(code);
  }

  @ParameterizedTest
  @CsvSource({
    "EUR,EUR",
    "€,EUR",
    "Euro,EUR",
    "£,GBP",
    "US$,USD",
    "zł,PLN",
    "Schweizer Franken,CHF"
  })
  void currenciesAreKnownByTheirSignsAndNames(String name, String code) {
    assertThat(Codes.currency(name)).isEqualTo(code);
  }

  @ParameterizedTest
  @CsvSource({"$", "kr", "fr."})
  void signsOfSeveralCurrenciesAreNotGuessed(String sign) {
    assertThat(((Problem) Codes.currency(sign)).reason())
        .isEqualTo("several currencies have this sign");
  }

  @ParameterizedTest
  @CsvSource({"Atlantis", "XX1", "''"})
  void whatIsNoneIsAProblem(String text) {
    assertThat(Codes.country(text)).isInstanceOf(Problem.class);
    assertThat(Codes.language(text)).isInstanceOf(Problem.class);
    assertThat(Codes.currency(text)).isInstanceOf(Problem.class);
  }

  @Test
  void aSignBesideItsCodeIsOneCurrency() {
    assertThat(Codes.mayBeOne(Set.of("¥", "JPY"))).isTrue();
    assertThat(Codes.mayBeOne(Set.of("¥", "USD"))).isFalse();
    assertThat(Codes.mayBeOne(Set.of("$", "USD"))).isFalse();
    assertThat(Codes.mayBeOne(Set.of("JPY", "CNY"))).isFalse();
    assertThat(Codes.mayBeOne(Set.of("¥", "JPY", "CNY"))).isFalse();
  }
}
