package org.zestyporter.server.run;

import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RowOutcomes;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.run.Standing;
import org.zestyporter.core.run.Unconfirmed;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.plan.PlanService;

/** Does the work of a rehearsal or run, in a job's own thread. */
@Component
class RunWork {
  private static final Logger LOG = LoggerFactory.getLogger(RunWork.class);
  private static final int DIFFERENCES_NAMED = 5;

  private final RunMapper runs;
  private final PlanService plans;
  private final LedgerReader ledgers;
  private final LedgerComparison comparison;
  private final Jobs jobs;
  private final Endings endings;
  private final BusyPlans busy;
  private final Recounts recounts;

  RunWork(
      RunMapper runs,
      PlanService plans,
      LedgerReader ledgers,
      LedgerComparison comparison,
      Jobs jobs,
      Endings endings,
      BusyPlans busy,
      Recounts recounts) {
    this.runs = runs;
    this.plans = plans;
    this.ledgers = ledgers;
    this.comparison = comparison;
    this.jobs = jobs;
    this.endings = endings;
    this.busy = busy;
    this.recounts = recounts;
  }

  /** Takes a rehearsal or run to its end, or goes on with one that was cut off. */
  void go(ExecutionRecord run, Beginning beginning, Progress progress) {
    try {
      PlanService.Opened opened;
      try {
        opened = plans.open(new PlanService.Outline(run.planId(), run.revision(), run.sourceId()));
        if (run.kind().equals(RunService.RUN)) {
          opened.database().abilities().requireWriting();
        }
        opened.database().forget();
        opened.now(run.startedBy()).require();
        if (run.kind().equals(RunService.RUN)) {
          new Unconfirmed(opened.now(run.startedBy())).require();
        }
      } catch (RuntimeException e) {
        busy.free(beginning);
        if (!beginning.refuse(e)) {
          failed(beginning, run.id(), e);
        }
        return;
      }
      String number = run.number();
      if (run.kind().equals(RunService.RUN) && number == null) {
        number = endings.nextNumber(run.startedAt());
        runs.number(run.id(), number);
      }
      if (number != null) {
        jobs.number(run.id(), number);
      }
      beginning.begun();
      go(run, number, opened, beginning, progress);
    } finally {
      busy.free(beginning);
    }
  }

  private void go(
      ExecutionRecord run,
      @Nullable String number,
      PlanService.Opened opened,
      Beginning beginning,
      Progress progress) {
    long id = run.id();
    String who = run.startedBy();
    RunReport report;
    RowOutcomes outcomes = new RowOutcomes();
    long records;
    try {
      String file = opened.source().name();
      Pipeline pipeline =
          new Pipeline(
              opened.with(
                  number == null
                      ? new RunContext(who, run.startedAt(), file)
                      : new RunContext(who, run.startedAt(), file, number)));
      records = plans.recordsVersion();
      StoredLedger ledger = new StoredLedger(runs, id, false, () -> requireAsRehearsed(id, opened));
      if (number == null) {
        report = pipeline.rehearse(outcomes.beside(ledger), progress);
      } else if (run.batches() == 0) {
        report = pipeline.run(number, ledger, progress);
      } else {
        Standing standing = standing(run, opened.plan().name(), file);
        report =
            pipeline.resume(
                number, standing, ledger.after(run.batches(), standing.ledger()), progress);
      }
    } catch (RuntimeException | Error e) {
      failed(beginning, id, e);
      return;
    }
    busy.free(beginning);
    if (!endings.done(id, report)) {
      return;
    }
    try {
      if (number != null) {
        plans.recordsChanged();
        plans.countPhrases(opened, who);
      } else {
        recounts.rehearsed(run, records, opened, outcomes);
        dropOlderRehearsals(opened.id(), id);
      }
    } catch (RuntimeException e) {
      LOG.warn("what follows execution {} did not come about", id, e);
    }
  }

  private Standing standing(ExecutionRecord run, String plan, String file) {
    return new Standing(
        run.batches(),
        run.batchRows(),
        Interruptions.report(run),
        new StoredPast(runs, ledgers, run, plan, file));
  }

  /** Throws if rows come out otherwise than rehearsed, and the plan does not bear that. */
  private void requireAsRehearsed(long id, PlanService.Opened opened) {
    if (opened.plan().run().whenDifferent() != RunSettings.WhenDifferent.REFUSE) {
      return;
    }
    LedgerComparison.Differences differences = comparison.differences(runs.find(id));
    if (differences.total() > 0) {
      String named =
          differences.first().stream()
              .limit(DIFFERENCES_NAMED)
              .map(
                  d -> "line " + d.line() + " " + d.came().word() + ", not " + d.rehearsed().word())
              .collect(Collectors.joining("; "));
      throw ErrorCode.DIFFERENT.error(
          differences.total()
              + (differences.total() == 1 ? " row comes" : " rows come")
              + " out otherwise than rehearsed: "
              + named
              + (differences.total() > DIFFERENCES_NAMED ? " and more" : "")
              + ". The plan says that it does not go on then.");
    }
  }

  private void dropOlderRehearsals(long plan, long newest) {
    for (long older : runs.olderRehearsals(plan, newest)) {
      runs.drop(older);
    }
  }

  /** Whoever sees that it is over can start the next one. */
  private void failed(Beginning beginning, long id, Throwable e) {
    busy.free(beginning);
    boolean isStopped = e instanceof PorterException p && p.code() == ErrorCode.STOPPED;
    if (isStopped && jobs.isEnded(id)) {
      // nobody stopped it but the server, which sees to it when it starts again
      return;
    }
    endings.failed(id, e);
  }
}
