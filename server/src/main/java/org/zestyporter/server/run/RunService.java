package org.zestyporter.server.run;

import java.time.Clock;
import java.time.Duration;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.plan.DependsOnPlans;
import org.zestyporter.server.plan.PlanService;
import org.zestyporter.server.source.SourceService;
import org.zestyporter.server.store.Space;
import org.zestyporter.server.web.Deletion;
import org.zestyporter.server.web.Times;

/** Starts rehearsals and runs and keeps what came of them. */
@Service
public class RunService implements DependsOnPlans {
  static final String RUN = "run";
  static final String REHEARSAL = "rehearsal";
  private static final Duration PATIENCE = Duration.ofSeconds(2);

  /** One that ends the server each time is not begun again for ever. */
  private static final int MOST_BEGINNINGS = 3;

  private final RunMapper runs;
  private final PlanService plans;
  private final SourceService sources;
  private final LedgerComparison comparison;
  private final LedgerLimits limits;
  private final Jobs jobs;
  private final Settling settling;
  private final RunWork work;
  private final BusyPlans busy;
  private final Interruptions interruptions;
  private final Space space;
  private final Clock clock;

  /**
   * A rehearsal or run as it is shown.
   *
   * @param rowsStanding rows of the source that batches have taken in so far, of which the report
   *     tells if it is not done
   * @param keptUntil until when its ledger is kept, and it can be undone; null if it has none
   */
  public record RunView(
      long id,
      String kind,
      @Nullable String number,
      long plan,
      String planName,
      int revision,
      String source,
      @Nullable String checksum,
      String state,
      String startedBy,
      LocalDateTime startedAt,
      @Nullable LocalDateTime finishedAt,
      @Nullable RunReport report,
      long rowsStanding,
      @Nullable String code,
      @Nullable String message,
      @Nullable Other undoes,
      @Nullable Other undoneBy,
      @Nullable LocalDateTime keptUntil) {}

  /** Another run: the one that is taken back, or that takes this one back. */
  public record Other(long id, @Nullable String number, String state) {}

  RunService(
      RunMapper runs,
      PlanService plans,
      SourceService sources,
      LedgerComparison comparison,
      LedgerLimits limits,
      Jobs jobs,
      Settling settling,
      RunWork work,
      BusyPlans busy,
      Interruptions interruptions,
      Space space,
      Clock clock) {
    this.runs = runs;
    this.plans = plans;
    this.sources = sources;
    this.comparison = comparison;
    this.limits = limits;
    this.jobs = jobs;
    this.settling = settling;
    this.work = work;
    this.busy = busy;
    this.interruptions = interruptions;
    this.space = space;
    this.clock = clock;
  }

  /**
   * What was going when the server stopped is over, but for what had done nothing yet, which is
   * begun again; what was being made lasting is looked into.
   */
  @EventListener(ApplicationReadyEvent.class)
  void afterStart() {
    List<ExecutionRecord> again = new ArrayList<>();
    for (long id : runs.inState("going")) {
      ExecutionRecord run = record(id);
      if (run.batches() > 0) {
        interruptions.serverEnded(run);
      } else if (canBeginAgain(run)) {
        again.add(run);
      } else {
        runs.dropLedger(id);
        runs.failInterrupted(id, Times.now(clock));
      }
    }
    settling.begin();
    again.forEach(this::beginAgain);
  }

  /** True if it waited for others, or has only read. */
  private boolean canBeginAgain(ExecutionRecord run) {
    boolean wrote = !run.kind().equals(REHEARSAL) && !runs.layouts(run.id()).isEmpty();
    return !run.kind().equals(UndoService.UNDO) && !wrote && run.begun() < MOST_BEGINNINGS;
  }

  private void beginAgain(ExecutionRecord run) {
    runs.dropLedger(run.id());
    runs.beginAgain(run.id());
    Beginning beginning = busy.begin(run.planId());
    // whoever asked for it is not there any more
    beginning.isAlone();
    jobs.start(about(run), progress -> work.go(run, beginning, progress));
  }

  public RunView rehearse(long plan, String who) {
    return start(plan, REHEARSAL, who);
  }

  public RunView run(long plan, String who) {
    return start(plan, RUN, who);
  }

  /**
   * Starts without waiting for the application's database or the file: all that may take a while is
   * the job's. What can be told within a moment is told at once.
   */
  private RunView start(long planId, String kind, String who) {
    PlanService.Outline outline = plans.outline(planId);
    space.requireRoom();
    Long follows = kind.equals(RUN) ? rehearsalOf(outline) : null;
    ExecutionRecord begun =
        ExecutionRecord.beginning(
            kind,
            planId,
            outline.revision(),
            outline.source(),
            follows,
            who,
            Times.now(clock),
            null);
    return launch(planId, () -> record(runs.insert(begun)), run -> runs.drop(run.id()));
  }

  /**
   * Has a job go.
   *
   * @param prepares notes that it goes
   * @param forgets is called if it can't go, after all
   */
  private RunView launch(
      long plan, Supplier<ExecutionRecord> prepares, Consumer<ExecutionRecord> forgets) {
    Beginning beginning = busy.begin(plan);
    ExecutionRecord run;
    try {
      run = prepares.get();
      jobs.start(about(run), progress -> work.go(run, beginning, progress));
    } catch (RuntimeException e) {
      busy.free(beginning);
      throw e;
    }
    RuntimeException refused = beginning.refusal(PATIENCE);
    if (refused != null) {
      forgets.accept(run);
      throw refused;
    }
    return find(run.id());
  }

