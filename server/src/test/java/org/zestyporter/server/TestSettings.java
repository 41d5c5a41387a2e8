package org.zestyporter.server;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.springframework.util.unit.DataSize;

/** Settings for tests of single parts. */
public final class TestSettings {
  private TestSettings() {}

  public static Settings of(Path home) {
    return of(home, DataSize.ofMegabytes(1), DataSize.ofGigabytes(1));
  }

  public static Settings of(Path home, DataSize uploadLimit, DataSize dataLimit) {
    return new Settings(
        home,
        uploadLimit,
        dataLimit,
        List.of(home),
        List.of("localhost"),
        Duration.ofHours(24),
        Duration.ofSeconds(5),
        Duration.ofDays(365),
        DataSize.ofGigabytes(1),
        Duration.ofMinutes(1));
  }
}
