package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SourceFormat;

/** The first rows of large files, and how far they are read. */
class PeekTest {
  @TempDir Path folder;

  private Path large() throws IOException {
    StringBuilder content = new StringBuilder("n;name\n");
    for (int i = 0; i < 200_000; i++) {
      content.append(i).append(";Boat ").append(i % 900).append('\n');
    }
    return Files.writeString(folder.resolve("large.csv"), content);
  }

  @Test
  void onlyTheFirstRowsAreRead() throws IOException {
    Path cache = folder.resolve("cache");
    try (SourceTable table = SourceReader.peek(large(), cache, Reading.FIND, 100)) {
      assertThat(table.columns()).containsExactly("n", "name");
      assertThat(table.rowCount()).isEqualTo(99);
    }
    assertThat(Files.size(cache)).isLessThan(10_000);
  }

  @Test
  void packedFilesShowTheirFirstRowsToo() throws IOException {
    Path packed = folder.resolve("large.csv.gz");
    Files.write(packed, Sheets.gzip(Files.readAllBytes(large())));
    try (SourceTable table =
        SourceReader.peek(packed, folder.resolve("cache"), Reading.FIND, 100)) {
      assertThat(table.rowCount()).isEqualTo(99);
    }
    try (var left = Files.list(folder)) {
      assertThat(left).noneMatch(f -> f.toString().endsWith(".unpacked"));
    }
  }

  @Test
  void progressCountsBytesAndRows() throws IOException {
    Path file = large();
    ReadProgress progress = new ReadProgress();
    SourceReader.parse(file, folder.resolve("cache"), Reading.FIND, progress);
    assertThat(progress.bytes()).isEqualTo(Files.size(file));
    assertThat(progress.totalBytes()).isEqualTo(Files.size(file));
    assertThat(progress.rows()).isEqualTo(200_001);
  }

  @Test
  void readingThatIsStoppedLeavesNothing() throws IOException {
    Path file = large();
    ReadProgress progress = new ReadProgress();
    progress.stop();
    Path cache = folder.resolve("cache");
    assertThatThrownBy(() -> SourceReader.parse(file, cache, Reading.FIND, progress))
        .isInstanceOf(CancellationException.class);
    assertThat(cache).doesNotExist();
  }

  @Test
  void textIsShownBeforeItIsParted() throws IOException {
    Path file = Files.writeString(folder.resolve("fixed.txt"), "Reg  Feet\nQH-1   28\n");
    Reading fixed = Reading.FIND.with(b -> b.format(SourceFormat.FIXED).encoding("UTF-8"));
    assertThat(SourceReader.text(file, fixed, 5)).containsExactly("Reg  Feet", "QH-1   28");
  }
}
