package org.zestyporter.core.source.layout;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.value.Cell;

class TitleSeriesTest {

  private static List<Cell> cells(String titles) {
    return Arrays.stream(titles.split(" / ")).map(Cell::text).toList();
  }

  @ParameterizedTest
  @CsvSource({
    "Sep 26 / Oct 26 / Jan 27,Month",
    "September / October / November,Month",
    "Nov / Dec / Jan,Month",
    "2026-09 / 2026-10 / 2026-11,Month",
    "März 2026 / April 2026 / Mai 2026,Month",
    "2024 / 2025 / 2026,Year",
    "2024/25 / 2025/26 / 2026/27,Year",
    "2009/10 / 2010/11 / 2011/12,Year",
    "Q1 / Q2 / Q4,Quarter",
    "KW 1 / KW 2 / KW 3,Week",
    "01.09.2026 / 08.09.2026 / 15.09.2026,Date",
    "Reading 1 / Reading 2 / Reading 10,Reading"
  })
  void titlesThatGoOnAreASeries(String titles, String kind) {
    assertThat(TitleSeries.rises(cells(titles))).isTrue();
    assertThat(TitleSeries.of(cells(titles).get(0)).kind()).isEqualTo(kind);
  }

  @ParameterizedTest
  @CsvSource({
    "Oct 26 / Sep 26",
    "Sep 26 / Sep 26",
    "Sep 26 / 2027",
    "Sep 26 / Total",
    "Reading 1 / Meter 2",
    "Name / Kind",
    "Marina / Mole"
  })
  void othersAreNone(String titles) {
    assertThat(TitleSeries.rises(cells(titles))).isFalse();
  }
}
