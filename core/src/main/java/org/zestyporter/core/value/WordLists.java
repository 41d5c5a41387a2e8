package org.zestyporter.core.value;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** The lists of words that stand beside this class. */
final class WordLists {
  private WordLists() {}

  /** The lines of a list, without blank ones and those that begin with {@code #}. */
  static List<String> lines(String name) {
    try (InputStream in = WordLists.class.getResourceAsStream(name);
        BufferedReader lines =
            new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8))) {
      return lines
          .lines()
          .map(String::strip)
          .filter(line -> !line.isEmpty() && !line.startsWith("#"))
          .toList();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
