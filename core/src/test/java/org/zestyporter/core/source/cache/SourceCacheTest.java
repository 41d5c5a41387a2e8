package org.zestyporter.core.source.cache;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.channels.ClosedChannelException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.value.Cell;

/** What goes into the cache comes out again, to the cell. */
class SourceCacheTest {
  @TempDir Path folder;

  private Path write(List<List<Cell>> rows, long step) throws IOException {
    Path file = folder.resolve("cells");
    try (CacheWriter writer = new CacheWriter(file, new ReadProgress(), true, CellSigns.ANY)) {
      long line = 1;
      for (List<Cell> row : rows) {
        put(writer, line, row);
        line += step;
      }
      writer.finish();
    }
    return file;
  }

  private static void put(CacheWriter writer, long line, List<Cell> row) throws IOException {
    for (int c = 0; c < row.size(); c++) {
      Cell cell = row.get(c);
      if (cell.kind() == Cell.Kind.TEXT) {
        byte[] text = cell.text().getBytes(StandardCharsets.UTF_8);
        writer.text(c, text, 0, text.length, true);
      } else {
        writer.cell(c, cell);
      }
    }
    writer.endRow(line);
  }

  private static List<List<Cell>> random(int count, long seed) {
    Random random = new Random(seed);
    Cell.Kind[] kinds = {Cell.Kind.TEXT, Cell.Kind.NUMBER, Cell.Kind.BOOLEAN, Cell.Kind.ERROR};
    List<List<Cell>> rows = new ArrayList<>();
    for (int r = 0; r < count; r++) {
      List<Cell> row = new ArrayList<>();
      int width = random.nextInt(6);
      for (int c = 0; c < width; c++) {
        // the first column has many distinct values, the others few
        String text = c == 0 ? "v" + random.nextInt() : "é🚤" + random.nextInt(9);
        Cell.Kind kind = kinds[random.nextInt(kinds.length)];
        row.add(random.nextInt(4) == 0 ? Cell.BLANK : new Cell(kind, text));
      }
      rows.add(row);
    }
    return rows;
  }

  @Test
  void everyCellComesBack() throws IOException {
    List<List<Cell>> rows = random(SourceCache.CHUNK_ROWS * 2 + 17, 5);
    try (SourceCache cache = SourceCache.open(write(rows, 1))) {
      assertThat(cache.rows()).isEqualTo(rows.size());
      assertThat(cache.chunks()).isEqualTo(3);
      assertThat(cache.width()).isEqualTo(5);
      for (int r = 0; r < rows.size(); r++) {
        int chunk = r / SourceCache.CHUNK_ROWS;
        int at = r - (int) cache.firstRow(chunk);
        for (int c = 0; c < 6; c++) {
          Cell expected = c < rows.get(r).size() ? rows.get(r).get(c) : Cell.BLANK;
          assertThat(cache.column(chunk, c).cell(at)).isEqualTo(expected);
        }
      }
    }
  }

  @Test
  void linesMayHaveGapsAndAreFound() throws IOException {
    List<List<Cell>> rows = random(SourceCache.CHUNK_ROWS + 10, 6);
    try (SourceCache cache = SourceCache.open(write(rows, 3))) {
      assertThat(cache.lines(0)).startsWith(1, 4, 7);
      long firstOfSecond = 1 + 3L * SourceCache.CHUNK_ROWS;
      assertThat(cache.lines(1)).startsWith(firstOfSecond);
      assertThat(cache.chunkOfLine(1)).isZero();
      assertThat(cache.chunkOfLine(firstOfSecond - 1)).isEqualTo(1);
      assertThat(cache.chunkOfLine(cache.lastLine())).isEqualTo(1);
      assertThat(cache.chunkOfLine(cache.lastLine() + 1)).isEqualTo(2);
    }
  }

  @Test
  void cellsThatHardlyRepeatComeBackToo() throws IOException {
    Path file = folder.resolve("many");
    try (CacheWriter writer = new CacheWriter(file, new ReadProgress(), false, CellSigns.ANY)) {
      for (int row = 0; row < 3_000; row++) {
        // at first each is another one, then some come again, with blanks between
        writer.cell(0, Cell.text(row % 11 == 10 ? "" : "Größe " + (row < 2_000 ? row : row % 50)));
        writer.cell(1, new Cell(row % 2 == 0 ? Cell.Kind.NUMBER : Cell.Kind.TEXT, "" + row));
        writer.endRow(row + 1);
      }
      writer.finish();
    }
    try (SourceCache cache = SourceCache.open(file)) {
      for (int row = 0; row < 3_000; row++) {
        String text = row % 11 == 10 ? "" : "Größe " + (row < 2_000 ? row : row % 50);
        assertThat(cache.column(0, 0).cell(row)).isEqualTo(Cell.text(text));
        assertThat(cache.column(0, 1).cell(row).kind())
            .isEqualTo(row % 2 == 0 ? Cell.Kind.NUMBER : Cell.Kind.TEXT);
      }
    }
  }

