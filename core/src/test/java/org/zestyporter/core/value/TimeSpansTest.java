package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Lengths of time, however people write them. */
class TimeSpansTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "P1Y2M3DT4H5M6.5S|1 year 2 mons 3 days 04:05:06.5",
        "2 days 03:30|2 days 03:30:00",
        "5 gün|5 days",
        "1 Tag|1 day",
        "3 Tage 2 Std.|3 days 02:00:00",
        "1,5 Stunden|01:30:00",
        "2 Jahre, 6 Monate|2 years 6 mons",
        "1 jour et 2 heures|1 day 02:00:00",
        "4 ANNI|4 years",
        "90 minuten|01:30:00",
        "3 semanas|21 days",
        "2 dni|2 days",
        "5 dní|5 days",
        "8 часов|08:00:00",
        "1 день|1 day",
        "7 ημέρες|7 days",
        "3 日|3 days",
        "2 hrs|02:00:00",
        "45 mins|00:45:00",
        "1 hour and 5 minutes|01:05:00",
        "-1 day|-1 days"
      })
  void wordsOfManyLanguagesAreRead(String text, String expected) {
    assertThat(TimeSpans.canonical(text)).isEqualTo(expected);
    assertThat(TimeSpans.canonical(TimeSpans.canonical(text))).isEqualTo(expected);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "P",
        "days",
        "5",
        "5 sloops",
        "1,000 days",
        "0.5 months",
        "1 day and",
        "2 days,,"
      })
  void whatIsNoLengthOfTimeIsNone(String text) {
    assertThat(TimeSpans.canonical(text)).isNull();
  }

  @Test
  void wordsForDifferentUnitsAreNotGuessed() {
    assertThat(TimeWords.unit("tag")).isEqualTo("day");
    assertThat(TimeWords.unit("m")).isNull();
  }
}
