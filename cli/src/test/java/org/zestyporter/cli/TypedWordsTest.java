package org.zestyporter.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What commands make of the words that are typed behind them. */
class TypedWordsTest extends CommandLineTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          look                                   | FILE is missing
          look a.csv b.csv                       | “b.csv” is one word too many
          look a.csv --sheets S                  | There is no option --sheets
          look a.csv --she S                     | There is no option --she
          look a.csv --sheet                     | After --sheet, S is missing
          look a.csv --sheet A --sheet B         | --sheet is said twice
          look a.csv --rows ten                  | “ten” is not a whole number
          rehearse plan.json                     | FILE is missing
          undo 2026-0001 --put-back --keep-edited| --put-back and --keep-edited exclude each other
          draft a.csv --link owner               | --link says FIELD=TABLE
          lok a.csv                              | There is no command “lok”
          --quiet                                | There is no command “--quiet”
          """)
  void whatIsTypedWronglyIsToldInOneLine(String typed, String told) {
    Ended ended = go((Object[]) typed.split(" "));
    assertThat(ended.code()).isEqualTo(2);
    assertThat(ended.err()).startsWith(told);
    assertThat(ended.err().strip()).contains("./porter ").contains("--help").doesNotContain("\n");
    assertThat(ended.out()).isEmpty();
  }

  @Test
  void wordsAreTakenAsTheyWereTyped() throws IOException {
    Path quoted = folder.resolve("\"b\".csv");
    Files.writeString(quoted, "name\nÅsa\n");
    assertThat(go("look", quoted, "--rows=-1").out()).startsWith("\"b\".csv: delimited, 1 rows");
    assertThat(go("look", "--rows", "1", "--json", quoted).json().path("rows")).hasSize(1);
    assertThat(go("look", file, "--sheet=--x").err()).contains("“--x”");
  }

  @Test
  void helpTellsWhatThereIs() {
    Ended all = go("--help");
    assertThat(all.code()).isZero();
    for (String command : List.of("demo", "serve", "look", "draft", "rehearse", "run", "undo")) {
      assertThat(all.out()).contains("./porter " + command);
      assertThat(go(command, "--help").out()).contains("./porter " + command, "--help");
    }
    assertThat(go("run", "-h").out()).contains("PLAN.json FILE [OPTIONS]", "--stop-after <N>");
    assertThat(go("--version").out()).startsWith("Zesty Porter ");
  }
}
