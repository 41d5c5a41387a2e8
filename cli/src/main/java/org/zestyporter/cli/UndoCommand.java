package org.zestyporter.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Clock;
import java.util.concurrent.Callable;
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
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
    name = "undo",
    description = "Takes a run of the command line back, all or nothing; an undo too.",
    mixinStandardHelpOptions = true)
final class UndoCommand implements Callable<Integer> {
  @Spec CommandSpec spec;

  @Parameters(index = "0", paramLabel = "RUN", description = "its number, such as 2026-0007")
  String number;

  /** What is done with records that were edited since the run. */
  static final class Choice {
    @Option(names = "--keep-edited", description = "records that were edited since stay")
    boolean keep;

    @Option(names = "--put-back", description = "they are put back as they were before the run")
    boolean putBack;

    @Option(
        names = "--put-back-fields",
        description = "only the fields that the run had changed are put back")
    boolean fields;
  }

  @ArgGroup Choice choice;

  @Option(names = "--home", paramLabel = "DIR", description = "the data folder (PORTER_HOME)")
  Path home;

  @Option(names = "--json", description = "print one JSON document")
  boolean json;

  @Override
  public Integer call() throws IOException {
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
      PrintWriter out = spec.commandLine().getOut();
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
          undo.go(kept.description().number(), Decisions.all(decision()), ledger, Progress.NONE);
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

  private Edited decision() {
    return choice == null || choice.keep
        ? Edited.KEEP
        : choice.putBack ? Edited.PUT_BACK : Edited.FIELDS;
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
    PrintWriter out = spec.commandLine().getErr();
    long edited = prospect.parts().stream().mapToLong(Prospect.Part::edited).sum();
    out.printf("%,d of its records were edited since, so nothing was taken back yet:%n", edited);
    for (Prospect.EditedRecord record : prospect.edited().stream().limit(10).toList()) {
      for (Prospect.Versions v : record.fields()) {
        if (!java.util.Objects.equals(v.left(), v.now())) {
          out.printf(
              "  %s %s (line %d), %s: left as %s, now %s%n",
              record.destination(), record.key(), record.line(), v.field(), v.left(), v.now());
        }
      }
    }
    out.println("Say --keep-edited, --put-back or --put-back-fields.");
    out.flush();
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
