package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.Seeds;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.PorterException;
import tools.jackson.databind.JsonNode;

/** Every nasty file is read as it should be, or refused in one sentence; so are mutations of it. */
class NastyFilesTest {
  private static final int MUTATIONS = 40 * Seeds.MORE;
  private static final int LARGEST_MUTATED = 60_000;

  @TempDir Path folder;

  static List<NastyFiles.Nasty> all() {
    return NastyFiles.all();
  }

  static Stream<NastyFiles.Nasty> mutated() {
    return NastyFiles.all().stream().filter(n -> n.bytes().length < LARGEST_MUTATED);
  }

  private SourceTable open(byte[] bytes) throws IOException {
    Path file = Files.write(folder.resolve("file"), bytes);
    return SourceReader.open(file, folder.resolve("cache"), Reading.FIND);
  }

  @ParameterizedTest
  @MethodSource("all")
  void isReadAsItShouldBe(NastyFiles.Nasty nasty) throws IOException {
    if (nasty.refusal() != null) {
      Throwable refused = catchThrowable(() -> open(nasty.bytes()).close());
      assertThat(refused).isInstanceOf(PorterException.class).hasMessageMatching("\\p{Lu}.*\\.");
      assertThat(((PorterException) refused).code().word()).isEqualTo(nasty.refusal());
      return;
    }
    try (SourceTable table = open(nasty.bytes())) {
      JsonNode reading = PlanJson.MAPPER.valueToTree(table.reading());
      nasty
          .reading()
          .forEach(
              (key, value) ->
                  assertThat(reading.get(key))
                      .as(key)
                      .isEqualTo((JsonNode) PlanJson.MAPPER.valueToTree(value)));
      assertThat(table.columns()).startsWith(nasty.columns().toArray(String[]::new));
      assertThat(table.rowCount()).isEqualTo(nasty.rows());
      for (int row = 0; row < nasty.cells().size(); row++) {
        assertThat(row(table, row)).as("row " + row).isEqualTo(nasty.cells().get(row));
      }
    }
  }

  static Stream<NastyFiles.Nasty> read() {
    return NastyFiles.all().stream().filter(n -> n.refusal() == null);
  }

  @ParameterizedTest
  @MethodSource("read")
  void whatWasForgottenIsFoundOutAgain(NastyFiles.Nasty nasty) throws IOException {
    Path file = Files.write(folder.resolve("file"), nasty.bytes());
    List<Object> told;
    Reading reading;
    try (SourceTable table = SourceReader.open(file, folder.resolve("first"), Reading.FIND)) {
      told = told(table);
      table.forget();
      assertThat(told(table)).isEqualTo(told);
      reading = table.reading();
    }
    try (SourceTable table = SourceReader.open(file, folder.resolve("second"), Reading.FIND)) {
      table.forget();
      assertThat(told(table)).isEqualTo(told);
    }
    try (SourceTable table = SourceReader.open(file, folder.resolve("third"), reading)) {
      List<Object> known = told(table);
      table.forget();
      assertThat(told(table)).isEqualTo(known);
    }
  }

  private static List<Object> told(SourceTable table) {
    List<Object> told = new ArrayList<>();
    for (int c = 0; c < table.columns().size(); c++) {
      table
          .distinct(c)
          .each((cell, rows, line) -> told.add(cell + ", " + rows + " rows from " + line));
    }
    told.addAll(table.profiles());
    for (int row = 0; row < Math.min(table.rowCount(), 40); row++) {
      told.add(row(table, row));
    }
    told.addAll(table.ambiguities());
    told.addAll(table.warnings());
    told.addAll(table.evidence());
    return told;
  }

  private static String row(SourceTable table, int row) {
    Batch batch = table.batch(table.batchOf(row));
    return Arrays.stream(batch.columns())
        .map(c -> c.cell((int) (row - batch.firstRow())).text())
        .collect(Collectors.joining("|"));
  }

  /** Mutated files are read or refused; nothing hangs, and no error but a refusal comes out. */
  @ParameterizedTest
  @MethodSource("mutated")
  void mutationsAreReadOrRefused(NastyFiles.Nasty nasty) {
    Random random = new Random(nasty.name().hashCode() * 31L + Long.parseLong(Seeds.SEED));
    for (int i = 0; i < MUTATIONS; i++) {
      byte[] bytes = mutate(nasty.bytes(), random);
      assertTimeoutPreemptively(
          Duration.ofSeconds(20),
          () -> {
            Throwable thrown = catchThrowable(() -> open(bytes).close());
            if (thrown != null) {
              assertThat(thrown)
                  .isInstanceOf(PorterException.class)
                  .hasMessageMatching("\\p{Lu}.*\\.");
            }
          });
    }
  }

  private static byte[] mutate(byte[] bytes, Random random) {
    byte[] mutated = bytes.clone();
    int times = 1 + random.nextInt(4);
    for (int i = 0; i < times && mutated.length > 0; i++) {
      int at = random.nextInt(mutated.length);
      switch (random.nextInt(5)) {
        case 0 -> mutated[at] = (byte) random.nextInt(256);
        case 1 -> mutated[at] ^= (byte) (1 << random.nextInt(8));
        case 2 -> mutated = Arrays.copyOf(mutated, at);
        case 3 -> mutated = repeated(mutated, at, 1 + random.nextInt(40));
        default -> mutated[at] = ";,\t|\"'\n\r\u0000<>{}[]".getBytes()[random.nextInt(15)];
      }
    }
    return mutated;
  }

  private static byte[] repeated(byte[] bytes, int at, int length) {
    int end = Math.min(bytes.length, at + length);
    byte[] longer = Arrays.copyOf(bytes, bytes.length + end - at);
    System.arraycopy(bytes, at, longer, end, bytes.length - at);
    return longer;
  }
}
