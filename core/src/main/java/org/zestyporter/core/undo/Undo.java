package org.zestyporter.core.undo;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.run.Batch;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.run.Watch;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * Takes a run back, in one transaction: what was written last goes first, so that records go before
 * those that they belong to. An undo keeps a ledger like any run, and can be undone by it.
 *
 * <pre>{@code
 * Undo undo = new Undo(application, past);
 * Prospect prospect = undo.look(Progress.NONE);
 * undo.go("2026-0008", Decisions.all(Edited.KEEP), ledger, Progress.NONE);
 * }</pre>
 */
public final class Undo {
  /** Records up to which an undo is tried in the database beforehand. */
  private static final long TRIED = 20_000;

  private static final int SHOWN = 200;

  private final Application application;
  private final Past past;
  private final long size;

  /**
   * @param size number of records that the run added, changed or removed
   */
  public Undo(Application application, Past past, long size) {
    this.application = application;
    this.past = past;
    this.size = size;
  }

  /**
   * Tells what it would do, and changes nothing. A smaller one is tried in a transaction that is
   * taken back, so that the database has its say, unless another run is writing just then.
   *
   * @throws PorterException with code {@code cant-undo} if a table has lost fields of the records
   */
  public Prospect look(Progress progress) {
    Application own = application.stoppable();
    try (WriteSession session = own.begin()) {
      List<UndonePart> parts = parts(own);
      // nobody is kept from writing, nor waited for, by a look
      boolean tries =
          size <= TRIED && own.abilities().trial() && session.claim(tables(parts), List.of());
      Looking looking = new Looking();
      Taking taking = new Taking(session, tries, Decisions.all(Edited.KEEP), looking, progress);
      taking.all(parts);
      return new Prospect(
          inOrder(parts).map(looking::told).toList(), tries, looking.edited, looking.held);
    }
  }

  /**
   * Takes the run back.
   *
   * @param number the undo's own number, for the report
   * @throws PorterException if it is stopped or the database is lost: nothing is taken back then.
   *     With code {@code unsure} the connection broke at the very moment of committing
   */
  public RunReport go(String number, Decisions decisions, Ledger ledger, Progress progress) {
    long started = System.nanoTime();
    Application own = application.stoppable();
    own.abilities().requireWriting();
    try (Watch watch = Watch.over(progress, own::cancel);
        WriteSession session = own.begin("Undo " + number + " of “" + past.plan() + "”")) {
      List<UndonePart> parts = parts(own);
      Pipeline.claim(session, tables(parts), List.of(), progress, size);
      Books books = new Books(ledger);
      parts.forEach(p -> ledger.begin(p.layout));
      new Taking(session, true, decisions, books, progress).all(parts);
      double seconds = (System.nanoTime() - started) / 1e9;
      RunReport report = books.report(past, number, parts, seconds);
      if (!report.balanced()) {
        throw ErrorCode.UNBALANCED.error(
            "The books did not balance: some records of the run were not accounted for.");
      }
      watch.without(
          () -> {
            Batch batch = new Batch(1, size, true);
            String mark = session.mark();
            Pipeline.requireGoing(progress);
            ledger.beforeCommit(batch, report, mark);
            session.commit();
            ledger.committed(batch);
          });
      return report;
    } catch (PorterException e) {
      if (e.code() == ErrorCode.UNSURE) {
        throw e;
      }
      throw (progress.stopped() ? Pipeline.stopped() : e).and("Nothing was taken back.");
    }
  }

  private static List<TableInfo> tables(List<UndonePart> parts) {
    return parts.stream().map(p -> p.table).distinct().toList();
  }

  private List<UndonePart> parts(Application own) {
    List<UndonePart> parts = new ArrayList<>();
    for (LedgerLayout layout : past.layouts()) {
      parts.add(0, new UndonePart(layout, own.table(layout.table())));
    }
    return parts;
  }

  /** In the order of the plan, with the linked records last. */
  private static Stream<UndonePart> inOrder(List<UndonePart> parts) {
    return parts.stream().sorted(Comparator.comparingInt(p -> p.past.destination()));
  }

  /** Hears of the chunks that are done. */
  private interface Done {
    void decided(UndoneChunk chunk, int e, boolean edited);

    void written(UndoneChunk chunk);
  }

  /** Goes back through all parts. */
  private final class Taking {
    private final WriteSession session;
    private final boolean writes;
    private final Decisions decisions;
    private final Done done;
    private final Progress progress;
    private final Deferred deferred;
    private long rows;

    Taking(
        WriteSession session, boolean writes, Decisions decisions, Done done, Progress progress) {
      this.session = session;
      this.writes = writes;
      this.decisions = decisions;
      this.done = done;
      this.progress = progress;
      this.deferred = new Deferred(session, !past.isUndo());
    }

    void all(List<UndonePart> parts) {
      for (UndonePart part : parts) {
        past.fromTheLast(part.past, chunk -> take(part, chunk));
      }
      deferred.retry();
      deferred.rest().forEach(this::finish);
    }

