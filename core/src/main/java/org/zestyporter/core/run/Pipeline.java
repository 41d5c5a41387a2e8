package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.zestyporter.core.database.Database;
import org.zestyporter.core.database.TableInfo;
import org.zestyporter.core.database.WriteSession;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.ComputedBatch;
import org.zestyporter.core.fill.FillCompiler;
import org.zestyporter.core.fill.Rules;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanCheck;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.PorterException;

/**
 * Takes every row of a source through a plan.
 *
 * <p>Rehearsal and run are the same but for their last stage, so that what was rehearsed is what
 * runs. The first pass notes the keys of all rows; the second decides and writes, batch by batch,
 * while the next batch is computed on another thread.
 *
 * <pre>{@code
 * RunReport report = new Pipeline(database, source, plan, context).rehearse(ledger, Progress.NONE);
 * }</pre>
 */
public final class Pipeline {
  private final Database database;
  private final SourceTable source;
  private final Plan plan;
  private final RunContext context;
  private final Shared shared;

  public Pipeline(Database database, SourceTable source, Plan plan, RunContext context) {
    this(database, source, plan, context, Shared.NONE);
  }

  /**
   * @param shared phrasebooks and checks beside the plan's own
   */
  public Pipeline(
      Database database, SourceTable source, Plan plan, RunContext context, Shared shared) {
    this.database = database;
    this.source = source.corrected(plan.corrections());
    this.plan = plan;
    this.context = context;
    this.shared = shared;
  }

  /** Goes through all rows and writes nothing. */
  public RunReport rehearse(Ledger ledger, Progress progress) {
    return go(null, LastStage.REHEARSAL, ledger, progress);
  }

  /**
   * Goes through all rows and writes them in one transaction.
   *
   * @param number the run's number, for the report
   * @throws PorterException if the database refuses a row (code {@code row-refused}), is lost, or
   *     the books don't balance; nothing is written then
   */
  public RunReport run(String number, Ledger ledger, Progress progress) {
    try (WriteSession session = database.begin()) {
      RunReport report = go(number, LastStage.writing(session), ledger, progress);
      if (!report.balanced()) {
        throw new PorterException(
            PorterException.Kind.DATABASE,
            "unbalanced",
            "The books did not balance: what the table held after writing is not what the file"
                + " gave. Nothing was written.");
      }
      ledger.beforeCommit(report);
      session.commit();
      return report;
    } catch (WriteSession.RefusedException e) {
      throw new PorterException(
          PorterException.Kind.DATABASE,
          "row-refused",
          "The database refused line "
              + e.line()
              + ": "
              + e.getMessage()
              + ". Nothing was written.",
          e);
    }
  }

  private RunReport go(String number, LastStage last, Ledger ledger, Progress progress) {
    long started = System.nanoTime();
    if (source.rowCount() == 0) {
      throw PorterException.input(
          "no-rows",
          "The file has titles but no rows below them, so there is nothing to bring in.");
    }
    if (plan.destinations().isEmpty()) {
      throw PorterException.input("no-destination", "The plan fills no table yet.");
    }
    List<Books> books = new ArrayList<>();
    for (int i = 0; i < plan.destinations().size(); i++) {
      books.add(fill(i, last, ledger, progress));
    }
    double seconds = (System.nanoTime() - started) / 1e9;
    long read = source.rowCount();
    return new RunReport(
        plan.name(),
        context.fileName(),
        number,
        "done",
        read,
        books.stream().map(Books::destination).toList(),
        books.stream().flatMap(b -> b.questions().stream()).toList(),
        books.stream().flatMap(b -> b.problems().stream()).toList(),
        books.stream().flatMap(b -> b.controlTotals().stream()).toList(),
        books.stream().flatMap(b -> b.created().stream()).toList(),
        books.stream().allMatch(b -> b.balanced(read)),
        Math.round(seconds * 1000) / 1000.0,
        Math.round(read / Math.max(seconds, 1e-6)));
  }

  private Books fill(int index, LastStage last, Ledger ledger, Progress progress) {
    Destination destination = plan.destinations().get(index);
    TableInfo table = database.table(destination.table());
    PlanCheck.require(destination, table, source.columns(), shared.phrases(plan)::has);
    List<CompiledFill> fills =
        new FillCompiler(database, source, context, shared.phrases(plan))
            .compile(destination, table);
    Rules rules = new Rules(shared.checksOf(table.name()), destination.checksOff(), table, context);
    Matcher matcher = new Matcher(destination.keys(), table);
    UniqueGuard guard = new UniqueGuard(table, fills, destination.keys());
    note(fills, table, matcher, guard, progress);
    matcher.look(database);
    guard.look(database);

    Books books = new Books(table.name());
    ledger.begin(index, table.name(), fills.stream().map(f -> f.field().name()).toList());
    Decider decider = new Decider(destination, table, fills, matcher, guard, rules);
    BatchWriter writer = new BatchWriter(index, table, fills, last, books, ledger);
    ExecutorService ahead = Executors.newSingleThreadExecutor(r -> daemon(r, "compute"));
    try {
      List<CompiledFill.Memo> memos = fills.stream().map(CompiledFill::memo).toList();
      Future<ComputedBatch> next = compute(ahead, 0, fills, memos);
      long done = 0;
      for (int i = 0; i < source.batches(); i++) {
        ComputedBatch batch = get(next);
        next = i + 1 < source.batches() ? compute(ahead, i + 1, fills, memos) : null;
        requireGoing(progress);
        if (batch.rows() > 0) {
          writer.write(decider.decide(batch, database));
        }
        done += batch.rows();
        progress.at(Progress.Phase.WRITING, done, source.rowCount());
      }
    } finally {
      ahead.shutdownNow();
    }
    return books;
  }

  private void note(
      List<CompiledFill> fills,
      TableInfo table,
      Matcher matcher,
      UniqueGuard guard,
      Progress progress) {
    List<CompiledFill.Memo> memos = fills.stream().map(CompiledFill::memo).toList();
    Object[] byField = new Object[table.fields().size()];
    long done = 0;
    for (int i = 0; i < source.batches(); i++) {
      requireGoing(progress);
      ComputedBatch batch = ComputedBatch.of(source.batch(i), fills, memos, context);
      for (int row = 0; row < batch.rows(); row++) {
        if (!batch.rejected(row)) {
          batch.values(row, byField);
          matcher.note(batch.line(row), byField);
          guard.note(batch.line(row), byField);
        }
      }
      done += batch.rows();
      progress.at(Progress.Phase.MATCHING, done, source.rowCount());
    }
  }

  private Future<ComputedBatch> compute(
      ExecutorService ahead, int batch, List<CompiledFill> fills, List<CompiledFill.Memo> memos) {
    return ahead.submit(() -> ComputedBatch.of(source.batch(batch), fills, memos, context));
  }

  private static ComputedBatch get(Future<ComputedBatch> next) {
    try {
      return next.get();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw stopped();
    } catch (ExecutionException e) {
      if (e.getCause() instanceof RuntimeException cause) {
        throw cause;
      }
      throw new IllegalStateException(e.getCause());
    }
  }

  private static void requireGoing(Progress progress) {
    if (progress.stopped()) {
      throw stopped();
    }
  }

  private static PorterException stopped() {
    return PorterException.input("stopped", "It was stopped. Nothing was written.");
  }

  private static Thread daemon(Runnable task, String name) {
    Thread thread = new Thread(task, name);
    thread.setDaemon(true);
    return thread;
  }
}
