package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.source.reading.Reading;

/** Numbers with one sign and three figures behind it, among others of one size. */
class SignBySizeTest {
  @TempDir Path folder;

  /**
   * @param price an amount that says how the rest of the file is written
   * @param least of the numbers that leave nothing open
   * @param open how the others are written
   * @param unit behind them
   * @param decimal how the column is read
   */
  @ParameterizedTest
  @CsvSource({
    // beside kilograms from 100 to 900, 669,805 kg is no 669805
    "2.50, 100, ',', ' kg', ','",
    "2.50, 100, ',', '', ','",
    // nor is 1.204 among thousands anything but a thousand
    "2.50, 1000, '.', '', ','",
    "'2,50', 1000, ',', ' kg', .",
    // as the rest of the file is
    "2.50, 1000, ',', ' kg', .",
    "2.50, 100, '.', '', .",
    "'2,50', 100, ',', '', ','",
    // half-way between both: the file tells
    "2.50, 30000, ',', '', .",
    "'2,50', 30000, '.', '', ','"
  })
  void aColumnIsReadAsItsSizesTell(
      String price, int least, String open, String unit, String decimal) throws IOException {
    Random random = new Random(7);
    List<String> lines = new ArrayList<>(List.of("Price;Weight"));
    for (int i = 0; i < 200; i++) {
      int whole = least + random.nextInt(least * 8);
      int size = least >= 1000 ? 1 + random.nextInt(8) : whole;
      String said =
          String.format(Locale.ROOT, "%d%s%d%s", size, open, 100 + random.nextInt(900), unit);
      lines.add(price + ";" + (i % 10 == 0 ? said : String.valueOf(whole)));
    }
    Path file = folder.resolve("weights.csv");
    Files.write(file, lines);
    try (SourceTable source = SourceReader.open(file, folder.resolve("cells"), Reading.FIND)) {
      assertThat(source.locale(1).decimal()).isEqualTo(decimal);
      boolean isOther = !decimal.equals(price.contains(",") ? "," : ".");
      assertThat(source.warnings().stream().anyMatch(w -> w.code() == WarningCode.OTHER_DECIMAL))
          .as("it is said at Read")
          .isEqualTo(isOther);
    }
  }
}
