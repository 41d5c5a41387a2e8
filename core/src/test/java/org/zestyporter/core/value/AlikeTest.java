package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AlikeTest {
  private static final List<String> KINDS =
      List.of("cutter", "dinghy", "ketch", "motor", "narrowboat", "schooner", "sloop");

  @ParameterizedTest
  @CsvSource({
    "Ketch rig,ketch",
    "KETSCH,ketch",
    "schoner,schooner",
    "narrow boat,narrowboat",
    "Slööp,sloop"
  })
  void aWordIsFoundThoughItIsSpeltOtherwise(String word, String meant) {
    assertThat(Alike.ranked(word, KINDS, 3).get(0)).isEqualTo(meant);
    assertThat(Alike.isNear(word, meant)).isTrue();
  }

  @ParameterizedTest
  @CsvSource({"houseboat,sloop", "tbc,ketch", "motor,dinghy"})
  void whatIsFarOffIsNotNear(String word, String other) {
    assertThat(Alike.isNear(word, other)).isFalse();
  }
}
