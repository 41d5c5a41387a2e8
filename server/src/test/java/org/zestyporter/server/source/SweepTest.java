package org.zestyporter.server.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.server.Settings;
import org.zestyporter.server.TestSettings;
import org.zestyporter.server.store.Space;

class SweepTest {
  private static final Instant NOW = Instant.parse("2026-11-25T09:00:00Z");

  @TempDir Path home;

  @Test
  void whatWasCutOffAndWhatNobodyLooksAtGoes() throws IOException {
    Settings settings = TestSettings.of(home);
    SourceStore store = new SourceStore(settings, new Space(settings));
    SourceMapper mapper = mock();
    LocalDateTime then = LocalDateTime.of(2026, 11, 1, 9, 0);
    when(mapper.find(1)).thenReturn(new SourceRecord(1L, "a.csv", 3, "", 1, "[]", "o", then, null));
    when(mapper.find(2)).thenReturn(new SourceRecord(2L, "b.csv", 3, "", 1, "[]", "o", then, then));
    for (long id = 1; id <= 3; id++) {
      store.keep(id, new ByteArrayInputStream("a;b".getBytes()));
      Files.writeString(store.cache(id, "old"), "cells");
      Files.setLastModifiedTime(
          store.cache(id, "old"), FileTime.from(NOW.minus(Duration.ofDays(8))));
      Files.writeString(store.cache(id, "new"), "cells");
      Files.setLastModifiedTime(
          store.cache(id, "new"), FileTime.from(NOW.minus(Duration.ofDays(6))));
    }
    new SourceService(mapper, store, mock(), Clock.fixed(NOW, ZoneOffset.UTC)).sweep();
    assertThat(store.file(1)).exists();
    assertThat(store.cache(1, "old")).doesNotExist();
    assertThat(store.cache(1, "new")).exists();
    assertThat(store.file(2).getParent()).as("deleted, but for its name").doesNotExist();
    assertThat(store.file(3).getParent()).as("cut off").doesNotExist();
  }
}
