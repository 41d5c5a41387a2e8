package org.zestyporter.core.value;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** The lists of words that stand beside the classes that use them. */
public final class WordLists {
  private WordLists() {}

  /** The lines of a list beside a class, without blank ones and those that begin with {@code #}. */
  public static List<String> lines(Class<?> user, String name) {
    try (InputStream in = user.getResourceAsStream(name);
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
