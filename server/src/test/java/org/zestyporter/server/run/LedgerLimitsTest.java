package org.zestyporter.server.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.util.unit.DataSize;
import org.zestyporter.server.Settings;

class LedgerLimitsTest {
  private static final Clock CLOCK =
      Clock.fixed(Instant.parse("2026-11-23T09:00:00Z"), ZoneOffset.UTC);

  private final RunMapper runs = mock();
  private final Settings settings = mock();
  private final LedgerLimits limits = new LedgerLimits(runs, settings, CLOCK);

  LedgerLimitsTest() {
    when(settings.keepLedgers()).thenReturn(Duration.ofDays(30));
    when(settings.ledgerLimit()).thenReturn(DataSize.ofBytes(100));
  }

  @Test
  void oldLedgersGoFirstThenTheOldestOfTooMany() {
    when(runs.ledgersBefore(LocalDateTime.of(2026, 10, 24, 9, 0))).thenReturn(List.of(1L));
    when(runs.ledgerSizes())
        .thenReturn(
            List.of(
                new RunMapper.LedgerSize(9, 60),
                new RunMapper.LedgerSize(7, 30),
                new RunMapper.LedgerSize(5, 30),
                new RunMapper.LedgerSize(4, 5)));
    limits.tidy();
    verify(runs).dropLedger(1);
    verify(runs).dropLedger(5);
    verify(runs).dropLedger(4);
    verify(runs, never()).dropLedger(9);
    verify(runs, never()).dropLedger(7);
  }

  @Test
  void theNewestStaysHoweverLarge() {
    when(runs.ledgersBefore(any())).thenReturn(List.of());
    when(runs.ledgerSizes()).thenReturn(List.of(new RunMapper.LedgerSize(9, 1_000)));
    limits.tidy();
    verify(runs, never()).dropLedger(anyLong());
  }

  @Test
  void onlyWhatIsDoneAndHasALedgerIsKeptForATime() {
    LocalDateTime end = LocalDateTime.of(2026, 11, 1, 8, 0);
    when(runs.destinationsUnder(3L, 1)).thenReturn(List.of(0));
    assertThat(limits.until(run(3, "run", "done", end))).isEqualTo(end.plusDays(30));
    assertThat(limits.until(run(4, "run", "done", end))).as("it has none").isNull();
    assertThat(limits.until(run(3, "run", "failed", end))).isNull();
    assertThat(limits.until(run(3, "rehearsal", "done", end))).isNull();
  }

  private static ExecutionRecord run(long id, String kind, String state, LocalDateTime end) {
    return new ExecutionRecord(
        id, kind, null, 1L, 1, 1L, null, state, "odile", end, end, null, null, null, null, null, 0,
        0, null, null, 1);
  }
}
