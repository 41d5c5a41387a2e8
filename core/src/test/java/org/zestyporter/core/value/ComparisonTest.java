package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.EnumSet;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.value.Comparison.Ignore;

class ComparisonTest {

  @Test
  void exactUnlessSaidOtherwise() {
    Comparison exact = Comparison.ignoring(Set.of());
    assertThat(exact.prepare("QH-0566")).isNotEqualTo(exact.prepare("qh-0566"));
    assertThat(exact.prepare(null)).isNull();
  }

  @Test
  void ignoresWhatItIsTold() {
    Comparison loose =
        Comparison.ignoring(EnumSet.of(Ignore.CASE, Ignore.SPACES, Ignore.PUNCTUATION));
    assertThat(loose.prepare("qh 0566")).isEqualTo("qh0566").isEqualTo(loose.prepare("QH-0566"));
    assertThat(loose.prepare("Éric")).isNotEqualTo(loose.prepare("Eric"));
    assertThat(Comparison.ignoring(Set.of(Ignore.ACCENTS)).prepare("Éric")).isEqualTo("Eric");
    assertThat(Comparison.ignoring(Set.of(Ignore.ACCENTS)).prepare("Łódź")).isEqualTo("Lodz");
    assertThat(Comparison.ignoring(Set.of(Ignore.LEADING_ZEROS)).prepare("M-0042 007"))
        .isEqualTo("M-42 7");
  }

  /**
   * The same word from an Arabic and a Persian keyboard, parted by what nobody sees, lengthened.
   */
  @Test
  void lettersThatLookTheSameAreTheSame() {
    Comparison usual = Comparison.ignoring(EnumSet.of(Ignore.CASE, Ignore.SPACES));
    assertThat(usual.prepare("\u0639\u0644\u064A"))
        .isEqualTo(usual.prepare("\u0639\u0644\u06CC"))
        .isEqualTo(usual.prepare("\u0639\u0640\u0644\u0649"));
    assertThat(usual.prepare("\u0643\u0627\u0638\u0645 \u0632\u0627\u062F\u0647"))
        .isEqualTo(usual.prepare("\u06A9\u0627\u0638\u0645\u200C\u0632\u0627\u062F\u0647"));
    assertThat(Comparison.ignoring(Set.of()).prepare("\u064A"))
        .isNotEqualTo(Comparison.ignoring(Set.of()).prepare("\u06CC"));
  }

  @Test
  void numbersCompareByValue() {
    Comparison exact = Comparison.ignoring(Set.of());
    assertThat(exact.prepare(new BigDecimal("12.50")))
        .isEqualTo(exact.prepare(new BigDecimal("12.5")));
    assertThat(exact.prepare(new BigDecimal("100"))).isEqualTo("100");
  }

  @Test
  void otherAlphabetsAreLetters() {
    Comparison loose = Comparison.ignoring(EnumSet.of(Ignore.CASE, Ignore.PUNCTUATION));
    assertThat(loose.prepare("ЯХТА-1")).isEqualTo("яхта1");
    assertThat(loose.prepare("海豚")).isEqualTo("海豚");
  }

  /** Rāma and Ramā, glass and a surname: vowels and voiced sounds are written as marks. */
  @Test
  void marksThatAreNoAccentsTellWordsApart() {
    Comparison loosest = Comparison.ignoring(EnumSet.allOf(Ignore.class));
    assertThat(loosest.prepare("राम")).isNotEqualTo(loosest.prepare("रमा"));
    assertThat(loosest.prepare("ガラス")).isNotEqualTo(loosest.prepare("カラス"));
    assertThat(loosest.prepare("ชื่อ (1)")).isEqualTo(loosest.prepare("ชื่อ1"));
  }
}
