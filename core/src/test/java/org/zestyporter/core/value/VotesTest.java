package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class VotesTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "8,5|1|0|0",
        "8.75|0|1|0",
        "1.204,50|1|0|0",
        "1,204.50|0|1|0",
        "1.204.500|1|0|0",
        "1,204,500|0|1|0",
        "€ 12,50|1|0|0",
        "13,5 lekë|1|0|0",
        "Euros 1.234,5|1|0|0",
        "13.5 euros|0|1|0",
        "1.204|0|0|1",
        "1,204|0|0|1",
        "0.204|0|1|0",
        "0,204 kg|1|0|0",
        "1204|0|0|0",
        "8.1234|0|1|0",
        "a.b|0|0|0",
        "192.168.1.7|0|0|0",
        "1.250.000 đ|1|0|0",
        "Rp 1.250.000|1|0|0",
        "1,250,000 Rs|0|1|0",
        // where a currency has no places, its amounts have no decimals
        "980.000đ|1|0|0",
        "Rp1.500|1|0|0",
        "¥1,204|0|1|0",
        "1,204円|0|1|0",
        "-¥1,204|0|1|0",
        "¥-1,204|0|1|0",
        "1.204 Ft|1|0|0",
        // where it has some, nobody knows: fuel has three
        "€ 1.204|0|0|1",
        "1,459 €|0|0|1",
        "R$ 1.204|0|0|1",
        "$1,204|0|1|0",
        "$1.204|0|0|1",
        "Rs. 1,204|0|1|0",
        "1.204 m|0|0|1",
        "669,805 kg|0|0|1",
        "v1.204|0|0|0"
      })
  void numbersSpeakForASignOnlyIfTheyCan(String text, long comma, long point, long either) {
    Votes votes = Votes.ofNumber(text, 1);
    assertThat(votes).isEqualTo(new Votes(comma, point, either, 0, 0, 0));
  }

  @ParameterizedTest
  @CsvSource({"13,2,1,0,0", "2,13,0,1,0", "3,4,0,0,1", "5,5,0,0,0", "40,2,0,0,1"})
  void datesSpeakForAnOrderOnlyIfTheyCan(int first, int second, long day, long month, long either) {
    assertThat(Votes.ofDate(first, second, 1)).isEqualTo(new Votes(0, 0, 0, day, month, either));
  }

  @Test
  void theMajorityDecidesAndATieDoesNot() {
    Votes votes = new Votes(3, 1, 0, 0, 2, 5);
    assertThat(votes.decimal(".")).isEqualTo(",");
    assertThat(votes.dateOrder(DateOrder.DAY_MONTH_YEAR)).isEqualTo(DateOrder.MONTH_DAY_YEAR);
    assertThat(Votes.NONE.decimal(".")).isEqualTo(".");
    assertThat(votes.plus(new Votes(0, 2, 0, 2, 0, 0)).decimal(".")).isEqualTo(".");
    assertThat(votes.plus(new Votes(0, 0, 0, 2, 0, 0)).dateOrder(DateOrder.YEAR_MONTH_DAY))
        .isEqualTo(DateOrder.YEAR_MONTH_DAY);
  }
}
