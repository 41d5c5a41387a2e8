package org.zestyporter.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Clock;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.undo.Decisions;
import org.zestyporter.core.undo.Edited;
import org.zestyporter.core.undo.Prospect;
import org.zestyporter.core.undo.Undo;
import org.zestyporter.core.value.ErrorCode;

final class UndoCommand extends Command {
  private String number;

  /** What is done with records that were edited since the run; null if it is not said. */
  private @Nullable Edited choice;

  private Path home;
  private boolean json;

  UndoCommand() {
    super("undo", "Takes a run of the command line back, all or nothing; an undo too.");
    parameter("RUN", word -> number = word);
    oneOf(
        flag("keep-edited", "records that were edited since stay", () -> choice = Edited.KEEP),
        flag(
            "put-back",
            "they are put back as they were before the run",
            () -> choice = Edited.PUT_BACK),
        flag(
            "put-back-fields",
            "only the fields that the run had changed are put back",
            () -> choice = Edited.FIELDS));
    option("home", "DIR", "the data folder (PORTER_HOME)", word -> home = path(word));
    option("json", "print one JSON document", () -> json = true);
  }

  @Override
  int call() throws IOException {
    Path folder = home != null ? home : Server.defaultHome();
    KeptRun run = KeptRun.find(folder, number);
    try {
      run.claim();
      return undo(folder, run);
    } finally {
      run.ended();
    }
  }

  private int undo(Path folder, KeptRun run) throws IOException {
    Database database = Target.open(run.description().url(), System.getenv());
    run.settle(database);
    requireStanding(run);
    try (FolderPast past = new FolderPast(run)) {
      Undo undo = new Undo(database, past, past.size());
      if (choice == null) {
        Prospect prospect = undo.look(Progress.NONE);
        if (!prospect.edited().isEmpty()) {
          ask(prospect);
          return Porter.REJECTED;
        }
      }
      RunReport report = go(folder, run, undo);
      if (json) {
        Json.print(out, report);
      } else {
        people(report, out);
      }
      boolean whole =
          report.destinations().stream().allMatch(d -> d.rejected() == 0 && d.skipped() == 0);
      return whole ? Porter.DONE : Porter.REJECTED;
    }
  }

  private RunReport go(Path folder, KeptRun run, Undo undo) throws IOException {
    RunDescription of = run.description();
    KeptRun kept =
        KeptRun.begin(
            folder,
            of.plan(),
            of.context().fileName(),
            null,
            of.url(),
            of.number(),
            Clock.systemDefaultZone());
    RunReport report;
    try (FolderLedger ledger = new FolderLedger(kept, Ledger.NONE)) {
      report =
          undo.go(
              kept.description().number(),
              Decisions.all(choice == null ? Edited.KEEP : choice),
              ledger,
              Progress.NONE);
    } catch (RuntimeException e) {
      kept.failed(e);
      throw e;
    } finally {
      kept.ended();
    }
    run.write(run.description().undoneBy(kept.description().number()));
    standsAgain(folder, of.undoes());
    return report;
  }

  /** A run stands again once its undo is undone. */
  private static void standsAgain(Path folder, @Nullable String run) throws IOException {
    if (run != null) {
      KeptRun again = KeptRun.find(folder, run);
      again.write(again.description().undoneBy(null));
    }
  }

  private static void requireStanding(KeptRun run) {
    RunDescription of = run.description();
    if (of.undoneBy() != null) {
      throw ErrorCode.UNDONE.error(
          "The run " + of.number() + " was taken back already, by " + of.undoneBy() + ".",
          "To have it stand again, undo " + of.undoneBy() + ".");
    }
    if (!of.isAny()) {
      throw ErrorCode.CANT_UNDO.error(
          "The run " + of.number() + " was cut off before anything was written for good.");
    }
  }

  private void ask(Prospect prospect) {
    long edited = prospect.parts().stream().mapToLong(Prospect.Part::edited).sum();
    err.printf("%,d of its records were edited since, so nothing was taken back yet:%n", edited);
    for (Prospect.EditedRecord record : prospect.edited().stream().limit(10).toList()) {
      for (Prospect.Versions v : record.fields()) {
        if (!java.util.Objects.equals(v.left(), v.now())) {
          err.printf(
              "  %s %s (line %d), %s: left as %s, now %s%n",
              record.destination(), record.key(), record.line(), v.field(), v.left(), v.now());
        }
      }
    }
    err.println("Say --keep-edited, --put-back or --put-back-fields.");
    err.flush();
  }

  private static void people(RunReport report, PrintWriter out) {
    out.printf("Undo %s: %,d records written by the run%n", report.run(), report.read());
    for (RunReport.DestinationReport d : report.destinations()) {
      out.printf(
          "%s: %,d removed, %,d put back, %,d brought back, %,d as it was, %,d left, %,d held%n",
          d.table(), d.removed(), d.changed(), d.added(), d.unchanged(), d.skipped(), d.rejected());
    }
    for (RunReport.ProblemGroup p : report.problems()) {
      out.printf("%,8d %s: %s%n", p.rows(), p.destination(), p.reason());
    }
    out.println(report.balanced() ? "Every record is accounted for." : "The books do NOT balance.");
    out.flush();
  }
}
