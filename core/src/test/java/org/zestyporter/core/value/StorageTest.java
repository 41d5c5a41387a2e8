package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** How fields keep values that a file writes in many ways. */
class StorageTest {
  private static final Storage SPAN = Storage.of(Storage.Kind.INTERVAL);
  private static final Storage WORDS = Storage.list(Storage.of(Storage.Kind.TEXT));
  private static final Storage NUMBERS = Storage.list(Storage.of(Storage.Kind.NUMBER));

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "P1Y2M3DT4H5M6.5S|1 year 2 mons 3 days 04:05:06.5",
        "P2W|14 days",
        "PT90M|01:30:00",
        "PT36H|36:00:00",
        "P-1DT2H|-1 days +02:00:00",
        "1 day 2:30|1 day 02:30:00",
        "2 Hours 30 minutes|02:30:00",
        "1.5 days|1 day 12:00:00",
        "25 months|2 years 1 mon",
        "-00:00:01.25|-00:00:01.25",
        "1 mon -1 days|1 mon -1 days",
        "0 days|00:00:00",
        "1 year 2 mons 3 days 04:05:06.5|1 year 2 mons 3 days 04:05:06.5",
      })
  void aLengthOfTimeIsKeptInOneForm(String given, String kept) {
    assertThat(SPAN.stored(given)).isEqualTo(kept);
    assertThat(SPAN.stored(kept)).as("twice").isEqualTo(kept);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "P",
        "soon",
        "3",
        "1.5 months",
        "1 day 2 moons",
        "P1X",
        "PT1Y",
        "1:2",
        "2026-03-31",
        "99999999999999 days",
        "1 day ago",
        "1:60:",
        "P1D2"
      })
  void whatIsNoLengthOfTimeIsAProblem(String given) {
    assertThat(SPAN.stored(given)).as(given).isInstanceOf(Problem.class);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "a; b ;c|{a,b,c}",
        "a, b|{a,b}",
        "a, b; c|`{\"a, b\",c}`",
        "one|{one}",
        "{}|{}",
        "[]|{}",
        "{\"x y\",NULL,\"null\",\"\"}|{\"x y\",NULL,\"null\",\"\"}",
        "[\"say \\\"so\\\"\", null, \"b\\\\c\"]|{\"say \\\"so\\\"\",NULL,\"b\\\\c\"}",
      })
  void aListIsKeptInOneForm(String given, String kept) {
    assertThat(WORDS.stored(given)).isEqualTo(kept);
    assertThat(WORDS.stored(kept)).as("twice").isEqualTo(kept);
  }

  @Test
  void theValuesOfAListAreOfItsType() {
    assertThat(NUMBERS.stored("7; 08; 1.50")).isEqualTo("{7,8,1.5}");
    assertThat(NUMBERS.same("{1.50,2}", "{1.5,2.00}")).isTrue();
    assertThat(NUMBERS.stored("7; x"))
        .isInstanceOfSatisfying(
            Problem.class, p -> assertThat(p.reason()).isEqualTo("“x” in it is no number"));
    for (String none : new String[] {"{a", "{{a},{b}}", "[1, [2]]", "{a}b", "[1"}) {
      assertThat(WORDS.stored(none)).as(none).isInstanceOf(Problem.class);
    }
  }
}
