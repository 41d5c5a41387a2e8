package org.zestyporter.core.fill;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.plan.Phrasebook.Phrase;

class PhrasesTest {
  private static final Phrases PHRASES =
      new Phrases(
          List.of(
              new Phrasebook(
                  "Kinds", List.of(new Phrase("Kétch  Rig", "ketch"), new Phrase("none", null)))));

  @Test
  void wordsAreFoundWhateverTheirCapitalsSpacesAndAccents() {
    assertThat(PHRASES.find("Kinds", "KETCH RIG")).contains("ketch");
    assertThat(PHRASES.find("Kinds", "yawl")).isNull();
  }

  @Test
  void aWordMayMeanBlank() {
    assertThat(PHRASES.find("Kinds", "None")).isEqualTo(Optional.empty());
  }

  @Test
  void booksThatAreNotThereKnowNothing() {
    assertThat(PHRASES.has("Owners")).isFalse();
    assertThat(PHRASES.find("Owners", "ketch")).isNull();
  }
}
