package org.zestyporter.core.run;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.Lookups;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * Takes every row of a source through a plan.
 *
 * <p>Rehearsal and run are the same but for their last stage, so that what was rehearsed is what
 * runs. First the keys of all rows are noted; then chunk by chunk the rows are decided and written,
 * while the chunks before and after are kept in the ledger and computed on other threads.
 *
 * <pre>{@code
 * RunReport report = new Pipeline(opened).rehearse(ledger, Progress.NONE);
 * }</pre>
 */
public final class Pipeline {
  private static final long WAIT_MILLIS = 200;

  private final OpenedPlan opened;
  private final SourceTable source;
  private final Plan plan;

  public Pipeline(OpenedPlan opened) {
    this.opened = opened;
    this.source = opened.source();
    this.plan = opened.plan();
  }

  /**
   * Goes through all rows, and nothing of it stays. If the plan says so, the database tries
   * everything in a transaction that is taken back, and has its say.
   */
  public RunReport rehearse(Ledger ledger, Progress progress) {
    Application own = opened.application().stoppable();
    // one session, which is never committed
    try (Room room = room(progress);
        Watch watch = Watch.over(progress, own::cancel);
        WriteSession session = own.begin("a rehearsal of “" + plan.name() + "”")) {
      boolean tries = plan.run().tryInDatabase() && own.abilities().trial();
      if (!tries) {
        try (SeenRecords seen = seen(session, filled(own))) {
          LastStage last = LastStage.REHEARSAL;
          return go(opened.through(own, seen), null, last, ledger, progress, null, null);
        }
      }
      claim(own, session, progress);
      LastStage last = LastStage.trying(session);
      RunReport report = go(opened.through(own, session), null, last, ledger, progress, null, null);
      session.check();
      return report;
    } catch (WriteSession.RefusedException e) {
      throw refused(e).and(Standing.told(0, 0));
    } catch (PorterException e) {
      throw progress.stopped() ? stopped().and(Standing.told(0, 0)) : e;
    }
  }

  /**
   * Goes through all rows and writes them, in one transaction or, if the plan says so, batch by
   * batch. Waits while another run writes into the same tables.
   *
   * @param number the run's number, for the report
   * @throws PorterException if it is stopped, the database refuses a row (code {@code
   *     row-refused}), is lost, or the books don't balance; nothing is written then but the batches
   *     that were committed before, and it says how many rows they took in. With code {@code
   *     unsure} the connection broke at the very moment of committing: {@link Settlement} tells
   *     what became of it
   */
  public RunReport run(String number, Ledger ledger, Progress progress) {
    return run(number, ledger, progress, null);
  }

  /**
   * Goes on with a run in batches that was cut off, where it stood. The rows that it took in are
   * taken from its ledger; the others are decided as they would have been then.
   *
   * @param ledger goes on with the ledger of what stands; its parts are begun again
   * @throws PorterException as {@link #run}; with code {@code cant-go-on} if the file's rows or the
   *     tables' fields are others now
   */
  public RunReport resume(String number, Standing standing, Ledger ledger, Progress progress) {
    return run(number, ledger, progress, standing);
  }

  private RunReport run(
      String number, Ledger ledger, Progress progress, @Nullable Standing standing) {
    Application own = opened.application().stoppable();
    own.abilities().requireWriting();
    if (!own.abilities().transactions()) {
      throw ErrorCode.NO_TRANSACTIONS.error(
          "This application can't take back what it was given, so nothing can be brought"
              + " into it all or nothing.");
    }
    int batches = standing == null ? 0 : standing.batches();
    long stood = standing == null ? 0 : standing.rows();
    Committing committing = null;
    try (Room room = room(progress);
        Watch watch = Watch.over(progress, own::cancel);
        WriteSession session = own.begin("Run " + number + " of “" + plan.name() + "”");
        SeenRecords seen = seen(session, staying(own, session))) {
      committing = new Committing(session, ledger, watch, progress, plan.run(), batches, stood);
      claim(own, session, progress);
      Lookups lookups = standing == null ? seen : new AsBefore(session, standing.ledger());
      LastStage last = LastStage.writing(session);
      return go(opened.through(own, lookups), number, last, ledger, progress, committing, standing);
    } catch (WriteSession.RefusedException e) {
      throw refused(e).and(told(committing, stood));
    } catch (PorterException e) {
      if (e.code() == ErrorCode.UNSURE) {
        throw e;
      }
      throw (progress.stopped() ? stopped() : e).and(told(committing, stood));
    }
  }

  private String told(@Nullable Committing committing, long stood) {
    return Standing.told(committing == null ? stood : committing.rows(), source.rowCount());
  }

