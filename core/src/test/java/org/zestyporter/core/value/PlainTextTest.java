package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The quick ways give what the slow ones give. */
class PlainTextTest {
  private static String text(Random random, int mix) {
    int n = random.nextInt(1_000_000);
    return switch (random.nextInt(mix)) {
      case 0 -> String.valueOf(n);
      case 1 -> n + "." + random.nextInt(1000);
      case 2 -> "-" + n + "." + n % 97;
      case 3 -> String.format("%04d-%02d-%02d", 1900 + n % 200, 1 + n % 12, 1 + n % 28);
      case 4 -> "Storm sail fender " + n;
      case 5 -> "HF-" + n;
      case 6 -> n + "," + random.nextInt(1000);
      case 7 -> "0" + n;
      case 8 -> "lot " + n + " sail, checked";
      case 9 -> "Quillhaven";
      case 10 -> n % 29 + "." + (1 + n % 12) + "." + (1900 + n % 200);
      case 11 -> "yes";
      case 12 -> "-";
      case 13 -> " " + n;
      case 14 -> n % 24 + ":" + (10 + n % 50);
      case 15 -> "€ " + n;
      case 16 -> "Größe über alles " + n;
      case 17 -> "1E+1" + n % 10;
      case 18 ->
          List.of("kr-", "fr ", "Ft", "A", "x-", "e", "E-", "HF.", "lei ").get(n % 9) + n * 10L;
      case 19 ->
          List.of(
                      "keel sail ",
                      "Mio EUR ",
                      "kr 5 Mio ",
                      "Sept 12 ",
                      "Sept. 1, ",
                      "März é 3 ",
                      "(lots of ",
                      "Harbour  master at 5:30, ",
                      "Saturday September 12, ",
                      "Storm jib  and sail + ")
                  .get(n % 10)
              + n % 2_100;
      default -> "March of the " + n % 31 + " mariners 2026";
    };
  }

  private static ColumnProfile profile(List<String> texts, String decimal, boolean quick) {
    ColumnProfiler profiler =
        new ColumnProfiler(new LocaleSettings(decimal, DateOrder.DAY_MONTH_YEAR));
    for (int i = 0; i < texts.size(); i++) {
      if (quick) {
        byte[] bytes = ("x" + texts.get(i) + "y").getBytes(StandardCharsets.UTF_8);
        profiler.add(Cell.Kind.TEXT, bytes, 1, bytes.length - 1, 1 + i % 3, i + 2);
      } else {
        profiler.add(Cell.text(texts.get(i)), 1 + i % 3, i + 2);
      }
    }
    String votes = profiler.votes() + " " + profiler.dependsOnLocale();
    ColumnProfile made = profiler.profile(votes, "A", LocaleSettings.DEFAULT, new DistinctValues());
    return made;
  }

  @ParameterizedTest
  @CsvSource({
    "1,.", "2,.", "3,.", "4,.", "5,.", "6,.", "9,.", "13,.", "19,.", "21,.", "3,','", "7,','"
  })
  void aColumnIsJudgedAlikeBothWays(int mix, String decimal) {
    for (int seed = 0; seed < 8; seed++) {
      Random random = new Random(seed);
      List<String> texts = new ArrayList<>();
      for (int i = 0; i < 2_000; i++) {
        texts.add(text(random, mix));
      }
      assertThat(profile(texts, decimal, true)).isEqualTo(profile(texts, decimal, false));
    }
  }

  @Test
  void aColumnOfOneKindIsJudgedAlikeBothWays() {
    List<String> firsts =
        List.of("oar", "jan", "Mio", "mrd", "EUR", "mar", "the", "T", "kr", "Ft", "RM", "Sept");
    List<String> seconds =
        List.of(
            " cable ", " EUR ", " USD", " mai ", " of ", ". May ", "  oar ", "-", "-0", "", " ");
    for (String first : firsts) {
      for (String second : seconds) {
        List<String> texts = new ArrayList<>();
        for (int n = 0; n < 1_500; n++) {
          // some words first: a type is told quickly once it was met often enough
          texts.add(n < 60 ? "Harbour master " + n : first + second + (1_000_001 + n * 7L));
        }
        assertThat(profile(texts, ".", true)).isEqualTo(profile(texts, ".", false));
      }
    }
  }

  @Test
  void plainComparisonIsTheOtherOne() {
    Random random = new Random(5);
    List<Set<Comparison.Ignore>> all =
        List.of(
            Set.of(),
            Set.of(Comparison.Ignore.CASE),
            Set.of(Comparison.Ignore.SPACES, Comparison.Ignore.PUNCTUATION),
            Set.of(Comparison.Ignore.ACCENTS, Comparison.Ignore.CASE, Comparison.Ignore.SPACES));
    for (Set<Comparison.Ignore> ignored : all) {
      Comparison comparison = Comparison.ignoring(ignored);
      for (int i = 0; i < 3_000; i++) {
        String text = text(random, 19) + (i % 5 == 0 ? "~{x}|" : "");
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        Utf8 out = new Utf8(8);
        if (comparison.prepare(bytes, 0, bytes.length, out)) {
          assertThat(out.toString()).isEqualTo(comparison.prepare(text));
        } else {
          assertThat(out.size()).isZero();
        }
      }
    }
  }

  @Test
  void digitsAreWrittenAsEver() {
    Utf8 out = new Utf8(1);
    Random random = new Random(9);
    for (int i = 0; i < 2_000; i++) {
      long number = random.nextLong() >> random.nextInt(64);
      assertThat(out.clear().putDigits(number)).hasToString(Long.toString(number));
    }
    assertThat(out.clear().putDigits(Long.MIN_VALUE)).hasToString("-9223372036854775808");
    assertThat(out.clear().putDigits(0)).hasToString("0");
  }
}
