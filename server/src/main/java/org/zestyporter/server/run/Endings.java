package org.zestyporter.server.run;

import java.time.Clock;
import java.time.LocalDateTime;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.web.Times;

/** Notes how rehearsals, runs and undos end, and numbers them. */
@Component
class Endings {
  private static final Logger LOG = LoggerFactory.getLogger(Endings.class);

  private final RunMapper runs;
  private final Settling settling;
  private final Interruptions interruptions;
  private final Clock clock;

  Endings(RunMapper runs, Settling settling, Interruptions interruptions, Clock clock) {
    this.interruptions = interruptions;
    this.runs = runs;
    this.settling = settling;
    this.clock = clock;
  }

  /** The number of the next run of the year, such as {@code 2026-0007}. */
  synchronized String nextNumber(LocalDateTime now) {
    return String.format("%d-%04d", now.getYear(), runs.nextNumber(now.getYear()));
  }

  /**
   * Notes that one is done. Where records were written they stand from here on, whatever becomes of
   * our own.
   *
   * @return false if that could not be noted yet
   */
  boolean done(long id, RunReport report) {
    try {
      runs.dropOpenChunks(id);
      finish(id, "done", PlanJson.MAPPER.writeValueAsString(report), null, null);
      return true;
    } catch (RuntimeException e) {
      LOG.error("run {} is done, but could not be noted", id, e);
      settling.begin();
      return false;
    }
  }

  /** Notes that one failed, and why; nothing was written but the batches that stand. */
  void failed(long id, Throwable e) {
    if (e instanceof PorterException p && p.code() == ErrorCode.UNSURE) {
      settling.begin();
      return;
    }
    ExecutionRecord run = runs.find(id);
    String what = said(id, e, run);
    ErrorCode code =
        e instanceof PorterException p
            ? p.code()
            : e instanceof Error ? ErrorCode.TOO_MUCH : ErrorCode.INTERNAL;
    if (run.batches() > 0) {
      interruptions.ended(run, code, what);
    } else {
      runs.dropLedger(id);
      finish(id, code == ErrorCode.STOPPED ? "stopped" : "failed", null, code, what);
    }
  }

  private static String said(long id, Throwable e, ExecutionRecord run) {
    if (e instanceof PorterException) {
      return e.getMessage();
    }
    LOG.error("execution {} failed", id, e);
    return (e instanceof Error
            ? "The server had not enough memory for it. "
            : "Something went wrong on the server. ")
        + Interruptions.stands(run);
  }

  private void finish(
      long id,
      String state,
      @Nullable String report,
      @Nullable ErrorCode code,
      @Nullable String message) {
    runs.finish(id, state, Times.now(clock), report, code == null ? null : code.word(), message);
  }
}