  @Test
  void tellsWithoutReadingWhatAColumnMayHold() throws IOException {
    List<List<Cell>> rows = new ArrayList<>();
    for (int i = 0; i < SourceCache.CHUNK_ROWS + 100; i++) {
      boolean first = i < SourceCache.CHUNK_ROWS;
      rows.add(
          List.of(
              Cell.text("b" + i),
              Cell.text(i == 70 ? "" : i == 80 ? "  Total" : "7" + i % 5),
              Cell.text(i == SourceCache.CHUNK_ROWS + 9 ? "n/a" : " x"),
              first ? Cell.BLANK : new Cell(Cell.Kind.NUMBER, "1")));
    }
    Path file = folder.resolve("signs");
    try (CacheWriter writer =
        new CacheWriter(
            file,
            new ReadProgress(),
            true,
            (kind, bytes, from, to) ->
                bytes[from] == 'T'
                    ? CellSigns.TOTAL
                    : bytes[from] == 'n' ? CellSigns.BLANK_WORD : 0)) {
      for (int i = 0; i < rows.size(); i++) {
        put(writer, i + 1, rows.get(i));
      }
      writer.finish();
    }
    try (SourceCache cache = SourceCache.open(file)) {
      assertThat(cache.chunks()).isEqualTo(2);
      assertThat(cache.width(1)).isEqualTo(4);
      for (int chunk = 0; chunk < 2; chunk++) {
        assertThat(cache.isFull(chunk, 0)).isTrue();
        assertThat(cache.mayBegin(chunk, 0, 'b')).isTrue();
        assertThat(cache.mayBegin(chunk, 0, 'B')).isTrue();
        assertThat(cache.mayBegin(chunk, 0, 't')).isFalse();
        assertThat(cache.isFull(chunk, 1)).isEqualTo(chunk == 1);
        assertThat(cache.mayHold(chunk, 1, CellSigns.TOTAL)).isEqualTo(chunk == 0);
        assertThat(cache.mayBegin(chunk, 1, 't')).isEqualTo(chunk == 0);
        assertThat(cache.mayHold(chunk, 2, CellSigns.BLANK_WORD)).isEqualTo(chunk == 1);
        // what begins with a space might be blank
        assertThat(cache.isFull(chunk, 2)).isFalse();
        assertThat(cache.isFull(chunk, 3)).isEqualTo(chunk == 1);
        assertThat(cache.mayBegin(chunk, 3, '1')).isEqualTo(chunk == 1);
      }
    }
  }

  @Test
  void equalCellsAreKeptOnceInAChunk() throws IOException {
    List<List<Cell>> rows = new ArrayList<>();
    for (int i = 0; i < 1000; i++) {
      rows.add(List.of(Cell.text(i % 3 == 0 ? "sloop" : "ketch")));
    }
    try (SourceCache cache = SourceCache.open(write(rows, 1))) {
      assertThat(cache.column(0, 0).distinct()).hasSize(3);
      assertThat(Files.size(folder.resolve("cells"))).isLessThan(1500);
    }
  }

  @Test
  void threadThatIsInterruptedTakesTheFileFromNobody() throws Exception {
    List<List<Cell>> rows =
        IntStream.range(0, SourceCache.CHUNK_ROWS * 3)
            .mapToObj(i -> List.of(Cell.text("row " + i)))
            .toList();
    try (SourceCache cache = SourceCache.openOnce(write(rows, 3))) {
      CompletableFuture<Void> other =
          CompletableFuture.runAsync(() -> IntStream.range(0, 600).forEach(i -> read(cache, i)));
      for (int i = 0; i < 300; i++) {
        Thread.currentThread().interrupt();
        assertThat(read(cache, i)).isEqualTo(rows.get(i % 3 * SourceCache.CHUNK_ROWS).get(0));
        assertThat(Thread.interrupted()).isTrue();
      }
      other.get();
      read(cache, 1);
    }
  }

  /** Reads a chunk again, since only what was read last is kept. */
  private static Cell read(SourceCache cache, int i) {
    assertThat(cache.lines(i % 3)).hasSize(SourceCache.CHUNK_ROWS);
    return cache.column(i % 3, 0).cell(0);
  }

  @Test
  void closedFileIsNotOpenedAgain() throws IOException {
    SourceCache cache = SourceCache.openOnce(write(random(100, 9), 3));
    cache.close();
    assertThatThrownBy(() -> cache.column(0, 0)).hasCauseInstanceOf(ClosedChannelException.class);
  }

  @Test
  void whatWasNotFinishedLeavesNothingBehind() throws IOException {
    Path file = folder.resolve("cells");
    try (CacheWriter writer = new CacheWriter(file, new ReadProgress(), true, CellSigns.ANY)) {
      put(writer, 1, List.of(Cell.text("a")));
    }
    try (var left = Files.list(folder)) {
      assertThat(left).isEmpty();
    }
  }

  @Test
  void cacheThatIsCutShortIsNoticed() throws IOException {
    Path file = write(random(100, 7), 1);
    byte[] whole = Files.readAllBytes(file);
    Files.write(file, java.util.Arrays.copyOf(whole, 20));
    assertThatThrownBy(() -> SourceCache.open(file)).isInstanceOf(Exception.class);
  }

  @Test
  void emptyFileIsAnEmptyCache() throws IOException {
    try (SourceCache cache = SourceCache.open(write(List.of(), 1))) {
      assertThat(cache.rows()).isZero();
      assertThat(cache.lastLine()).isZero();
      assertThat(cache.width()).isZero();
    }
  }
}