  /** What was written already can't be linked as it should. */
  private static PorterException refused(WriteSession.RefusedException e) {
    Refusals refusals = new Refusals();
    refusals.add(e.refusal());
    return ErrorCode.ROW_REFUSED.error(refusals.told(), e);
  }

  /** Throws if what was written so far may not be committed. */
  private void require(RunReport report, List<Target> targets, Refusals refusals) {
    if (!refusals.isEmpty() && plan.run().mode() == RunSettings.Mode.ALL_OR_NOTHING) {
      throw ErrorCode.ROW_REFUSED.error(refusals.told());
    }
    if (!report.balanced()) {
      throw ErrorCode.UNBALANCED.error(
          "The books did not balance: records that were written could not be found again.");
    }
    List<String> altered =
        targets.stream().map(t -> t.books.alteredInWords()).filter(Objects::nonNull).toList();
    if (!altered.isEmpty() && plan.run().whenAltered() == RunSettings.WhenAltered.REFUSE) {
      throw ErrorCode.ALTERED.error(
          "The application keeps other values than it was given: "
              + String.join(", ", altered)
              + ". The plan says that this is not accepted.");
    }
  }

  /** True for tables that the plan fills. */
  private Predicate<TableInfo> filled(Application own) {
    return table -> plan.destinations().stream().anyMatch(d -> own.table(d.table()).equals(table));
  }

  /**
   * True for the only table that is written, if a record of it changes only where a row changes
   * just this one: what was seen of another stays true for the run.
   */
  private Predicate<TableInfo> staying(Application own, WriteSession session) {
    Map<String, TableInfo> written = new TreeMap<>();
    written(own, written, new TreeMap<>());
    return table ->
        plan.destinations().size() == 1
            && written.size() == 1
            && written.containsValue(table)
            && table.fields().stream().noneMatch(f -> pointsAt(f, table))
            && session.keeps(table, List.of());
  }

  private static boolean pointsAt(FieldInfo field, TableInfo table) {
    return field.link() != null && field.link().table().equalsIgnoreCase(table.name());
  }

  private Room room(Progress progress) {
    return Room.take(Chunks.weight(opened), progress, source.rowCount());
  }

  /** Keeps the records of some tables that are gone through, if there is room. */
  private SeenRecords seen(Lookups through, Predicate<TableInfo> kept) {
    long room = Runtime.getRuntime().maxMemory() / 2 - Chunks.weight(opened);
    return new SeenRecords(through, kept, source.rowCount(), room, SeenRecords.LEFT);
  }

  /** Has the tables that the plan writes into for itself, waiting for others if need be. */
  private void claim(Application own, WriteSession session, Progress progress) {
    Map<String, TableInfo> written = new TreeMap<>();
    Map<String, TableInfo> lookedUp = new TreeMap<>();
    written(own, written, lookedUp);
    claim(session, written.values(), lookedUp.values(), progress, source.rowCount());
  }

  /** The tables that the plan writes into, and those that it looks links up in. */
  private void written(
      Application own, Map<String, TableInfo> written, Map<String, TableInfo> lookedUp) {
    for (Destination destination : plan.destinations()) {
      TableInfo table = own.table(destination.table());
      written.put(table.name(), table);
      linked(own, table, destination.fills(), written, lookedUp);
    }
  }

  /**
   * Has tables for itself, waiting for others if need be.
   *
   * @throws PorterException with code {@code stopped} if it is stopped meanwhile
   */
  public static void claim(
      WriteSession session,
      Collection<TableInfo> written,
      Collection<TableInfo> lookedUp,
      Progress progress,
      long rows) {
    while (!session.claim(written, lookedUp)) {
      progress.behind(session.behind());
      progress.at(Progress.Phase.WAITING, 0, rows);
      try {
        Thread.sleep(WAIT_MILLIS);
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        throw stopped();
      }
      requireGoing(progress);
    }
    progress.behind(null);
  }

  private static void linked(
      Application own,
      TableInfo table,
      List<Fill> fills,
      Map<String, TableInfo> written,
      Map<String, TableInfo> lookedUp) {
    for (Fill fill : fills) {
      FieldInfo field = table.find(fill.field());
      Origin.Link link = fill.origin() == null ? null : fill.origin().link();
      if (field == null || field.link() == null || link == null) {
        continue;
      }
      TableInfo to = own.table(field.link().table());
      if (link.whenMissing() == Origin.WhenMissing.CREATE) {
        written.put(to.name(), to);
        linked(own, to, link.create(), written, lookedUp);
      } else {
        lookedUp.put(to.name(), to);
      }
    }
  }

