package org.zestyporter.server.run;

import java.time.Clock;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.run.Standing;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.server.web.Times;

/** Notes that runs have ended between two batches, so that they can go on or be taken back. */
@Component
class Interruptions {
  /** The code of what ended because the server did. */
  static final String INTERRUPTED = "interrupted";

  private final RunMapper runs;
  private final Clock clock;

  Interruptions(RunMapper runs, Clock clock) {
    this.runs = runs;
    this.clock = clock;
  }

  /** Ends a run whose server ended. */
  void serverEnded(ExecutionRecord run) {
    end(run, INTERRUPTED, INTERRUPTED, "The server stopped while it went on. " + stands(run));
  }

  /** Ends a run by what was thrown; what was not committed of it is gone. */
  void ended(ExecutionRecord run, ErrorCode code, String message) {
    end(run, code == ErrorCode.STOPPED ? "paused" : INTERRUPTED, code.word(), message);
  }

  /** Lets a run be cut off as it was, since it could not go on. */
  void restore(ExecutionRecord run) {
    end(run, run.state(), run.code(), run.message());
  }

  private void end(ExecutionRecord run, String state, String code, String message) {
    runs.dropChunksBeyond(run.id(), run.batches());
    runs.cutOff(run.id(), state, Times.now(clock), code, message);
  }

  /** What stands of a run that is not done, in a sentence. */
  static String stands(ExecutionRecord run) {
    RunReport report = report(run);
    return Standing.told(run.batchRows(), report == null ? 0 : report.read());
  }

  /** The books of what stands; null if nothing does. */
  static @Nullable RunReport report(ExecutionRecord run) {
    return run.reportJson() == null
        ? null
        : PlanJson.MAPPER.readValue(run.reportJson(), RunReport.class);
  }
}
