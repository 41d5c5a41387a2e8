package org.zestyporter.server.run;

import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.RecordFile;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** Gives the record of a rehearsal or run as a file that can be put by. */
@Component
class RecordService {
  private final RunMapper runs;
  private final RunService service;
  private final LedgerReader ledger;

  RecordService(RunMapper runs, RunService service, LedgerReader ledger) {
    this.runs = runs;
    this.service = service;
    this.ledger = ledger;
  }

  /**
   * The record of what is over.
   *
   * @throws PorterException if there is no such run, or it has no books
   */
  RecordFile of(long id) {
    RunService.RunView run = service.find(id);
    if (run.report() == null) {
      throw ErrorCode.NO_LEDGER.error(
          "There are no books of it: it is " + run.state() + ", and nothing was accounted for.");
    }
    List<RecordFile.Part> parts = new ArrayList<>();
    for (int destination : runs.destinations(id)) {
      LedgerLayout layout = ledger.layout(id, destination);
      parts.add(new RecordFile.Part(layout, () -> ledger.all(id, layout)));
    }
    return new RecordFile(facts(run), run.report(), parts);
  }

  private List<Map.Entry<String, String>> facts(RunService.RunView run) {
    List<Map.Entry<String, String>> facts = new ArrayList<>();
    facts.add(
        Map.entry(
            run.number() == null ? "Rehearsal" : run.undoes() == null ? "Run" : "Undo",
            run.number() == null ? String.valueOf(run.id()) : run.number()));
    facts.add(Map.entry("Plan", run.planName() + ", revision " + run.revision()));
    facts.add(Map.entry("File", run.source()));
    if (run.checksum() != null) {
      facts.add(Map.entry("SHA-256 of the file", run.checksum()));
    }
    facts.add(Map.entry("Begun by", run.startedBy()));
    facts.add(Map.entry("Begun", moment(run.startedAt())));
    facts.add(Map.entry("Ended", moment(run.finishedAt())));
    facts.add(Map.entry("State", run.state()));
    facts.add(Map.entry("Rows read", String.valueOf(run.report().read())));
    facts.add(Map.entry("Adds up", run.report().balanced() ? "yes" : "no"));
    return facts;
  }

  private static String moment(@Nullable LocalDateTime at) {
    return at == null ? "" : at.truncatedTo(ChronoUnit.SECONDS).toString().replace('T', ' ');
  }

  /** What its file is called, without its ending. */
  String fileName(long id) {
    return runs.find(id).fileName("record");
  }
}
