package org.zestyporter.server.run;

import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.Returns;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.plan.PlanService;

/** Makes the file of the rows that a rehearsal or run rejected. */
@Service
class ReturnsService {
  private final RunMapper runs;
  private final PlanService plans;
  private final LedgerReader ledger;

  ReturnsService(RunMapper runs, PlanService plans, LedgerReader ledger) {
    this.runs = runs;
    this.plans = plans;
    this.ledger = ledger;
  }

  /**
   * The rejected rows of a rehearsal or run, as its plan was then.
   *
   * @throws PorterException with code {@code no-returns} if there are none
   */
  Returns of(long id) {
    ExecutionRecord run = runs.find(id);
    if (run == null || run.kind().equals("undo")) {
      throw ErrorCode.NO_SUCH_RUN.error("There is no such run any more.");
    }
    PlanService.Opened opened =
        plans.open(new PlanService.Outline(run.planId(), run.revision(), run.sourceId()));
    Returns returns = new Returns(opened.now(run.startedBy()), name(run));
    for (int d = 0; d < opened.plan().destinations().size(); d++) {
      int destination = d;
      LedgerLayout layout = ledger.layout(id, d);
      try (Stream<LedgerEntry> entries = ledger.all(id, layout)) {
        entries.forEach(e -> returns.add(destination, e));
      }
    }
    if (returns.size() == 0) {
      throw ErrorCode.NO_RETURNS.error("No row was rejected, so there is none to take away.");
    }
    return returns;
  }

  /** What its file is called, without its ending. */
  String fileName(long id) {
    return runs.find(id).fileName("returns");
  }

  private static String name(ExecutionRecord run) {
    return run.number() == null ? "Rehearsal " + run.id() : "Run " + run.number();
  }
}
