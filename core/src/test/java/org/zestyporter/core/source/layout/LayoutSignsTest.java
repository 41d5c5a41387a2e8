package org.zestyporter.core.source.layout;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.source.cache.CellSigns;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ColumnProfiler;

/** What is told of a cell from its bytes is what is told of it by who reads it. */
class LayoutSignsTest {
  private static final List<String> WORDS =
      List.of(
          "Total",
          "totals:",
          "Grand total",
          "Subtotal",
          "sub-total",
          "SUM",
          "Somme",
          "Gesamt",
          "Zwischensumme",
          "Suma",
          "Totaal 2026",
          "Tote",
          "Summer",
          "gesandt",
          "zwar",
          "Great",
          "Toplam",
          "TOPLAM:",
          "Ara toplam",
          "Razem",
          "Celkem",
          "Součet",
          "Итого",
          "ВСЕГО",
          "Разом",
          "Σύνολο",
          "合計",
          "小计",
          "합계",
          "iš viso",
          "Összesen",
          "Ötödik",
          "Ива",
          "tonne",
          "n/a",
          "N/A",
          "n. a.",
          "#N/A",
          "#NV",
          "null",
          "(null)",
          "(blank)",
          "nil",
          "k. A.",
          "o.A.",
          "n.v.t.",
          "s/d",
          "-",
          "--",
          "–",
          "— ",
          "na",
          "none",
          "NaN",
          "??",
          ".",
          "no",
          "north",
          "sloop",
          "Kai 7",
          "#12",
          "......",
          "5",
          "",
          "Ärger",
          "…",
          "sum of all that was ever sold");

  private static final String[] AROUND = {"", " ", "   ", "\t", "\u00a0", "\u3000", "\n", "x"};

  @Test
  void signsAreThoseOfTheText() {
    List<String> texts = new ArrayList<>();
    for (String word : WORDS) {
      for (String before : AROUND) {
        for (String after : AROUND) {
          texts.add(before + word + after);
          texts.add(before + word.toUpperCase(java.util.Locale.ROOT) + after);
        }
      }
    }
    Random random = new Random(11);
    String letters = "tTgGsSzZnNaA/-#.?okvd( )ul \u2013é";
    for (int i = 0; i < 40_000; i++) {
      StringBuilder text = new StringBuilder();
      for (int left = random.nextInt(12); left > 0; left--) {
        text.append(letters.charAt(random.nextInt(letters.length())));
      }
      texts.add(text.toString());
    }
    int totals = 0;
    int blanks = 0;
    for (String text : texts) {
      byte[] bytes = ("x" + text).getBytes(StandardCharsets.UTF_8);
      int from = 1;
      while (from < bytes.length && bytes[from] == ' ') {
        from++;
      }
      if (from == bytes.length) {
        continue;
      }
      int signs = new LayoutSigns().of(Cell.Kind.TEXT, bytes, from, bytes.length);
      boolean total = TotalWords.begins(text);
      boolean blank = ColumnProfiler.isBlankWord(Cell.text(text));
      assertThat((signs & CellSigns.TOTAL) != 0).as("total: <%s>", text).isEqualTo(total);
      assertThat((signs & CellSigns.BLANK_WORD) != 0).as("blank: <%s>", text).isEqualTo(blank);
      assertThat(new LayoutSigns().of(Cell.Kind.NUMBER, bytes, from, bytes.length)).isZero();
      totals += total ? 1 : 0;
      blanks += blank ? 1 : 0;
    }
    assertThat(totals).isGreaterThan(200);
    assertThat(List.of("ΣΥΝΟΛΟ", "Σύνολο:", "ΓΕΝΙΚΟ ΣΥΝΟΛΟ")).allMatch(TotalWords::begins);
    assertThat(blanks).isGreaterThan(500);
  }
}
