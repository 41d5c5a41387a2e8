package org.zestyporter.server.run;

import java.time.Clock;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.plan.PlanCheck;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.plan.PlanService;
import org.zestyporter.server.source.SourceService;
import org.zestyporter.server.web.Times;

/** Starts rehearsals and runs and keeps what came of them. */
@Service
public class RunService {
  private static final Logger LOG = LoggerFactory.getLogger(RunService.class);
  private static final String RUN = "run";
  private static final String REHEARSAL = "rehearsal";

  private final RunMapper runs;
  private final PlanService plans;
  private final SourceService sources;
  private final LedgerReader ledgers;
  private final Jobs jobs;
  private final Clock clock;
  private final Set<Long> busyPlans = ConcurrentHashMap.newKeySet();

  /** A rehearsal or run as it is shown. */
  public record RunView(
      long id,
      String kind,
      @Nullable String number,
      long plan,
      String planName,
      int revision,
      String source,
      String state,
      String startedBy,
      LocalDateTime startedAt,
      @Nullable LocalDateTime finishedAt,
      @Nullable RunReport report,
      @Nullable String code,
      @Nullable String message) {}

  RunService(
      RunMapper runs,
      PlanService plans,
      SourceService sources,
      LedgerReader ledgers,
      Jobs jobs,
      Clock clock) {
    this.runs = runs;
    this.plans = plans;
    this.sources = sources;
    this.ledgers = ledgers;
    this.jobs = jobs;
    this.clock = clock;
  }

  /**
   * Whatever was going when the server stopped was rolled back by the database; only of a run that
   * was just being made lasting nobody can tell from here.
   */
  @EventListener(ApplicationReadyEvent.class)
  void failInterrupted() {
    runs.failInterrupted(Times.now(clock));
    runs.failUnsure(Times.now(clock));
  }

  public RunView rehearse(long plan, String who) {
    return start(plan, REHEARSAL, who);
  }

  public RunView run(long plan, String who) {
    return start(plan, RUN, who);
  }

  private RunView start(long planId, String kind, String who) {
    PlanService.Opened opened = plans.open(planId);
    opened.database().forget();
    PlanCheck.require(
        opened.destination(),
        opened.database().table(opened.destination().table()),
        opened.rows().columns(),
        opened.shared().phrases(opened.plan())::has);
    if (!busyPlans.add(planId)) {
      throw new PorterException(
          PorterException.Kind.CONFLICT,
          "already-going",
          "This plan is being rehearsed or run already. Wait until that is done.");
    }
    try {
      LocalDateTime now = Times.now(clock);
      String number = kind.equals(RUN) ? nextNumber(now) : null;
      long id =
          runs.insert(
              new ExecutionRecord(
                  null,
                  kind,
                  number,
                  planId,
                  opened.revision(),
                  opened.source().id(),
                  kind.equals(RUN) ? rehearsalOf(opened) : null,
                  "going",
                  who,
                  now,
                  null,
                  null,
                  null,
                  null));
      jobs.start(id, progress -> go(id, number, opened, who, now, progress));
      return find(id);
    } catch (RuntimeException e) {
      busyPlans.remove(planId);
      throw e;
    }
  }

  /** The rehearsal of just this plan and file that a run follows; null if there is none. */
  private @Nullable Long rehearsalOf(PlanService.Opened opened) {
    ExecutionRecord last = runs.last(opened.id(), REHEARSAL);
    boolean same =
        last != null
            && "done".equals(last.state())
            && last.revision() == opened.revision()
            && last.sourceId() == opened.source().id();
    return same ? last.id() : null;
  }

  private synchronized String nextNumber(LocalDateTime now) {
    int known = runs.countNumbers(now.getYear() + "-%");
    return String.format("%d-%04d", now.getYear(), known + 1);
  }

  private void go(
      long id,
      @Nullable String number,
      PlanService.Opened opened,
      String who,
      LocalDateTime now,
      Progress progress) {
    try {
      Pipeline pipeline =
          new Pipeline(
              opened.database(),
              opened.rows(),
              opened.plan(),
              number == null
                  ? new RunContext(who, now, opened.source().name())
                  : new RunContext(who, now, opened.source().name(), number),
              opened.shared());
      StoredLedger ledger = new StoredLedger(runs, id);
      RunReport report =
          number == null
              ? pipeline.rehearse(ledger, progress)
              : pipeline.run(number, ledger, progress);
      runs.finish(
          id, "done", Times.now(clock), PlanJson.MAPPER.writeValueAsString(report), null, null);
      if (number == null) {
        runs.dropOlderRehearsals(opened.id(), id);
      } else {
        plans.recordsChanged();
        plans.countPhrases(opened, who);
      }
    } catch (PorterException e) {
      fail(id, e.code(), e.getMessage());
    } catch (RuntimeException e) {
      LOG.error("execution {} failed", id, e);
      fail(id, "internal", "Something went wrong on the server. Nothing was written.");
    } finally {
      busyPlans.remove(opened.id());
    }
  }

  private void fail(long id, String code, String message) {
    runs.dropChunks(id);
    runs.finish(
        id, "stopped".equals(code) ? "stopped" : "failed", Times.now(clock), null, code, message);
  }

  public RunView find(long id) {
    ExecutionRecord record = runs.find(id);
    if (record == null) {
      throw PorterException.missing("no-such-run", "There is no such run.");
    }
    return view(record);
  }

  /** How a run differs from what was rehearsed. */
  LedgerReader.Differences differences(long id) {
    ExecutionRecord run = runs.find(id);
    return run == null || run.rehearsalId() == null
        ? new LedgerReader.Differences(0, List.of())
        : ledgers.differences(run.rehearsalId(), id);
  }

  /** The last rehearsal or run of a plan; null if there is none. */
  public @Nullable RunView last(long plan, String kind) {
    ExecutionRecord record = runs.last(plan, kind);
    return record == null ? null : view(record);
  }

  /** The newest runs, newest first. */
  public List<RunView> newest(int limit) {
    return runs.runs(limit).stream().map(this::view).toList();
  }

  private RunView view(ExecutionRecord r) {
    RunReport report =
        r.reportJson() == null ? null : PlanJson.MAPPER.readValue(r.reportJson(), RunReport.class);
    return new RunView(
        r.id(),
        r.kind(),
        r.number(),
        r.planId(),
        plans.name(r.planId()),
        r.revision(),
        sources.find(r.sourceId()).name(),
        r.state(),
        r.startedBy(),
        r.startedAt(),
        r.finishedAt(),
        report,
        r.code(),
        r.message());
  }
}
