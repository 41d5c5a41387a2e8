package org.zestyporter.core.application.jdbc;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CheckRuleTest {

  @ParameterizedTest
  @ValueSource(strings = {"(\"status\" IN('afloat', 'ashore'))", "`status` in ('afloat','ashore')"})
  void listsAreChoices(String clause) {
    assertThat(CheckRule.parse(clause))
        .isEqualTo(new CheckRule("status", List.of("afloat", "ashore"), null, null));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "\"length_m\" BETWEEN 2 AND 60",
        "(\"length_m\" >= 2) AND (\"length_m\" <= 60)",
        "CHECK ((length_m BETWEEN CAST(2 AS NUMERIC) AND 60))",
        "60 >= length_m AND `length_m` >= '2'"
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

  /** As PostgreSQL writes them. */
  @Test
  void castsAndArraysGo() {
    assertThat(
            SqlText.ofPostgres(
                "CHECK (((status)::text = ANY ((ARRAY['a::text'::character varying,"
                    + " 'b'::character varying])::text[])))"))
        .isEqualTo("(status) IN ('a::text', 'b')");
    assertThat(SqlText.ofPostgres("CHECK ((v = ANY (ARRAY[3, 4, 5])))"))
        .isEqualTo("v IN (3, 4, 5)");
    assertThat(SqlText.ofPostgres("CHECK (((name)::text ~~ 'QH%'::text))"))
        .isEqualTo("(name) LIKE 'QH%'");
    assertThat(SqlText.ofPostgres("CHECK (((v >= '-90'::integer) AND (v <= 90)))"))
        .isEqualTo("(v >= '-90') AND (v <= 90)");
    assertThat(CheckRule.parse("(v >= '-90') AND (v <= 90)").least()).isEqualByComparingTo("-90");
  }

  @Test
  void oneSideIsEnough() {
    assertThat(CheckRule.parse("CHECK ((kwh >= 0))").greatest()).isNull();
  }
}
