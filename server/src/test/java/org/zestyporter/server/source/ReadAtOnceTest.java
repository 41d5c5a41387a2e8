package org.zestyporter.server.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalDateTime;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.server.Settings;
import org.zestyporter.server.TestSettings;
import org.zestyporter.server.store.Space;

/** One file that is asked for under several readings at a time. */
class ReadAtOnceTest {
  private static final int TIMES = 12;

  @TempDir Path home;

  /** Readings that differ in what is a record take the same cells out of a file, once. */
  @Test
  void readingsThatShareTheirCellsDoNotDisturbEachOther() throws IOException {
    Settings settings = TestSettings.of(home);
    SourceStore store = new SourceStore(settings, new Space(settings));
    SourceMapper mapper = mock();
    SourceService sources = new SourceService(mapper, store, mock(), Clock.systemUTC());
    StringBuilder text = new StringBuilder();
    IntStream.range(0, 3_000).forEach(i -> text.append("a").append(i).append(";b;c\n"));
    byte[] file = text.toString().getBytes(StandardCharsets.UTF_8);
    for (long id = 1; id <= TIMES; id++) {
      when(mapper.find(id))
          .thenReturn(
              new SourceRecord(
                  id, "a.csv", 3, "", 1, "[]", "o", LocalDateTime.of(2026, 11, 1, 9, 0), null));
      store.keep(id, new ByteArrayInputStream(file));
      long source = id;
      List<Long> rows =
          IntStream.rangeClosed(1, 4)
              .parallel()
              .mapToObj(line -> Reading.FIND.withTitleRows(List.of((long) line)))
              .map(reading -> sources.table(source, reading).rowCount())
              .toList();
      assertThat(rows).containsExactly(2_999L, 2_998L, 2_997L, 2_996L);
    }
  }
}
