package org.zestyporter.server.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.ArgumentMatchers.matches;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.server.Settings;
import org.zestyporter.server.TestSettings;
import org.zestyporter.server.store.Space;

/** One file that is asked for under several readings at a time. */
class ReadAtOnceTest {
  private static final int TIMES = 12;

  @TempDir Path home;

  private final SourceMapper mapper = mock();

  private SourceStore store() {
    Settings settings = TestSettings.of(home);
    return new SourceStore(settings, new Space(settings));
  }

  private SourceService service(SourceStore store) {
    return new SourceService(mapper, store, mock(), Clock.systemUTC());
  }

  private static SourceRecord record(long id, int rows) {
    return new SourceRecord(
        id, "a.csv", 3, "", rows, "[]", "o", LocalDateTime.of(2026, 11, 1, 9, 0), null);
  }

  private static ByteArrayInputStream file(String text) {
    return new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8));
  }

  /** Readings that differ in what is a record take the same cells out of a file, once. */
  @Test
  void readingsThatShareTheirCellsDoNotDisturbEachOther() throws IOException {
    SourceStore store = store();
    SourceService sources = service(store);
    StringBuilder text = new StringBuilder();
    IntStream.range(0, 3_000).forEach(i -> text.append("a").append(i).append(";b;c\n"));
    for (long id = 1; id <= TIMES; id++) {
      when(mapper.find(id)).thenReturn(record(id, 1));
      store.keep(id, file(text.toString()));
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

  /** Who brought it may have left, and the server may have been started again since. */
  @Test
  @Timeout(20)
  void fileThatNobodyAskedAfterIsReadToTheEnd() throws Exception {
    SourceStore store = store();
    store.keep(1, file("name;length\nPetrel;7\nTern;9\n"));
    store.keep(2, file("\u0000\u0001\u0002"));
    SourceService sources = service(store);
    List<SourceRecord> known = new ArrayList<>(List.of(record(1, -1), record(2, -1)));
    when(mapper.all()).thenAnswer(call -> List.copyOf(known));
    when(mapper.find(1)).thenAnswer(call -> known.get(0));
    doAnswer(call -> known.set(0, record(1, call.<Long>getArgument(1).intValue())))
        .when(mapper)
        .describe(eq(1L), anyLong(), matches(".*name.*length.*"));
    while (sources.all().get(0).state() == SourceService.State.READING) {
      Thread.sleep(20);
    }
    assertThat(sources.all()).extracting(SourceService.Source::rows).containsExactly(2L, -1L);
    // what can't be read is told to who asks
    assertThat(sources.all().get(1).state()).isEqualTo(SourceService.State.READING);
  }
}
