package org.zestyporter.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.PorterException;

/** The office's files with bytes changed, cut, repeated and moved are read, or refused in words. */
class MutatedFilesTest {
  private static final int TIMES = Integer.getInteger("porter.mutations", 25);

  @TempDir Path folder;

  @ParameterizedTest
  @ValueSource(
      strings = {
        "winter-arrivals.xlsx",
        "owners-export.csv",
        "meter-round-2026.xlsx",
        "tariffs-spring.ods",
        "contracts.tsv",
        "harbour-app.json"
      })
  void areReadOrRefused(String name) throws IOException {
    Marina marina = Marina.open();
    marina.officeFiles().write(folder);
    Path file = folder.resolve(name);
    if (name.startsWith("winter")) {
      marina.arrivals().writeWorkbook(file);
    }
    byte[] whole = Files.readAllBytes(file);
    Random random = new Random(name.hashCode());
    for (int i = 0; i < TIMES; i++) {
      byte[] mutated = mutated(whole, random);
      Files.write(folder.resolve("mutated"), mutated);
      String which = name + ", mutation " + i;
      assertTimeoutPreemptively(
          Duration.ofSeconds(20),
          () -> {
            Throwable thrown =
                catchThrowable(
                    () ->
                        SourceReader.open(
                                folder.resolve("mutated"), folder.resolve("cells"), Reading.FIND)
                            .close());
            if (thrown != null) {
              assertThat(thrown)
                  .as(which)
                  .isInstanceOf(PorterException.class)
                  .hasMessageMatching("(?s)\\p{Lu}.*\\.");
            }
          });
    }
    try (Stream<Path> left = Files.list(folder)) {
      assertThat(left.map(p -> p.getFileName().toString()).toList())
          .as("nothing half-written stays")
          .noneMatch(n -> n.endsWith(".partial") || n.endsWith(".unpacked"));
    }
  }

  private static byte[] mutated(byte[] whole, Random random) {
    byte[] bytes = whole.clone();
    for (int i = random.nextInt(3); i >= 0; i--) {
      int at = random.nextInt(bytes.length);
      int length = 1 + random.nextInt(Math.min(200, bytes.length));
      int end = Math.min(bytes.length, at + length);
      bytes =
          switch (random.nextInt(5)) {
            case 0 -> changed(bytes, at, (byte) random.nextInt(256));
            case 1 -> bytes.length < 40 ? bytes : Arrays.copyOf(bytes, Math.max(20, at));
            case 2 -> joined(bytes, end, bytes, at);
            case 3 -> joined(bytes, at, bytes, end);
            default -> changed(bytes, at, (byte) (bytes[at] ^ 1 << random.nextInt(8)));
          };
    }
    return bytes;
  }

  private static byte[] changed(byte[] bytes, int at, byte to) {
    byte[] changed = bytes.clone();
    changed[at] = to;
    return changed;
  }

  /** The beginning of one up to an index, and the other from an index on. */
  private static byte[] joined(byte[] one, int to, byte[] other, int from) {
    byte[] joined = Arrays.copyOf(one, to + other.length - from);
    System.arraycopy(other, from, joined, to, other.length - from);
    return joined.length == 0 ? one : joined;
  }
}
