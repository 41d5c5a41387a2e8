package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SpellingTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "Anna Lindqvist | Lindqvist, Anna | 0",
        "Anna Lindqvist | LINDQUIST, ÁNNA | 1",
        "Hanna Berg     | Anna Berg       | 1",
        "Jansen         | Janssen         | 1",
        "Meyer          | Maier           | -1",
        "Ольга Петрова  | Ольга Петрава   | 1",
        "Li             | Le              | -1",
        "Li             | LI.             | 0",
        "QH-0566        | QH-0567         | -1",
        "Pier 12 north  | Pier 12 nroth   | 2",
        "Pier 12 north  | Pier 21 north   | -1",
        "Northern Tern  | Northern Heron  | -1",
        "Northern Tern  | Northren Tern   | 2",
        "Northern Tern  | Northernn Terns | 2",
        "Narrow boat    | Narrowboat      | 1",
        "Jo Abernathy   | Al Abernathy    | -1",
        "Marigold       | Mayfield        | -1",
        "???            | ???             | -1"
      })
  void aSlipOrTwoMakeNoOtherText(String one, String other, int slips) {
    assertThat(Spelling.slips(Spelling.of(one), Spelling.of(other))).isEqualTo(slips);
    assertThat(Spelling.slips(Spelling.of(other), Spelling.of(one))).isEqualTo(slips);
  }
}
