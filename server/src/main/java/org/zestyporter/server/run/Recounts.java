package org.zestyporter.server.run;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.List;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.run.Recount;
import org.zestyporter.core.run.RowOutcomes;
import org.zestyporter.server.plan.PlanService;

/**
 * Counts rehearsals anew once questions are answered, from what is kept in memory of the last ones.
 * What is not kept has to be rehearsed.
 */
@Component
class Recounts {
  private static final Logger LOG = LoggerFactory.getLogger(Recounts.class);

  /** In smaller files an answer is counted as fast without. */
  private static final int ROWS_AHEAD = 20_000;

  /** Rows of whose outcomes all is kept, in all plans; a byte each. */
  private static final long ROWS_KEPT = 50_000_000;

  private final PlanService plans;
  private final Cache<Long, Counted> counted =
      Caffeine.newBuilder()
          .maximumWeight(ROWS_KEPT)
          .<Long, Counted>weigher((plan, of) -> of.outcomes().size())
          .build();

  /** Gets ready for answers; of several rehearsals that end soon after each other for the last. */
  private final ThreadPoolExecutor ahead =
      new ThreadPoolExecutor(
          0,
          1,
          10,
          TimeUnit.SECONDS,
          new ArrayBlockingQueue<>(1),
          Recounts::daemon,
          new ThreadPoolExecutor.DiscardOldestPolicy());

  Recounts(PlanService plans) {
    this.plans = plans;
  }

  private static Thread daemon(Runnable work) {
    Thread thread = new Thread(work, "porter-recount");
    thread.setDaemon(true);
    return thread;
  }

  /**
   * What is known of a plan.
   *
   * @param rehearsal its last rehearsal
   * @param revision the plan's revision that the outcomes are of, that of the rehearsal or later
   * @param records tells whether records were changed from here since
   * @param shared phrasebooks and checks as they were then
   */
  private record Counted(
      long rehearsal,
      int revision,
      long source,
      long records,
      Shared shared,
      RowOutcomes outcomes) {}

  /**
   * What becomes of the rows by the plan as it is now.
   *
   * @param rehearsal the rehearsal that is counted anew; null if it can't be, and has to be done
   *     again
   * @param counts of each destination
   * @param rows that were gone through for it
   */
  record RecountView(
      @Nullable Long rehearsal,
      int revision,
      @Nullable List<RowOutcomes.Counts> counts,
      long rows) {}

  /**
   * Keeps what a rehearsal made of its rows.
   *
   * @param records what the plans said of records when it began
   * @param opened the plan as it was rehearsed
   */
  void rehearsed(
      ExecutionRecord rehearsal, long records, PlanService.Opened opened, RowOutcomes outcomes) {
    counted.put(
        rehearsal.planId(),
        new Counted(
            rehearsal.id(),
            rehearsal.revision(),
            rehearsal.sourceId(),
            records,
            opened.shared(),
            outcomes));
    boolean isAsked = outcomes.counts().stream().anyMatch(counts -> counts.waiting() > 0);
    if (isAsked && opened.rows().rowCount() >= ROWS_AHEAD) {
      ahead.execute(() -> getReady(opened, rehearsal.startedBy(), outcomes));
    }
  }

  /** Has all found out that the first answer needs, too. */
  private void getReady(PlanService.Opened opened, String who, RowOutcomes outcomes) {
    try {
      Recount.getReady(opened.now(who), outcomes, plans.remembered(opened, who));
    } catch (RuntimeException e) {
      LOG.debug("the first answer to plan {} will take longer", opened.id(), e);
    }
  }

  /** Counts the last rehearsal of a plan anew. */
  RecountView recount(long plan, String who) {
    PlanService.Opened now = plans.open(plan);
    OpenedPlan answered = now.now(who);
    Counted known = counted.getIfPresent(plan);
    if (known == null
        || now.plan().destinations().stream().anyMatch(d -> !answered.matters(d).isEmpty())
        || known.records != plans.recordsVersion()
        || known.source != now.source().id()) {
      return new RecountView(null, now.revision(), null, 0);
    }
    OpenedPlan rehearsed =
        new OpenedPlan(
            now.database(),
            now.rows(),
            plans.revision(plan, known.revision),
            answered.context(),
            known.shared);
    Recount recount = Recount.of(rehearsed, answered, known.outcomes, plans.remembered(now, who));
    if (recount == null) {
      return new RecountView(null, now.revision(), null, 0);
    }
    counted.put(
        plan,
        new Counted(
            known.rehearsal,
            now.revision(),
            known.source,
            known.records,
            now.shared(),
            recount.outcomes()));
    return new RecountView(
        known.rehearsal, now.revision(), recount.outcomes().counts(), recount.rows());
  }
}
