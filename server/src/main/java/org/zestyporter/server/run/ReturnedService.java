package org.zestyporter.server.run;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.stereotype.Component;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.source.ReturnTitles;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.plan.PlanService;
import org.zestyporter.server.source.SourceService;

/** Tells what became of rows that a run rejected, once they were corrected and brought back. */
@Component
class ReturnedService {
  private static final int FATES_TOLD = 1_000;

  private final RunMapper runs;
  private final RunService service;
  private final PlanService plans;
  private final SourceService sources;
  private final LedgerReader ledger;

  ReturnedService(
      RunMapper runs,
      RunService service,
      PlanService plans,
      SourceService sources,
      LedgerReader ledger) {
    this.runs = runs;
    this.service = service;
    this.plans = plans;
    this.sources = sources;
    this.ledger = ledger;
  }

  /**
   * What became of a row.
   *
   * @param line where it stood in the file of the run that rejected it first
   * @param outcome what it came to at last
   * @param run the run in which it did, by its id and its number
   * @param lineThere where it stood in that run's file
   */
  record Fate(long line, Outcome outcome, long run, String number, long lineThere) {}

  /**
   * What became of the rows that a run rejected.
   *
   * @param rejected how many there were
   * @param back how many of them have come back
   * @param outcomes what these came to at last, and how many of them
   * @param fates the first thousand of them, in the order of the file
   */
  record Returned(long rejected, long back, Map<Outcome, Long> outcomes, List<Fate> fates) {}

  /** Nobody knows of a rehearsal's rows: only runs are brought back to. */
  Returned of(long id) {
    ExecutionRecord run = runs.find(id);
    if (run == null || run.number() == null || run.kind().equals("undo")) {
      return new Returned(0, 0, Map.of(), List.of());
    }
    Set<Long> rejected = rejected(run);
    Map<Long, Fate> fates = rejected.isEmpty() ? Map.of() : fates(run, runs.runsAfter(run.id()));
    List<Fate> told = new ArrayList<>();
    Map<Outcome, Long> outcomes = new TreeMap<>();
    fates.forEach(
        (line, fate) -> {
          if (rejected.contains(line)) {
            told.add(fate);
            outcomes.merge(fate.outcome(), 1L, Long::sum);
          }
        });
    return new Returned(
        rejected.size(), told.size(), outcomes, told.subList(0, Math.min(FATES_TOLD, told.size())));
  }

  private Set<Long> rejected(ExecutionRecord run) {
    Set<Long> lines = new HashSet<>();
    for (int destination : runs.destinations(run.id())) {
      LedgerLayout layout = ledger.layout(run.id(), destination);
      ledger
          .all(run.id(), layout)
          .filter(e -> e.outcome() == Outcome.REJECTED)
          .forEach(e -> lines.add(e.line()));
    }
    return lines;
  }

  /** By lines of a run's file, what their rows came to in later runs; those came back again too. */
  private Map<Long, Fate> fates(ExecutionRecord run, List<Long> all) {
    Map<Long, Fate> fates = new TreeMap<>();
    for (long later : all) {
      ExecutionRecord back = later > run.id() ? runs.find(later) : null;
      if (back == null
          || !back.kind().equals("run")
          || !back.hasWritten()
          || service.undoOf(later) != null) {
        continue;
      }
      Map<Integer, Long> lines = linesOf(back, "Run " + run.number());
      if (lines.isEmpty()) {
        continue;
      }
      Map<Long, Fate> again = fates(back, all);
      outcomes(back)
          .forEach(
              (row, entry) -> {
                Long line = lines.get(row);
                if (line != null) {
                  Fate after = again.get(entry.line());
                  fates.put(
                      line,
                      entry.outcome() == Outcome.REJECTED && after != null
                          ? new Fate(
                              line, after.outcome(), after.run(), after.number(), after.lineThere())
                          : new Fate(
                              line, entry.outcome(), back.id(), back.number(), entry.line()));
                }
              });
    }
    return fates;
  }

  /** By rows of a run's file, the lines that its mark says; empty if it brings nothing back. */
  private Map<Integer, Long> linesOf(ExecutionRecord back, String of) {
    Map<Integer, Long> lines = new HashMap<>();
    try {
      if (!of.equals(ReturnTitles.runOf(sources.find(back.sourceId()).columns()))) {
        return lines;
      }
      SourceTable rows =
          plans
              .open(new PlanService.Outline(back.planId(), back.revision(), back.sourceId()))
              .rows();
      int column = rows.column(ReturnTitles.mark(of));
      for (int b = 0; b < rows.batches() && column >= 0; b++) {
        Batch batch = rows.batch(b);
        ColumnChunk cells = batch.columns()[column];
        for (int row = 0; row < batch.lines().length; row++) {
          String line = cells.cell(row).text().strip().replaceFirst("[.,]0+$", "");
          if (line.matches("\\d{1,12}")) {
            lines.put((int) batch.firstRow() + row, Long.valueOf(line));
          }
        }
      }
    } catch (PorterException e) {
      // its file is gone, and with it who came back
      lines.clear();
    }
    return lines;
  }

  /** By rows, what they came to: where one of several tables rejected it, that. */
  private Map<Integer, LedgerEntry> outcomes(ExecutionRecord run) {
    Map<Integer, LedgerEntry> outcomes = new TreeMap<>();
    for (int destination : runs.destinations(run.id())) {
      LedgerLayout layout = ledger.layout(run.id(), destination);
      if (!layout.isMade()) {
        ledger
            .all(run.id(), layout)
            .forEach(
                e ->
                    outcomes.merge(
                        (int) e.row(),
                        e,
                        (one, other) -> other.outcome() == Outcome.REJECTED ? other : one));
      }
    }
    return outcomes;
  }
}
