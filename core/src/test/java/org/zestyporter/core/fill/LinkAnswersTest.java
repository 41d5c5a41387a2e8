package org.zestyporter.core.fill;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;

class LinkAnswersTest {
  private final LinkAnswers answers = new LinkAnswers(Objects::equals);

  @Test
  void knowsWhatWasAskedForAndWhatWasFound() {
    answers.ask(List.of("ada", "bo"));
    answers.find("bo", BigDecimal.valueOf(7));
    assertThat(answers.isAsked("ada")).isTrue();
    assertThat(answers.isAsked("bo")).isTrue();
    assertThat(answers.isAsked("cy")).isFalse();
    assertThat(answers.key("bo")).isEqualTo(BigDecimal.valueOf(7));
    assertThat(answers.key("ada")).isNull();
    assertThat(answers.key("cy")).isNull();
    assertThat(answers.size()).isEqualTo(1);
  }

  @Test
  void findsWhatNobodyHasAskedFor() {
    answers.find("ada", BigDecimal.ONE);
    assertThat(answers.isAsked("ada")).isFalse();
    assertThat(answers.key("ada")).isEqualTo(BigDecimal.ONE);
  }

  @Test
  void keepsKeysOfAnyKindAsTheyAre() {
    List<Object> keys =
        List.of(
            new BigDecimal("-9223372036854775808"),
            new BigDecimal("9223372036854775808"),
            new BigDecimal("18.50"),
            new BigDecimal("1E+3"),
            BigDecimal.ZERO,
            "SLP",
            new java.util.UUID(3, 5));
    for (int i = 0; i < keys.size(); i++) {
      answers.find("n" + i, keys.get(i));
    }
    for (int i = 0; i < keys.size(); i++) {
      assertThat(answers.key("n" + i)).isEqualTo(keys.get(i));
    }
  }

  @Test
  void saysOfSeveralRecordsThatTheyAreSeveral() {
    answers.find("ada", BigDecimal.ONE);
    answers.find("ada", BigDecimal.ONE);
    assertThat(answers.key("ada")).isEqualTo(BigDecimal.ONE);
    answers.find("ada", BigDecimal.TEN);
    assertThat(answers.key("ada")).isSameAs(LinkAnswers.SEVERAL);
    answers.find("ada", BigDecimal.TEN);
    assertThat(answers.key("ada")).isSameAs(LinkAnswers.SEVERAL);
    assertThat(answers.size()).isEqualTo(1);
  }
}
