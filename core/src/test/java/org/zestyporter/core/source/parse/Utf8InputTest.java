package org.zestyporter.core.source.parse;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.source.reading.ReadProgress;

class Utf8InputTest {
  private static final int LENGTH = 150_000;

  @TempDir Path folder;

  private String read(byte[] bytes, String charset, Random random) throws IOException {
    Path file = folder.resolve("text");
    Files.write(file, bytes);
    ByteArrayOutputStream all = new ByteArrayOutputStream();
    byte[] into = new byte[70_000];
    try (Utf8Input in = new Utf8Input(file, Charset.forName(charset), new ReadProgress())) {
      while (true) {
        int from = random.nextInt(100);
        int length = random.nextInt(3) == 0 ? 8 + random.nextInt(60) : into.length - from;
        int n = in.read(into, from, length);
        if (n < 0) {
          return all.toString(StandardCharsets.UTF_8);
        }
        assertThat(n).isBetween(1, length);
        all.write(into, from, n);
      }
    }
  }

  /** Mostly plain letters, and runs of others. */
  private static String text(Random random, String others) {
    StringBuilder text = new StringBuilder();
    while (text.length() < LENGTH) {
      int count = random.nextInt(random.nextInt(20) == 0 ? 9_000 : 30);
      boolean plain = random.nextBoolean();
      for (int i = 0; i < count; i++) {
        text.appendCodePoint(
            plain
                ? ' ' + random.nextInt(90)
                : others.codePointAt(
                    others.offsetByCodePoints(
                        0, random.nextInt(others.codePointCount(0, others.length())))));
      }
    }
    return text.toString();
  }

  @ParameterizedTest
  @CsvSource({
    "UTF-8, äé€🚤語",
    "windows-1252, äéÖ€ß",
    "ISO-8859-2, łőč",
    "UTF-16LE, äé🚤語",
    "UTF-16BE, äé🚤語",
    "Shift_JIS, 語船ｱ",
    "ISO-2022-JP, 語船",
    "GB18030, 船€🚤",
    "EUC-KR, 배선",
  })
  void aTextIsTheSameInAnyEncoding(String charset, String others) throws IOException {
    for (int seed = 0; seed < 4; seed++) {
      Random random = new Random(seed);
      String text = text(random, others);
      assertThat(read(text.getBytes(charset), charset, random)).isEqualTo(text);
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"UTF-8", "US-ASCII", "windows-1252", "Shift_JIS"})
  void whatCantBeDecodedIsToldAsEver(String charset) throws IOException {
    for (int seed = 0; seed < 6; seed++) {
      Random random = new Random(seed);
      byte[] bytes = text(random, "äé€🚤語").getBytes(StandardCharsets.UTF_8);
      for (int i = 0; i < seed * seed * 40; i++) {
        bytes[random.nextInt(bytes.length)] = (byte) random.nextInt();
      }
      // no mark at the beginning, and perhaps half a character at the end
      bytes[0] = 'x';
      bytes[bytes.length - 1] = seed % 2 == 0 ? (byte) 0xE2 : (byte) 'y';
      assertThat(read(bytes, charset, random)).isEqualTo(new String(bytes, charset));
    }
  }

  @Test
  void aMarkIsNoText() throws IOException {
    byte[] marked = "\uFEFFBoat".getBytes(StandardCharsets.UTF_8);
    assertThat(read(marked, "UTF-8", new Random(1))).isEqualTo("Boat");
    assertThat(read(new byte[0], "UTF-8", new Random(1))).isEmpty();
  }

  @Test
  void stopsAreFoundWhereverTheyStand() {
    byte[][] wanted = {{',', (byte) 0xEF, '\\'}, {'\t', '"', '"'}, {(byte) 0xC2, 'x', ';'}};
    for (byte[] three : wanted) {
      ByteStops stops = new ByteStops(three[0], three[1], three[2]);
      Random random = new Random(3);
      for (int i = 0; i < 5_000; i++) {
        byte[] bytes = new byte[80];
        for (int at = 0; at < bytes.length; at++) {
          int kind = random.nextInt(25);
          bytes[at] = kind < 3 ? three[kind] : (byte) (kind < 10 ? random.nextInt() : 'a' + kind);
        }
        int from = random.nextInt(70);
        int to = from + random.nextInt(bytes.length - ByteStops.ROOM - from + 1);
        int first = from;
        while (first < to
            && bytes[first] != '\n'
            && bytes[first] != '\r'
            && bytes[first] != three[0]
            && bytes[first] != three[1]
            && bytes[first] != three[2]) {
          first++;
        }
        assertThat(stops.next(bytes, from, to)).isEqualTo(first);
      }
    }
  }
}
