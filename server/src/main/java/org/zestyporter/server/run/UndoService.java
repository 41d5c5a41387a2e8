package org.zestyporter.server.run;

import java.time.Clock;
import java.time.LocalDateTime;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.undo.Decisions;
import org.zestyporter.core.undo.Prospect;
import org.zestyporter.core.undo.Undo;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.connection.ConnectionService;
import org.zestyporter.server.plan.PlanService;
import org.zestyporter.server.source.SourceService;
import org.zestyporter.server.store.Space;
import org.zestyporter.server.web.Times;

/** Takes runs back, and undos too. */
@Service
public class UndoService {
  static final String UNDO = "undo";

  private final RunMapper runs;
  private final RunService service;
  private final LedgerReader ledgers;
  private final PlanService plans;
  private final SourceService sources;
  private final ConnectionService connections;
  private final Jobs jobs;
  private final Endings endings;
  private final Space space;
  private final Clock clock;

  UndoService(
      RunMapper runs,
      RunService service,
      LedgerReader ledgers,
      PlanService plans,
      SourceService sources,
      ConnectionService connections,
      Jobs jobs,
      Endings endings,
      Space space,
      Clock clock) {
    this.runs = runs;
    this.service = service;
    this.ledgers = ledgers;
    this.plans = plans;
    this.sources = sources;
    this.connections = connections;
    this.jobs = jobs;
    this.endings = endings;
    this.space = space;
    this.clock = clock;
  }

  /**
   * What taking a run back would do, as things stand.
   *
   * @throws PorterException if it can't be taken back
   */
  Prospect look(long id) {
    return undo(undoable(id)).look(Progress.NONE);
  }

  /**
   * Begins to take a run back.
   *
   * @throws PorterException if it can't be taken back
   */
  public RunService.RunView undo(long id, Decisions decisions, String who) {
    ExecutionRecord run = undoable(id);
    database(run).abilities().requireWriting();
    space.requireRoom();
    LocalDateTime now = Times.now(clock);
    long undo = begin(run, who, now);
    jobs.start(
        service.about(service.record(undo)), progress -> go(undo, run, decisions, now, progress));
    return service.find(undo);
  }

  private synchronized long begin(ExecutionRecord run, String who, LocalDateTime now) {
    requireStanding(run);
    long undo =
        runs.insert(
            ExecutionRecord.beginning(
                UNDO, run.planId(), run.revision(), run.sourceId(), null, who, now, run.id()));
    if (service.record(run.id()).isGoing()) {
      // a run that was cut off has begun to go on meanwhile, and looks whether it is taken back
      runs.drop(undo);
      throw ErrorCode.CANT_UNDO.error("The run goes on again.", "Stop it first.");
    }
    return undo;
  }

  private void go(
      long undo, ExecutionRecord run, Decisions decisions, LocalDateTime now, Progress progress) {
    RunReport report;
    try {
      String number = endings.nextNumber(now);
      runs.number(undo, number);
      jobs.number(undo, number);
      report = undo(run).go(number, decisions, new StoredLedger(runs, undo, true), progress);
    } catch (RuntimeException | Error e) {
      endings.failed(undo, e);
      return;
    }
    if (endings.done(undo, report)) {
      plans.recordsChanged();
    }
  }

  private Database database(ExecutionRecord run) {
    return connections.database(plans.revision(run.planId(), run.revision()).connection());
  }

  private Undo undo(ExecutionRecord run) {
    Database database = database(run);
    database.forget();
    StoredPast past =
        new StoredPast(runs, ledgers, run, plans.name(run.planId()), sources.name(run.sourceId()));
    return new Undo(database, past, past.size());
  }

  private ExecutionRecord undoable(long id) {
    ExecutionRecord run = service.record(id);
    if (run.kind().equals(RunService.REHEARSAL)) {
      throw ErrorCode.CANT_UNDO.error("A rehearsal has written nothing that could be taken back.");
    }
    boolean isUnsure = ErrorCode.UNSURE.word().equals(run.code());
    if (!run.hasWritten() && !isUnsure || run.isGoing()) {
      throw ErrorCode.CANT_UNDO.error(
          "Only a run that is done can be taken back; this one has written nothing, or is still"
              + " going.");
    }
    requireStanding(run);
    if (runs.layouts(id).isEmpty()) {
      throw ErrorCode.NO_LEDGER.error("The ledger of this run is gone, and the undo with it.");
    }
    return run;
  }

  private void requireStanding(ExecutionRecord run) {
    @Nullable ExecutionRecord undo = service.undoOf(run.id());
    if (undo != null) {
      boolean done = undo.state().equals("done");
      throw ErrorCode.UNDONE.error(
          done
              ? "This run was taken back already, by " + undo.number() + "."
              : "This run is being taken back.",
          done
              ? "To have it stand again, undo " + undo.number() + "."
              : "Wait until that is done.");
    }
  }
}
