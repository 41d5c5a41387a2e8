package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class ErrorCodeTest {
  private static final Pattern WORD = Pattern.compile("\\b[A-Z]+(?:_[A-Z]+)*\\b");

  @ParameterizedTest
  @EnumSource
  void whatCanBeDoneIsAWholeSentence(ErrorCode code) {
    if (!code.remedy().isEmpty()) {
      assertThat(code.remedy()).matches("\\p{Lu}.*\\.");
      assertThat(code.error("It is empty.")).hasMessage("It is empty. " + code.remedy());
    }
    assertThat(code.error("It is empty.", "Fill it.")).hasMessage("It is empty. Fill it.");
  }

  /** A word that nobody says any more would stay in the vocabulary for ever. */
  @Test
  void everyCodeIsUsed() throws IOException {
    Set<String> said = new HashSet<>();
    for (String module : List.of("core", "server", "cli")) {
      try (Stream<Path> files = Files.walk(Path.of("..", module, "src", "main", "java"))) {
        for (Path file : files.filter(f -> f.toString().endsWith(".java")).toList()) {
          if (!file.endsWith("ErrorCode.java")) {
            WORD.matcher(Files.readString(file))
                .results()
                .map(MatchResult::group)
                .forEach(said::add);
          }
        }
      }
    }
    Set<ErrorCode> unused = EnumSet.allOf(ErrorCode.class);
    unused.removeIf(code -> said.contains(code.name()));
    assertThat(unused).isEmpty();
  }
}