    private void take(UndonePart part, LedgerChunk chunk) {
      Pipeline.requireGoing(progress);
      int[] entries = UndoneChunk.written(chunk);
      if (entries.length == 0) {
        return;
      }
      List<List<Object>> keys =
          Arrays.stream(entries)
              .mapToObj(i -> chunk.keys()[i])
              .filter(java.util.Objects::nonNull)
              .toList();
      Records now = keys.isEmpty() ? Records.none() : session.fetch(part.table, keys);
      UndoneChunk undone = new UndoneChunk(part, chunk, entries, now);
      for (int e = 0; e < entries.length; e++) {
        done.decided(undone, e, undone.decide(e, decisions));
      }
      boolean open = writes && deferred.write(undone);
      if (!open) {
        finish(undone);
      }
      rows += entries.length;
      progress.at(Progress.Phase.WRITING, rows, size);
    }

    private void finish(UndoneChunk chunk) {
      List<List<Object>> keys = writes ? chunk.stands() : List.of();
      if (!keys.isEmpty()) {
        chunk.left(session.fetch(chunk.part.table, keys));
      }
      done.written(chunk);
    }
  }

  /** Adds up what would be done. */
  private static final class Looking implements Done {
    private final List<Prospect.EditedRecord> edited = new ArrayList<>();
    private final List<Prospect.HeldRecord> held = new ArrayList<>();

    @Override
    public void decided(UndoneChunk chunk, int e, boolean wasEdited) {
      if (wasEdited) {
        chunk.part.edited++;
        if (edited.size() < SHOWN) {
          edited.add(chunk.edited(e));
        }
      }
    }

    @Override
    public void written(UndoneChunk chunk) {
      for (int e = 0; e < chunk.size(); e++) {
        chunk.part.outcomes[chunk.outcome(e).ordinal()]++;
        if (chunk.outcome(e) == Outcome.REJECTED && held.size() < SHOWN) {
          String reason = chunk.notes(e).get(chunk.notes(e).size() - 1).reason();
          held.add(
              new Prospect.HeldRecord(
                  chunk.part.label(), chunk.line(e), chunk.shownKey(e), reason));
        }
      }
    }

    Prospect.Part told(UndonePart part) {
      return new Prospect.Part(
          part.label(),
          part.table.name(),
          part.outcomes[Outcome.REMOVED.ordinal()],
          part.outcomes[Outcome.CHANGED.ordinal()],
          part.outcomes[Outcome.NEW.ordinal()],
          part.edited,
          part.outcomes[Outcome.SKIPPED.ordinal()] - part.edited,
          part.outcomes[Outcome.REJECTED.ordinal()]);
    }
  }

  /** Keeps the ledger of what was done, and its books. */
  private static final class Books implements Done {
    private final Ledger ledger;
    private final Reasons reasons = new Reasons();
    private long read;

    Books(Ledger ledger) {
      this.ledger = ledger;
    }

    @Override
    public void decided(UndoneChunk chunk, int e, boolean edited) {
      read++;
    }

    @Override
    public void written(UndoneChunk chunk) {
      for (int e = 0; e < chunk.size(); e++) {
        chunk.part.outcomes[chunk.outcome(e).ordinal()]++;
        int[] changed = chunk.changed(e);
        IntStream.of(changed == null ? new int[0] : changed).forEach(f -> chunk.part.changed[f]++);
        reasons.count(chunk, e);
      }
      ledger.append(chunk.ledger());
    }

    RunReport report(Past past, @Nullable String number, List<UndonePart> parts, double seconds) {
      List<RunReport.DestinationReport> reports = inOrder(parts).map(Books::report).toList();
      return new RunReport(
          past.plan(),
          past.source(),
          number,
          "done",
          read,
          reports,
          List.of(),
          reasons.groups(),
          List.of(),
          List.of(),
          List.of(),
          reports.stream().mapToLong(RunReport.DestinationReport::total).sum() == read,
          Math.round(seconds * 1000) / 1000.0,
          Math.round(read / Math.max(seconds, 1e-6)));
    }

    private static RunReport.DestinationReport report(UndonePart part) {
      List<RunReport.FieldCount> fields =
          IntStream.range(0, part.changed.length)
              .filter(f -> part.changed[f] > 0)
              .mapToObj(f -> new RunReport.FieldCount(part.field(f).name(), part.changed[f]))
              .sorted(Comparator.comparingLong(c -> -c.records()))
              .toList();
      long[] outcomes = part.outcomes;
      return new RunReport.DestinationReport(
          part.label(),
          outcomes[Outcome.NEW.ordinal()],
          outcomes[Outcome.CHANGED.ordinal()],
          outcomes[Outcome.UNCHANGED.ordinal()],
          outcomes[Outcome.SKIPPED.ordinal()],
          outcomes[Outcome.REJECTED.ordinal()],
          fields,
          part.total(),
          outcomes[Outcome.REMOVED.ordinal()],
          null);
    }
  }
}
