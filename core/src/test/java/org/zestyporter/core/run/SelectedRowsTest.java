package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.source.Combinations;
import org.zestyporter.core.source.Correction;
import org.zestyporter.core.source.Rows;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.Cell;

/** What goes to a destination is counted as if its rows were read one by one. */
class SelectedRowsTest {
  private static final int ROWS = 9_000;

  @TempDir Path folder;

  private SourceTable file() throws IOException {
    Random random = new Random(11);
    StringBuilder text = new StringBuilder("Code;Kind;Tags;Pier\n");
    for (int i = 0; i < ROWS; i++) {
      text.append("C-").append(i).append(';').append("abc".charAt(random.nextInt(3))).append(';');
      int tags = random.nextInt(4);
      for (int t = 0; t < tags; t++) {
        text.append(t == 0 ? "" : ", ").append("tag ").append(random.nextInt(40));
      }
      text.append(';').append(random.nextInt(3) == 0 ? "" : random.nextInt(50)).append('\n');
    }
    Path file = folder.resolve("file.csv");
    Files.writeString(file, text);
    return SourceReader.open(file, folder.resolve("cells"), Reading.FIND);
  }

  private static Map<Cell, String> tallies(Rows rows, int column) {
    Map<Cell, String> all = new LinkedHashMap<>();
    rows.distinct(column).each((cell, count, line) -> all.put(cell, count + " from " + line));
    all.put(Cell.BLANK, String.valueOf(rows.distinct(column).blank()));
    return all;
  }

  private static Map<Cell, String> oneByOne(Rows rows, int column) {
    Map<Cell, long[]> counts = new LinkedHashMap<>();
    long blank = 0;
    for (int i = 0; i < rows.batches(); i++) {
      Batch batch = rows.batch(i);
      for (int r = 0; r < batch.rows(); r++) {
        Cell cell = batch.columns()[column].cell(r);
        long line = batch.lines()[r];
        blank += cell.isBlank() ? 1 : 0;
        if (!cell.isBlank()) {
          counts.computeIfAbsent(cell, c -> new long[] {0, line})[0]++;
        }
      }
    }
    Map<Cell, String> all = new LinkedHashMap<>();
    counts.forEach((cell, count) -> all.put(cell, count[0] + " from " + count[1]));
    all.put(Cell.BLANK, String.valueOf(blank));
    return all;
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      nullValues = "-",
      value = {
        "[Pier]<>\"\" | -",
        "[kind]=\"a\" | -",
        "- | ,",
        "AND([Kind]<>\"b\"; [Pier]<>\"\") | ,",
        "[Code]=\"no such\" | -"
      })
  void aColumnIsCountedAsItsRowsAre(String where, String at) throws IOException, SQLException {
    try (SourceTable file = file();
        Databases.Fresh on = Databases.h2()) {
      Destination destination =
          new Destination("boat", List.of(), List.of(), null)
              .withWhere(where)
              .withSplit(at == null ? null : new Destination.Split("Tags", List.of(at)));
      // a corrected cell counts as what it is read as
      Plan plan =
          new Plan("Boats", null, null, List.of(destination), null)
              .withCorrections(List.of(new Correction(2, "Kind", "c", "zz")));
      RunContext context = new RunContext("odile", LocalDateTime.MIN, "file.csv");
      OpenedPlan opened = new OpenedPlan(on.database(), file, plan, context, Shared.NONE);
      Rows rows = opened.rows(destination);
      long read = 0;
      for (int i = 0; i < rows.batches(); i++) {
        read += rows.batch(i).rows();
      }
      assertThat(rows.rowCount()).isEqualTo(read).isNotEqualTo(ROWS);
      for (int column = 0; column < rows.columns().size(); column++) {
        assertThat(tallies(rows, column))
            .as(rows.columns().get(column))
            .isEqualTo(oneByOne(rows, column));
      }
      Combinations both = rows.combinations(List.of(1, 3));
      assertThat(
              both.all().stream().mapToLong(Combinations.Combination::rows).sum() + both.beyond())
          .isEqualTo(read);
      assertThat(both.all()).allSatisfy(c -> assertThat(rows.batchOf(c.index())).isNotNegative());
    }
  }
}
