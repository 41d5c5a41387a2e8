package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** What was asked for last is kept, within its room. */
class KeptThingsTest {
  private final KeptThings<String, String> kept = new KeptThings<>(100);

  @Test
  void whatWasAskedForLongestAgoGoesFirst() {
    kept.keep("a", "Petrel", 40);
    kept.keep("b", "Tern", 40);
    assertThat(kept.get("a")).isEqualTo("Petrel");
    kept.keep("c", "Gannet", 40);
    assertThat(kept.all().keySet()).containsExactly("a", "c");
    assertThat(kept.get("b")).isNull();
    // the same in other words takes its place and no more
    kept.keep("c", "Fulmar", 60);
    assertThat(kept.all().keySet()).containsExactly("a", "c");
    assertThat(kept.get("c")).isEqualTo("Fulmar");
  }

  @Test
  void whatTakesMoreThanAllIsNotKept() {
    kept.keep("a", "Petrel", 40);
    kept.keep("b", "Tern", 101);
    assertThat(kept.all().keySet()).isEmpty();
    kept.keep("c", "Gannet", 100);
    assertThat(kept.get("c")).isEqualTo("Gannet");
  }

  @Test
  void someCanBeTakenAway() {
    kept.keep("a", "Petrel", 10);
    kept.keep("b", "Tern", 10);
    kept.removeIf(bird -> bird.startsWith("P"));
    assertThat(kept.all().keySet()).containsExactly("b");
  }
}
