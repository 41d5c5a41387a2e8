package org.zestyporter.server.run;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.zestyporter.core.application.Settled;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.run.Settlement;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.connection.ConnectionService;
import org.zestyporter.server.plan.PlanService;
import org.zestyporter.server.web.Times;

/**
 * Finds out what became of runs that were cut off while they were being made lasting. As long as
 * the application's database does not answer, they stay as they are and are looked at again.
 */
@Component
class Settling {
  private static final Logger LOG = LoggerFactory.getLogger(Settling.class);
  private static final long AGAIN_SECONDS = 10;

  private final RunMapper runs;
  private final LedgerReader ledgers;
  private final PlanService plans;
  private final ConnectionService connections;
  private final Jobs jobs;
  private final Interruptions interruptions;
  private final Clock clock;
  private final ScheduledExecutorService thread =
      Executors.newSingleThreadScheduledExecutor(
          task -> {
            Thread settling = new Thread(task, "porter-settling");
            settling.setDaemon(true);
            return settling;
          });

  Settling(
      RunMapper runs,
      LedgerReader ledgers,
      PlanService plans,
      ConnectionService connections,
      Jobs jobs,
      Interruptions interruptions,
      Clock clock) {
    this.runs = runs;
    this.ledgers = ledgers;
    this.plans = plans;
    this.connections = connections;
    this.jobs = jobs;
    this.interruptions = interruptions;
    this.clock = clock;
  }

  /** Begins to look, in a thread of its own. */
  void begin() {
    thread.schedule(this::look, 0, TimeUnit.SECONDS);
  }

  private void look() {
    boolean open = false;
    for (long id : runs.inState("committing")) {
      // its own thread may be about to say what became of it
      open |= jobs.isGoing(id) || !settle(runs.find(id));
    }
    if (open) {
      thread.schedule(this::look, AGAIN_SECONDS, TimeUnit.SECONDS);
    }
  }

  /** True if it is known what became of it. */
  private boolean settle(ExecutionRecord run) {
    try {
      Plan plan = plans.revision(run.planId(), run.revision());
      return note(run, find(run, connections.database(plan.connection())));
    } catch (PorterException e) {
      LOG.warn("run {} can't be settled yet: {}", run.number(), e.getMessage());
      runs.waiting(
          run.id(),
          "The server stopped at the very moment of making the run lasting. Whether it stands will"
              + " be known once the database answers: "
              + e.getMessage());
      return false;
    } catch (RuntimeException e) {
      LOG.error("run {} can't be settled", run.number(), e);
      return false;
    }
  }

  private @Nullable Settled find(ExecutionRecord run, Database database) {
    Settlement settlement = new Settlement(database);
    Settled byMark = settlement.byMark(run.mark());
    if (byMark != null) {
      return byMark;
    }
    List<LedgerLayout> layouts =
        runs.destinations(run.id()).stream().map(d -> ledgers.layout(run.id(), d)).toList();
    boolean waited =
        layouts.stream()
            .flatMap(l -> runs.chunks(run.id(), l.destination()).stream())
            .anyMatch(c -> c.isOpen() && c.batch() == run.batches());
    return settlement.byLastBatch(
        layouts,
        layout -> ledgers.all(run.id(), layout),
        run.batchRows(),
        run.batches() > 0 && !waited);
  }

  private boolean note(ExecutionRecord run, @Nullable Settled settled) {
    if (settled == Settled.GOING) {
      return false;
    }
    if (settled == Settled.COMMITTED) {
      committed(run);
    } else if (settled == Settled.TAKEN_BACK && run.batches() > 0) {
      interruptions.serverEnded(run);
    } else if (settled == Settled.TAKEN_BACK) {
      runs.dropLedger(run.id());
      failed(
          run,
          null,
          Interruptions.INTERRUPTED,
          "The server stopped before the run was made lasting, and the database took it back."
              + " Nothing was written.");
    } else {
      failed(
          run,
          books(run),
          ErrorCode.UNSURE.word(),
          "The server stopped at the very moment of making the run lasting, and the records in the"
              + " table don't tell whether it stands: they were changed since, or it changed none."
              + " Compare some lines of its ledger with the table.");
    }
    LOG.info("run {} was settled: {}", run.number(), settled);
    return true;
  }

  private void committed(ExecutionRecord run) {
    String books = books(run);
    boolean isLast =
        run.nextReportJson() == null
            || PlanJson.MAPPER.readValue(books, RunReport.class).state().equals("done");
    if (isLast) {
      runs.dropOpenChunks(run.id());
      runs.finish(run.id(), "done", Times.now(clock), books, null, null);
    } else {
      runs.committed(run.id());
      interruptions.serverEnded(runs.find(run.id()));
    }
    plans.recordsChanged();
  }

  /** The books of what was being committed. */
  private static String books(ExecutionRecord run) {
    return run.nextReportJson() == null ? run.reportJson() : run.nextReportJson();
  }

  private void failed(ExecutionRecord run, @Nullable String report, String code, String message) {
    runs.finish(run.id(), "failed", Times.now(clock), report, code, message);
  }

  @PreDestroy
  void close() {
    thread.shutdownNow();
  }
}
