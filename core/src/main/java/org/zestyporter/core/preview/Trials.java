package org.zestyporter.core.preview;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.FillCompiler;
import org.zestyporter.core.fill.Row;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.run.DistinctRows;
import org.zestyporter.core.source.Rows;
import org.zestyporter.core.step.Occasion;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.PorterException;

/**
 * Tries every kind of step on a fill's real values, and tells how many troubled rows each would
 * free.
 *
 * <p>The fill itself stays as it is.
 */
public final class Trials {
  private static final int TROUBLED_TRIED = 300;
  private static final int FINE_TRIED = 200;
  private static final int FREED_NAMED = 100;

  private final FillCompiler compiler;
  private final CompiledFill fill;
  private final List<StageTable.Row> troubled = new ArrayList<>();
  private final List<Row> fine = new ArrayList<>();
  private final List<Long> fineCounts = new ArrayList<>();
  private final List<org.zestyporter.core.fill.Row> troubledRows = new ArrayList<>();

  /**
   * A step that was tried.
   *
   * @param at its place among the steps
   * @param before a value that it changes, as the step receives it; null if it changes none
   * @param after what it makes of it; null if blank
   * @param frees rows that are in trouble without it and not with it
   * @param breaks rows that are in trouble only with it, among those looked at
   * @param doubtful true if it frees them by dropping a part of the value
   * @param freed the values that it frees, as they came
   */
  public record Trial(
      Step step,
      int at,
      @Nullable String before,
      @Nullable String after,
      long frees,
      long breaks,
      boolean doubtful,
      List<String> freed) {}

  /**
   * @param fill compiled by {@code compiler}
   */
  public Trials(FillCompiler compiler, CompiledFill fill, Rows source) {
    this.compiler = compiler;
    this.fill = fill;
    DistinctRows.visit(
        fill,
        source,
        StageTable.ROWS_EACH,
        (row, rows) -> {
          if (troubled.size() >= TROUBLED_TRIED && fine.size() >= FINE_TRIED) {
            return;
          }
          boolean rejected = fill.compute(row).rejects();
          if (rejected && troubled.size() < TROUBLED_TRIED) {
            troubled.add(new StageTable.Row(rows, row.line(), fill.trace(row)));
            troubledRows.add(row);
          } else if (!rejected && fine.size() < FINE_TRIED) {
            fineCounts.add(rows);
            fine.add(row);
          }
        });
  }

  /**
   * Tries all kinds.
   *
   * @param at the place of the new step; under 0 to try every place
   * @param books phrasebooks that there are
   * @return the best of each kind, the most useful first
   */
  public List<Trial> rank(int at, List<String> books) {
    List<String> values = troubled.stream().map(r -> r.trace().origin()).toList();
    List<Trial> trials = new ArrayList<>();
    Occasion occasion =
        new Occasion(
            fill.field(), compiler.columnName(fill), values, books, compiler.otherColumns(fill));
    for (StepKind kind : StepKind.values()) {
      Trial best = null;
      for (Step step : kind.worthTrying(occasion)) {
        for (int place = Math.max(0, at);
            place <= (at < 0 ? fill.fill().steps().size() : at);
            place++) {
          Trial trial = attempt(step, place);
          if (trial != null && (best == null || worth(trial) > worth(best))) {
            best = trial;
          }
        }
      }
      if (best != null) {
        trials.add(best);
      }
    }
    trials.sort(Comparator.comparingLong(t -> -worth(t)));
    return trials;
  }

  private static long worth(Trial trial) {
    long useful = trial.frees() - trial.breaks();
    if (useful <= 0) {
      return trial.frees() > 0 ? 0 : Math.min(0, useful);
    }
    return trial.doubtful() ? useful : useful * 1_000;
  }

  /** A step at a place; null if it can't stand there. */
  private @Nullable Trial attempt(Step step, int at) {
    if (step.kind().readsOtherColumns()) {
      // what stands beside a value in other columns differs from row to row
      return new Trial(step, at, null, null, 0, 0, false, List.of());
    }
    List<Step> steps = new ArrayList<>(fill.fill().steps());
    steps.add(at, step);
    CompiledFill tried;
    try {
      Fill with = fill.fill().withSteps(steps);
      tried = compiler.withSteps(fill, with);
    } catch (PorterException e) {
      return null;
    }
    String before = null;
    String after = null;
    boolean shownFree = false;
    long frees = 0;
    List<String> freed = new ArrayList<>();
    for (int i = 0; i < troubled.size(); i++) {
      StageTable.Row was = troubled.get(i);
      CompiledFill.Trace trace = tried.trace(troubledRows.get(i));
      boolean free = trace.problem() == null || trace.softened();
      if (free) {
        frees += was.rows();
        if (freed.size() < FREED_NAMED && was.trace().origin() != null) {
          freed.add(was.trace().origin());
        }
      }
      String received = at == 0 ? trace.origin() : trace.steps().get(at - 1);
      String made = trace.steps().get(at);
      boolean reached = trace.stoppedAt() < 0 || trace.stoppedAt() > at;
      boolean shows = received != null && reached && !Objects.equals(received, made);
      if (shows && (before == null || (free && !shownFree))) {
        before = received;
        after = made;
        shownFree = free;
      }
    }
    long breaks = 0;
    for (int i = 0; i < fine.size(); i++) {
      if (tried.compute(fine.get(i)).rejects()) {
        breaks += fineCounts.get(i);
      }
    }
    return new Trial(step, at, before, after, frees, breaks, step.kind().losesParts(), freed);
  }
}
