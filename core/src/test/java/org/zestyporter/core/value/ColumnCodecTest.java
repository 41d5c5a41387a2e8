package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class ColumnCodecTest {
  @Test
  void textsThatDifferInTheirNumbersTakeLittleMoreThanTheNumbers() {
    Random random = new Random(3);
    List<String> things = List.of("keel", "mast", "brass lamp");
    String[] texts = new String[2_000];
    Arrays.setAll(
        texts,
        i -> "lot %07d %s".formatted(random.nextInt(1 << 20), things.get(i % things.size())));
    // 20 bits a number, and a byte for the shape
    assertThat(bytes(ValueColumn.of(texts, null)).length).isLessThan(2_000 * 4);
    assertThat(back(ValueColumn.of(texts, null))).containsExactly((Object[]) texts);

    Arrays.setAll(texts, i -> "INV-2026-%05d".formatted(i + 1));
    assertThat(back(ValueColumn.of(texts, null))).containsExactly((Object[]) texts);
  }

  @Test
  void anyTextsComeBack() {
    Random random = new Random(11);
    List<String> pieces =
        List.of(
            "0",
            "00",
            "7",
            "007",
            "1234567890123456789012345678901234567890",
            "٣٤",
            "é",
            "舟",
            "-",
            " ",
            "",
            "A",
            "000000000000000000000",
            "9",
            "\t");
    for (int round = 0; round < 300; round++) {
      int parts = 1 + random.nextInt(round % 3 == 0 ? 24 : 4);
      int kinds = 1 + random.nextInt(5);
      int[][] shapes =
          IntStream.range(0, kinds)
              .mapToObj(k -> random.ints(parts, 0, pieces.size()).toArray())
              .toArray(int[][]::new);
      Object[] texts = new Object[1 + random.nextInt(60)];
      for (int i = 0; i < texts.length; i++) {
        StringBuilder text = new StringBuilder();
        for (int piece : shapes[random.nextInt(kinds)]) {
          text.append(
              random.nextInt(4) == 0 ? String.valueOf(random.nextInt(100_000)) : pieces.get(piece));
        }
        texts[i] = random.nextInt(9) == 0 ? null : text.toString();
      }
      int[] codes = random.nextBoolean() ? null : random.ints(150, 0, texts.length).toArray();
      ValueColumn column = ValueColumn.of(texts, codes);
      assertThat(back(column)).as("round %d", round).isEqualTo(values(column));
    }
  }

  @Test
  void bytesThatAreNoTextComeBackAsTheyWere() {
    byte[] odd = {'a', '1', (byte) 0xFF, 0};
    int rows = 12;
    Utf8 bytes = new Utf8(64);
    int[] starts = new int[rows];
    int[] ends = new int[rows];
    for (int i = 0; i < rows; i++) {
      starts[i] = bytes.size();
      ends[i] = i == 0 ? bytes.put(odd, 0, odd.length).size() : bytes.put("a" + i).size();
    }
    ValueColumn column = ValueColumn.texts(bytes.array(), starts, ends, null);
    ValueColumn read = ColumnCodec.read(new ColumnCodec.Input(bytes(column)), rows);
    Utf8 text = new Utf8(8);
    read.text(0, text);
    assertThat(Arrays.copyOf(text.array(), text.size())).containsExactly(odd);
  }

  @Test
  void whatWasWrittenBeforeNumbersWereTakenOutIsRead() {
    assertThat(back("230a00010000000e000e0c00514d2d30303031514d2d30303032c39842203137", 5))
        .containsExactly("QM-0001", null, "QM-0002", "ØB 17", "");
    assertThat(back("1304020261620002020000", 5)).containsExactly("a", "b", "b", "a", "a");
  }

  private static byte[] bytes(ValueColumn column) {
    Utf8 out = new Utf8(8);
    ColumnCodec.write(column, out);
    return Arrays.copyOf(out.array(), out.size());
  }

  private static List<Object> back(ValueColumn column) {
    return values(ColumnCodec.read(new ColumnCodec.Input(bytes(column)), column.rows()));
  }

  private static List<Object> back(String hex, int rows) {
    return values(ColumnCodec.read(new ColumnCodec.Input(HexFormat.of().parseHex(hex)), rows));
  }

  private static List<Object> values(ValueColumn column) {
    return Arrays.asList(IntStream.range(0, column.rows()).mapToObj(column::value).toArray());
  }
}
