package org.zestyporter.server.run;

import java.time.Clock;
import java.time.LocalDateTime;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.zestyporter.server.Settings;
import org.zestyporter.server.web.Times;

/** Keeps the ledgers of runs as long, and as many of them, as the settings say. */
@Component
public class LedgerLimits {
  private static final long FIRST_MILLIS = 60_000;
  private static final long HOUR_MILLIS = 3_600_000;

  private final RunMapper runs;
  private final Settings settings;
  private final Clock clock;

  LedgerLimits(RunMapper runs, Settings settings, Clock clock) {
    this.runs = runs;
    this.settings = settings;
    this.clock = clock;
  }

  /** When the ledger of an execution goes, and its undo with it; null if it is not done. */
  @Nullable LocalDateTime until(ExecutionRecord run) {
    boolean keeps = !run.kind().equals(RunService.REHEARSAL) && run.hasWritten();
    return !keeps || run.finishedAt() == null || runs.destinationsUnder(run.id(), 1).isEmpty()
        ? null
        : run.finishedAt().plus(settings.keepLedgers());
  }

  /** Lets go of what is older than the settings say, then of the oldest of what is too much. */
  @Scheduled(initialDelay = FIRST_MILLIS, fixedDelay = HOUR_MILLIS)
  public void tidy() {
    runs.ledgersBefore(Times.now(clock).minus(settings.keepLedgers())).forEach(runs::dropLedger);
    long kept = 0;
    List<RunMapper.LedgerSize> sizes = runs.ledgerSizes();
    for (int i = 0; i < sizes.size(); i++) {
      kept += sizes.get(i).bytes();
      // the newest stays, however large
      if (i > 0 && kept > settings.ledgerLimit().toBytes()) {
        runs.dropLedger(sizes.get(i).id());
      }
    }
  }
}
