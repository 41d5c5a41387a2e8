package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class ColumnProfilerTest {
  private static final LocaleSettings COMMA = new LocaleSettings(",", DateOrder.DAY_MONTH_YEAR);

  private static DistinctValues values(String... texts) {
    DistinctValues values = new DistinctValues();
    for (int i = 0; i < texts.length; i++) {
      values.add(Cell.text(texts[i]), 1, i + 2);
    }
    return values;
  }

  private static ColumnProfiler profiler(DistinctValues values) {
    ColumnProfiler profiler = new ColumnProfiler(COMMA);
    values.tallies().forEach((cell, tally) -> profiler.add(cell, tally.rows(), tally.line()));
    return profiler;
  }

  private static ColumnProfile profile(DistinctValues values) {
    return profiler(values).profile("c", "A", COMMA, values);
  }

  private static ColumnProfile profile(String... texts) {
    return profile(values(texts));
  }

  @Test
  void codesWithLeadingZerosStayText() {
    assertThat(profile("0042", "0007", "1234").type()).isEqualTo(ValueType.TEXT);
    assertThat(profile("42", "7", "1234").type()).isEqualTo(ValueType.WHOLE);
    assertThat(profile("0,5", "7", "1234").type()).isEqualTo(ValueType.DECIMAL);
  }

  @Test
  void oneCodeWithAZeroBeforeItMakesAllOfThemText() {
    String[] codes =
        IntStream.rangeClosed(999, 1_050)
            .mapToObj(i -> String.format("%04d", i))
            .toArray(String[]::new);
    assertThat(profile(codes).type()).as("0999 is one of 52").isEqualTo(ValueType.TEXT);
  }

  @Test
  void momentsMayHaveAZoneAndNumbersAPowerOfTen() {
    assertThat(profile("2024-03-05T12:00:00Z", "2024-07-05 08:30:00+02:00").type())
        .isEqualTo(ValueType.DATETIME);
    assertThat(profile("9,5e-4", "1,5E+3", "-€5,00", "5,").type()).isEqualTo(ValueType.DECIMAL);
    assertThat(profile("1E5", "2E7", "3A1").type()).as("may be codes").isEqualTo(ValueType.TEXT);
  }

  @Test
  void aWordForTheYearMayStandBehindDays() {
    assertThat(profile("31.10.1980 г.", "1.2.1981г.").type()).isEqualTo(ValueType.DATE);
    assertThat(profile("31.10.1980 r.", "1.2.1981 r.").type()).isEqualTo(ValueType.DATE);
    assertThat(profile("31.10.1980 x", "1.2.1981 x").type()).isEqualTo(ValueType.TEXT);
  }

  @Test
  void aTenthMayBeOddAndIsListed() {
    String[] texts =
        IntStream.range(0, 20).mapToObj(i -> i == 0 ? "tbc" : i + ",5").toArray(String[]::new);
    ColumnProfile profile = profile(texts);
    assertThat(profile.type()).isEqualTo(ValueType.DECIMAL);
    assertThat(profile.misfits()).extracting(ColumnProfile.ValueCount::text).containsExactly("tbc");
    assertThat(profile.misfits().get(0).line()).isEqualTo(2);
    assertThat(profile.least()).isEqualTo("1.5");
    assertThat(profile.greatest()).isEqualTo("19.5");
  }

  @Test
  void threeOddOnesInTenMakeItText() {
    assertThat(profile("1", "2", "3", "4", "5", "6", "7", "a", "b", "c").type())
        .isEqualTo(ValueType.TEXT);
  }

  @Test
  void dayAndMonthThatCannotBeToldAreAmbiguous() {
    assertThat(profile("01/02/2026", "03/04/2026").ambiguous()).isTrue();
    assertThat(profile("01/02/2026", "13/04/2026").ambiguous()).isFalse();
    assertThat(profiler(values("04/13/2026", "04/05/2026")).votes())
        .isEqualTo(new Votes(0, 0, 0, 0, 1, 1));
  }

  @Test
  void thousandsDoNotVoteForADecimalSign() {
    assertThat(profiler(values("1.204", "8,75", "12.5")).votes())
        .isEqualTo(new Votes(1, 1, 1, 0, 0, 0));
  }

  @Test
  void blankCellsAreCountedAndNothingElse() {
    DistinctValues values = new DistinctValues();
    values.add(Cell.BLANK, 5, 2);
    values.add(Cell.text("   "), 2, 9);
    ColumnProfile profile = profile(values);
    assertThat(profile.type()).isEqualTo(ValueType.EMPTY);
    assertThat(profile.blank()).isEqualTo(7);
    assertThat(profile.distinct()).isZero();
  }

  @Test
  void memoryStaysBoundedAndSaysSo() {
    DistinctValues values = new DistinctValues();
    for (int i = 0; i < DistinctValues.LIMIT + 10; i++) {
      values.add(Cell.text("v" + i), 1, i);
    }
    assertThat(values.tallies()).hasSize(DistinctValues.LIMIT);
    assertThat(values.beyond()).isEqualTo(10);
    assertThat(profile(values).distinctCapped()).isTrue();
  }

  @Test
  void amountsOfYenAndWonTellThatACommaPartsThousands() {
    assertThat(Votes.ofNumber("￥5,000", 3)).isEqualTo(new Votes(0, 3, 0, 0, 0, 0));
    assertThat(Votes.ofNumber("5,000円", 1)).isEqualTo(new Votes(0, 1, 0, 0, 0, 0));
    assertThat(Votes.ofNumber("１２，０００", 1)).isEqualTo(new Votes(0, 0, 1, 0, 0, 0));
    assertThat(Votes.ofNumber("$5,000", 1)).isEqualTo(new Votes(0, 1, 0, 0, 0, 0));
  }

  @Test
  void numbersWithSpacesBetweenThousandsTellTheirDecimalSign() {
    Votes comma = new Votes(1, 0, 0, 0, 0, 0);
    assertThat(Votes.ofNumber("45 678,12", 1)).isEqualTo(comma);
    assertThat(Votes.ofNumber("1\u00A0234\u00A0567,5 zł", 1)).isEqualTo(comma);
    assertThat(Votes.ofNumber("1’204.50", 1)).isEqualTo(new Votes(0, 1, 0, 0, 0, 0));
    assertThat(Votes.ofNumber("45 678,123", 1)).isEqualTo(Votes.NONE);
    assertThat(Votes.ofNumber("45 67,12", 1)).isEqualTo(Votes.NONE);
  }
}
