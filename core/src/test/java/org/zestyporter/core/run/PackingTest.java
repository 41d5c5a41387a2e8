package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PackingTest {
  private static byte[] random(int length) {
    byte[] bytes = new byte[length];
    new Random(length).nextBytes(bytes);
    return bytes;
  }

  private static byte[] repeated(int length) {
    byte[] word = "the same words ".getBytes(StandardCharsets.UTF_8);
    byte[] bytes = new byte[length];
    for (int i = 0; i < length; i++) {
      bytes[i] = word[i % word.length];
    }
    return bytes;
  }

  @ParameterizedTest
  @ValueSource(ints = {0, 1, 5, 4_096, 1_000_000})
  void comesBackAsItWas(int length) {
    for (byte[] bytes : new byte[][] {random(length), repeated(length)}) {
      byte[] packed = Packing.pack(Arrays.copyOf(bytes, length + 9), length);
      byte[] behindOthers = new byte[packed.length + 3];
      System.arraycopy(packed, 0, behindOthers, 3, packed.length);
      assertThat(Packing.unpack(behindOthers, 3, length)).isEqualTo(bytes);
    }
  }

  @Test
  void whatRepeatsItselfIsPackedThoroughlyAndWhatDoesNotIsNotTriedTwice() {
    assertThat(Packing.pack(repeated(100_000), 100_000)).startsWith(1).hasSizeLessThan(1_000);
    assertThat(Packing.pack(random(100_000), 100_000)).startsWith(0).hasSizeLessThan(101_000);
  }

  @Test
  void whatIsCutShortOrDamagedIsRefused() {
    for (byte[] bytes : new byte[][] {random(10_000), repeated(10_000)}) {
      byte[] packed = Packing.pack(bytes, bytes.length);
      byte[] cut = Arrays.copyOf(packed, packed.length / 2);
      assertThatThrownBy(() -> Packing.unpack(cut, 0, bytes.length))
          .isInstanceOf(UncheckedIOException.class)
          .hasMessageContaining("the ledger is");
    }
    byte[] damaged = Packing.pack(repeated(10_000), 10_000);
    Arrays.fill(damaged, 1, 9, (byte) 0xFF);
    assertThatThrownBy(() -> Packing.unpack(damaged, 0, 10_000))
        .isInstanceOf(UncheckedIOException.class)
        .hasMessageContaining("damaged");
  }
}