  /** What those see who look at what is going on. */
  Job.About about(ExecutionRecord run) {
    return new Job.About(
        run.id(), run.kind(), run.planId(), plans.name(run.planId()), run.startedBy());
  }

  /**
   * Goes on with a run that was cut off between two batches.
   *
   * @throws PorterException if it can't go on: with code {@code cant-go-on}, or by what keeps it
   */
  public RunView resume(long id) {
    ExecutionRecord run = record(id);
    requireCutOff(run);
    space.requireRoom();
    return launch(
        run.planId(),
        () -> {
          // an undo that begins meanwhile looks whether it goes on
          if (runs.goOn(id) == 0) {
            throw cantGoOn("It goes on already.");
          }
          if (undoOf(id) != null) {
            interruptions.restore(run);
            throw cantGoOn("It is being taken back.");
          }
          return run;
        },
        interruptions::restore);
  }

  private void requireCutOff(ExecutionRecord run) {
    if (!run.kind().equals(RUN) || !run.isCutOff()) {
      throw cantGoOn("Only a run in batches that was stopped or cut off can go on.");
    }
    if (undoOf(run.id()) != null) {
      throw cantGoOn("What stood of this run was taken back.");
    }
    if (runs.layouts(run.id()).isEmpty()) {
      throw ErrorCode.NO_LEDGER.error(
          "The ledger of this run is gone, without which it can't go on.");
    }
  }

  private static PorterException cantGoOn(String why) {
    return ErrorCode.CANT_GO_ON.error(why);
  }

  /** The rehearsal of just this plan and file that a run follows; null if there is none. */
  private @Nullable Long rehearsalOf(PlanService.Outline outline) {
    ExecutionRecord last = runs.last(outline.id(), REHEARSAL);
    boolean same =
        last != null
            && "done".equals(last.state())
            && last.revision() == outline.revision()
            && last.sourceId() == outline.source();
    return same ? last.id() : null;
  }

  /** What deleting a run or rehearsal means. The records that it brought in stay. */
  public Deletion deletion(long id) {
    ExecutionRecord record = record(id);
    List<String> goes = new ArrayList<>();
    goes.add("its ledger and its books");
    return new Deletion(
        goes,
        !record.kind().equals(REHEARSAL) && record.hasWritten()
            ? List.of(
                "the records that it brought in stay in the application, and it can't be undone any"
                    + " more")
            : List.of(),
        record.isGoing() ? "It is still going. Stop it first." : null);
  }

  public void delete(long id) {
    deletion(id).require();
    runs.drop(id);
  }

  @Override
  public String goesWith(long plan) {
    int count = runs.count(plan, RUN);
    return count == 0 ? null : Deletion.count(count, "run", "runs") + " with ledger and books";
  }

  @Override
  public @Nullable Long planOf(String run) {
    return runs.planOf(run.replaceFirst("^Run ", ""));
  }

  @Override
  public @Nullable String goingOn(long plan) {
    return busy.isBusy(plan) || runs.countOpen(plan) > 0
        ? "The plan is being rehearsed or run. Wait until that is done, or stop it."
        : null;
  }

  @Override
  public void drop(long plan) {
    for (long id : runs.ofPlan(plan)) {
      runs.drop(id);
    }
  }

  /**
   * A run as it is kept.
   *
   * @throws PorterException if there is none
   */
  ExecutionRecord record(long id) {
    ExecutionRecord record = runs.find(id);
    if (record == null) {
      throw ErrorCode.NO_SUCH_RUN.error("There is no such run.");
    }
    return record;
  }

  public RunView find(long id) {
    return view(record(id));
  }

  /** How a run differs from what was rehearsed. */
  LedgerComparison.Differences differences(long id) {
    return comparison.differences(runs.find(id));
  }

  /** How a rehearsal differs from the one before it; null if there is none. */
  LedgerComparison.@Nullable Since since(long id) {
    return comparison.since(record(id));
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

  private static @Nullable Other other(@Nullable ExecutionRecord r) {
    return r == null ? null : new Other(r.id(), r.number(), r.state());
  }

  /** The undo that takes a run back, or is about to; null if the run stands. */
  @Nullable ExecutionRecord undoOf(long id) {
    return runs.undosOf(id).stream().filter(u -> !stands(undoOf(u.id()))).findFirst().orElse(null);
  }

  private static boolean stands(@Nullable ExecutionRecord undo) {
    return undo != null && undo.state().equals("done");
  }

  private RunView view(ExecutionRecord r) {
    return new RunView(
        r.id(),
        r.kind(),
        r.number(),
        r.planId(),
        plans.name(r.planId()),
        r.revision(),
        sources.name(r.sourceId()),
        sources.checksum(r.sourceId()),
        r.state(),
        r.startedBy(),
        r.startedAt(),
        r.finishedAt(),
        Interruptions.report(r),
        r.batchRows(),
        r.code(),
        r.message(),
        r.undoesId() == null ? null : other(runs.find(r.undoesId())),
        other(undoOf(r.id())),
        limits.until(r));
  }
}
