package org.zestyporter.core.application.jdbc;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CheckRuleTest {

  @ParameterizedTest
  @ValueSource(
      strings = {
        "(\"status\" IN('afloat', 'ashore'))",
        "CHECK (((status)::text = ANY ((ARRAY['afloat'::character varying, 'ashore'::character varying])::text[])))",
        "`status` in ('afloat','ashore')"
      })
  void listsAreChoices(String clause) {
    assertThat(CheckRule.parse(clause))
        .isEqualTo(new CheckRule("status", List.of("afloat", "ashore"), null, null));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "\"length_m\" BETWEEN 2 AND 60",
        "(\"length_m\" >= 2) AND (\"length_m\" <= 60)",
        "CHECK (((length_m >= (2)::numeric) AND (length_m <= (60)::numeric)))"
      })
  void boundsAreARange(String clause) {
    CheckRule rule = CheckRule.parse(clause);
    assertThat(rule.field()).isEqualTo("length_m");
    assertThat(rule.least()).isEqualByComparingTo("2");
    assertThat(rule.greatest()).isEqualByComparingTo("60");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "insured_until >= arrived_on",
        "(a >= 2) AND (b <= 3)",
        "(a >= 2) OR (a <= -2)",
        "LENGTH(name) >= 3",
        "name LIKE 'QH%'"
      })
  void othersAreLeftToTheDatabase(String clause) {
    assertThat(CheckRule.parse(clause)).isNull();
  }

  @Test
  void oneSideIsEnough() {
    assertThat(CheckRule.parse("CHECK ((kwh >= 0))").greatest()).isNull();
  }
}
