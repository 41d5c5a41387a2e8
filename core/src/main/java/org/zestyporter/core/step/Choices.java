package org.zestyporter.core.step;

import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Texts;

/** Lists of words that a person writes with | between them. */
final class Choices {
  private Choices() {}

  /** The words in the form in which {@link #prepare} brings what is looked up among them. */
  static Set<String> of(@Nullable String list) {
    return list == null
        ? Set.of()
        : Stream.of(list.split("\\|")).map(Choices::prepare).collect(Collectors.toSet());
  }

  static String prepare(String word) {
    return Texts.small(Texts.trim(word));
  }
}
