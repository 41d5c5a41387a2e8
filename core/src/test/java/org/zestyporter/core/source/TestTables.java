package org.zestyporter.core.source;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.reading.Reading;

/** Opens files for tests and closes them again. */
public abstract class TestTables {
  @TempDir Path folder;
  private final List<SourceTable> open = new ArrayList<>();

  @AfterEach
  void closeAll() {
    open.forEach(SourceTable::close);
  }

  SourceTable text(String content) throws IOException {
    return text(content, Reading.FIND);
  }

  SourceTable text(String content, Reading reading) throws IOException {
    return bytes(content.getBytes(StandardCharsets.UTF_8), reading);
  }

  SourceTable bytes(byte[] content) throws IOException {
    return bytes(content, Reading.FIND);
  }

  SourceTable bytes(byte[] content, Reading reading) throws IOException {
    Path file = Files.write(folder.resolve("file" + open.size()), content);
    SourceTable table = SourceReader.open(file, folder.resolve("cache" + open.size()), reading);
    open.add(table);
    return table;
  }

  /** All records, cells parted by {@code |}. */
  public static List<String> rows(SourceTable table) {
    List<String> rows = new ArrayList<>();
    for (int b = 0; b < table.batches(); b++) {
      Batch batch = table.batch(b);
      for (int r = 0; r < batch.rows(); r++) {
        int row = r;
        rows.add(
            Arrays.stream(batch.columns())
                .map(c -> c.cell(row).text())
                .collect(Collectors.joining("|")));
      }
    }
    return rows;
  }

  static List<Long> lines(SourceTable table) {
    List<Long> lines = new ArrayList<>();
    for (int b = 0; b < table.batches(); b++) {
      Arrays.stream(table.batch(b).lines()).forEach(lines::add);
    }
    return lines;
  }
}
