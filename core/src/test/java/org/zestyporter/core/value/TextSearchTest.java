package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** A text is found in the values that show it, as if each of them had been written out. */
class TextSearchTest {
  private static final String[] TEXTS = {
    "Grey Heron",
    "GREY",
    "Gréy Hérôn",
    "Straße 12",
    "İzmir",
    "\u212Aelvin",
    "ΟΔΟΣ",
    "",
    "-0.50",
    "x",
    "ａ"
  };

  private static List<ValueColumn> columns(Random random) {
    List<ValueColumn> columns = new ArrayList<>();
    for (int scale = 0; scale < 5; scale++) {
      long[] numbers = new long[60];
      for (int i = 0; i < numbers.length; i++) {
        numbers[i] = random.nextInt(4) == 0 ? random.nextLong() / 3 : random.nextInt(3000) - 1000;
      }
      numbers[7] = ValueColumn.BLANK;
      columns.add(ValueColumn.numbers(numbers, scale, null));
    }
    Object[] texts = new Object[60];
    Object[] days = new Object[60];
    Object[] moments = new Object[60];
    Object[] mixed = new Object[60];
    for (int i = 0; i < 60; i++) {
      String text = TEXTS[random.nextInt(TEXTS.length)] + (i % 3 == 0 ? random.nextInt(50) : "");
      texts[i] = text.isEmpty() ? null : text;
      days[i] = LocalDate.of(i == 5 ? 12345 : 2026, 1, 1).plusDays(random.nextInt(500));
      moments[i] = LocalDateTime.of(2026, 1, 1, 8, 30).plusMinutes(random.nextInt(500_000));
      mixed[i] =
          switch (i % 4) {
            case 0 -> new BigDecimal("1E+3");
            case 1 -> LocalTime.of(10, 15);
            case 2 -> null;
            default -> text;
          };
    }
    for (Object[] values : List.of(texts, days, moments, mixed)) {
      columns.add(ValueColumn.of(values, null));
    }
    return columns;
  }

  @Test
  void isFoundWhereItIsShown() {
    Random random = new Random(7);
    List<String> sought = new ArrayList<>(List.of("grey", "GREY h", "ß", "i", "k", "σ", "ς", "0"));
    sought.addAll(
        List.of("-", ".", "0.5", "2026-0", "08:3", "t", "1000", "12345", "+", " ", "é", "00", "Ａ"));
    for (int i = 0; i < 30; i++) {
      sought.add(String.valueOf(random.nextInt(200)));
    }
    int found = 0;
    for (ValueColumn column : columns(random)) {
      for (String text : sought) {
        BitSet rows = new BitSet();
        new TextSearch(text).find(column, rows);
        for (int r = 0; r < column.rows(); r++) {
          String shown = Values.text(column.value(r));
          boolean holds = shown != null && small(shown).contains(small(text));
          assertThat(rows.get(r)).as("“%s” in “%s”", text, shown).isEqualTo(holds);
        }
        found += rows.cardinality();
      }
    }
    assertThat(found).isGreaterThan(500);
  }

  /** The two small letters that are one capital are one, and wide ones are what they stand for. */
  private static String small(String text) {
    return text.toLowerCase(Locale.ROOT).replace('ς', 'σ').replace('ａ', 'a');
  }

  /** A mark that only turns the direction of writing is looked for as such. */
  @Test
  void whatNobodySeesIsFoundNowhereElse() {
    TextSearch mark = new TextSearch("\u200F");
    BitSet rows = new BitSet();
    mark.find(ValueColumn.of(new Object[] {"a", "بله", null}, null), rows);
    assertThat(rows.isEmpty()).isTrue();
    assertThat(mark.isIn("a")).isFalse();
  }

  @Test
  void rowsThatShareAnEntryAreFoundTogether() {
    ValueColumn column = ValueColumn.numbers(new long[] {105, -7}, 2, new int[] {1, 0, 1, 0});
    BitSet rows = new BitSet();
    new TextSearch("0.07").find(column, rows);
    assertThat(rows.stream()).containsExactly(0, 2);
    new TextSearch("1.0").find(column, rows);
    assertThat(rows.cardinality()).isEqualTo(4);
  }
}