  private RunReport go(
      OpenedPlan own,
      @Nullable String number,
      LastStage last,
      Ledger ledger,
      Progress progress,
      @Nullable Committing committing,
      @Nullable Standing standing) {
    long started = System.nanoTime();
    if (source.rowCount() == 0) {
      throw ErrorCode.NO_ROWS.error(
          "The file has titles but no rows below them, so there is nothing to bring in.");
    }
    if (plan.destinations().isEmpty()) {
      throw ErrorCode.NO_DESTINATION.error("The plan fills no table yet.");
    }
    own.require();
    Unconfirmed unconfirmed = new Unconfirmed(own);
    if (last.stays()) {
      unconfirmed.require();
    }
    List<Target> targets = Targets.open(own);
    Bearing bearing = new Bearing(plan.run(), source.rowCount());
    try (Chunks chunks = new Chunks(source, targets);
        LedgerWriter kept = new LedgerWriter(ledger)) {
      targets.stream()
          .filter(target -> target.matcher.willAskForAll(source.rowCount()))
          .forEach(target -> own.lookups().expect(target.table));
      new Noting(own, targets, chunks, false).go(progress);
      kept.begin(targets, standing);
      Replay replay = standing == null ? null : new Replay(standing, targets);
      boolean isQuiet =
          last.writes() && staying(own.application(), last.open()).test(targets.get(0).table);
      Passage passage =
          new Passage(targets, own.lookups(), last, kept, plan.run().rows(), isQuiet, replay);
      try (passage;
          Finding finding = new Finding(chunks, passage, passage.findsAhead())) {
        long done = 0;
        for (int i = 0; i < chunks.count(); i++) {
          ChunkRows chunk = finding.next(i);
          requireGoing(progress);
          done += chunk.count();
          if (chunk.count() > 0) {
            passage.take(chunk);
            boolean isDue = committing != null && committing.isDue(chunk.end());
            if (isDue) {
              passage.settle();
            }
            bear(bearing, targets, chunk, last, progress);
            if (isDue && i + 1 < chunks.count()) {
              kept.flush();
              passage.keepOpen(kept);
              RunReport soFar = report(targets, unconfirmed, number, "going", done, started);
              require(soFar, targets, passage.refusals());
              passage.without(() -> committing.commit(soFar, chunk.end(), false));
            }
          }
          progress.at(Progress.Phase.WRITING, done, source.rowCount());
        }
        passage.finish();
      }
      kept.finish();
      bear(bearing, targets, null, last, progress);
      RunReport report = report(targets, unconfirmed, number, "done", source.rowCount(), started);
      if (committing != null) {
        require(report, targets, passage.refusals());
        committing.commit(report, source.rowCount(), true);
      }
      return report;
    }
  }

  private static void bear(
      Bearing bearing,
      List<Target> targets,
      @Nullable ChunkRows chunk,
      LastStage last,
      Progress progress) {
    long rejected = targets.stream().mapToLong(t -> t.books.count(Outcome.REJECTED)).sum();
    long waiting = targets.stream().mapToLong(t -> t.books.waiting()).sum();
    // a run rejects what nobody has answered
    progress.rejected(last.stays() ? rejected : rejected - waiting);
    if (chunk != null && chunk.past != null) {
      // they were borne before it was cut off
      bearing.bore(rejected);
    } else if (last.stays()) {
      bearing.require(rejected);
    }
  }

  /**
   * The books.
   *
   * @param done rows gone through
   */
  private RunReport report(
      List<Target> targets,
      Unconfirmed unconfirmed,
      @Nullable String number,
      String state,
      long done,
      long started) {
    double seconds = (System.nanoTime() - started) / 1e9;
    List<Books> books = targets.stream().map(t -> t.books).toList();
    Created created = new Created();
    books.forEach(b -> created.add(b.created().told(), b.created().counts()));
    return new RunReport(
        plan.name(),
        opened.context().fileName(),
        number,
        state,
        source.rowCount(),
        books.stream().map(Books::destination).toList(),
        Stream.concat(unconfirmed.questions(), books.stream().flatMap(b -> b.questions().stream()))
            .toList(),
        books.stream().flatMap(b -> b.problems().stream()).toList(),
        books.stream().flatMap(b -> b.controlTotals().stream()).toList(),
        created.told(),
        created.counts(),
        books.stream().allMatch(Books::balanced),
        Math.round(seconds * 1000) / 1000.0,
        Math.round(done / Math.max(seconds, 1e-6)));
  }

  /**
   * @throws PorterException with code {@code stopped} if it is to stop
   */
  public static void requireGoing(Progress progress) {
    if (progress.stopped()) {
      throw stopped();
    }
  }

  /** What is thrown once it was stopped. */
  public static PorterException stopped() {
    return ErrorCode.STOPPED.error("It was stopped.");
  }
}
