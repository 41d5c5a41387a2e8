package org.zestyporter.core.fill;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;

class FillPoliciesTest {
  private static final FieldInfo CREW = FieldInfo.of("crew", FieldType.WHOLE);
  private static final Problem BAD = new Problem(ProblemCode.NOT_A_NUMBER, "x", "no number in it");

  private static Fill fill(Fill.WhenBlank blank, Fill.WhenBad bad, @Nullable String otherwise) {
    return Fill.of("crew", Origin.column("Crew"))
        .withWhenBlank(blank)
        .withWhenBad(bad)
        .withDefaultValue(otherwise);
  }

  private static String shown(Filled filled) {
    Problem problem = filled.problem();
    return filled.value()
        + (problem == null ? "" : " " + problem.code().word())
        + (filled.softened() ? " counted" : "")
        + (filled.question() ? " asked" : "")
        + (filled.rejects() ? " rejected" : "");
  }

  @ParameterizedTest
  @CsvSource({
    "LEAVE,,null",
    "DEFAULT,4,4 defaulted counted",
    "DEFAULT,many,null wrong-type rejected",
    "REJECT,,null required rejected"
  })
  void blanks(Fill.WhenBlank blank, String otherwise, String becomes) {
    FillPolicies policies = new FillPolicies(fill(blank, Fill.WhenBad.REJECT, otherwise), CREW);
    assertThat(shown(policies.settle(null, null))).isEqualTo(becomes);
  }

  @ParameterizedTest
  @CsvSource({
    "REJECT,,null not-a-number rejected",
    "ASK,,null not-a-number rejected",
    "BLANK,,null not-a-number counted",
    "DEFAULT,4,4 not-a-number counted"
  })
  void badValues(Fill.WhenBad bad, String otherwise, String becomes) {
    FillPolicies policies = new FillPolicies(fill(Fill.WhenBlank.LEAVE, bad, otherwise), CREW);
    assertThat(shown(policies.settle(BAD, null))).isEqualTo(becomes);
  }

  @Test
  void whatAStepCountedGoesOnWithTheValue() {
    Problem cut = new Problem(ProblemCode.CUT, "12345", "cut to 2 characters");
    FillPolicies policies =
        new FillPolicies(fill(Fill.WhenBlank.LEAVE, Fill.WhenBad.REJECT, null), CREW);
    assertThat(shown(policies.settle(new BigDecimal(12), cut))).isEqualTo("12 cut counted");
    assertThat(shown(policies.settle(null, cut))).isEqualTo("null cut counted");
  }

  @ParameterizedTest
  @CsvSource({
    "UNKNOWN_LINK,ASK,null unknown-link asked rejected",
    "UNKNOWN_LINK,BLANK,null unknown-link counted",
    "UNKNOWN_LINK,REJECT,null unknown-link rejected",
    "SEVERAL_LINKS,ASK,null several-links asked rejected",
    "SEVERAL_LINKS,BLANK,null several-links rejected"
  })
  void links(ProblemCode code, Origin.WhenMissing missing, String becomes) {
    Origin origin = Origin.linked("Crew", new Origin.Link("name", null, null, missing, null));
    FillPolicies policies = new FillPolicies(Fill.of("crew", origin), CREW);
    assertThat(shown(policies.settle(new Problem(code, "x", "why"), null))).isEqualTo(becomes);
  }
}
