package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.Cell;

class CombinationsTest {
  @TempDir Path folder;

  private SourceTable file(String text) throws IOException {
    Path file = folder.resolve("a.csv");
    Files.writeString(file, text);
    return SourceReader.open(file, folder.resolve("cells"), Reading.FIND);
  }

  @Test
  void everyCombinationIsCountedOverAllBatches() throws IOException {
    StringBuilder text = new StringBuilder("Kind;Berth;Note\n");
    Map<List<String>, Long> expected = new HashMap<>();
    for (int i = 0; i < 30_000; i++) {
      String kind = "kind " + i % 7;
      String berth = i % 5 == 0 ? "" : "B-" + i % 11;
      text.append(kind).append(';').append(berth).append(";note ").append(i).append('\n');
      expected.merge(List.of(kind, berth), 1L, Long::sum);
    }
    try (SourceTable table = file(text.toString())) {
      assertThat(table.batches()).isGreaterThan(1);
      Combinations found = table.combinations(List.of(0, 1));
      Map<List<String>, Long> counted = new HashMap<>();
      for (Combinations.Combination c : found.all()) {
        counted.put(c.cells().stream().map(Cell::text).toList(), c.rows());
      }
      assertThat(counted).isEqualTo(expected);
      assertThat(found.beyond()).isZero();
      assertThat(found.all().get(0).line()).isEqualTo(2);
      assertThat(found.all().get(0).index()).isZero();
      assertThat(table.combinations(List.of(0, 1))).as("asked once").isSameAs(found);
    }
  }

  @Test
  void pastALimitTheyAreOnlyCounted() throws IOException {
    StringBuilder text = new StringBuilder("No;Twice\n");
    int rows = Combinations.LIMIT + 500;
    for (int i = 0; i < rows; i++) {
      text.append(i).append(';').append(i % 2).append('\n');
    }
    try (SourceTable table = file(text.toString())) {
      Combinations found = table.combinations(List.of(0, 1));
      assertThat(found.all()).hasSize(Combinations.LIMIT);
      assertThat(found.beyond()).isEqualTo(500);
    }
  }
}
