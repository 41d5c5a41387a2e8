package org.zestyporter.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Settled;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.run.Settlement;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
    name = "run",
    description = "Brings every row in; all or nothing.",
    mixinStandardHelpOptions = true)
final class RunCommand extends PlanCommand {
  @Option(
      names = "--mode",
      paramLabel = "M",
      description = "if the database refuses a row: all-or-nothing, or set-aside")
  String mode;

  @Option(
      names = "--stop-after",
      paramLabel = "N",
      description = "write nothing if more than N rows are rejected")
  Integer stopAfter;

  @Option(
      names = "--home",
      paramLabel = "DIR",
      description = "the data folder, which keeps what an undo needs (PORTER_HOME)")
  Path home;

  @Override
  RunReport go(Pipeline pipeline, Ledger ledger, Progress progress) throws IOException {
    KeptRun kept =
        KeptRun.begin(
            home != null ? home : Server.defaultHome(),
            plan,
            file.getFileName().toString(),
            to,
            null,
            Clock.systemDefaultZone());
    RunReport report;
    try (FolderLedger folder = new FolderLedger(kept, ledger)) {
      report = run(pipeline, kept.description().number(), folder, progress);
    } catch (RuntimeException e) {
      kept.failed(e);
      throw e;
    }
    kept.write(kept.description().in("done"));
    return report;
  }

  @Override
  Plan set(Plan read) {
    RunSettings settings = read.run();
    if (mode != null) {
      settings =
          settings.withMode(
              Arrays.stream(RunSettings.Mode.values())
                  .filter(m -> m.word().equals(mode))
                  .findFirst()
                  .orElseThrow(
                      () ->
                          ErrorCode.WORD.error(
                              "There is no mode “"
                                  + mode
                                  + "”; there are all-or-nothing and set-aside.")));
    }
    if (stopAfter != null) {
      if (stopAfter < 0) {
        throw ErrorCode.NUMBER.error("A run can't bear " + stopAfter + " rejected rows.");
      }
      settings = settings.withStopAfter(stopAfter);
    }
    return read.withRun(settings);
  }

  private RunReport run(Pipeline pipeline, String number, Ledger ledger, Progress progress) {
    Marked marked = new Marked(ledger);
    try {
      return pipeline.run(number, marked, progress);
    } catch (PorterException e) {
      if (e.code() == ErrorCode.UNSURE && marked.settled(Target.open(to, System.getenv()))) {
        return marked.report;
      }
      throw e;
    }
  }

  @Override
  void tell(RunReport report, PrintWriter out) {
    if (report.destinations().stream().anyMatch(d -> d.added() + d.changed() > 0)) {
      out.printf("It can be taken back: ./porter undo %s%n", report.run());
    }
  }

  /** Remembers the books and the mark of the transaction, should its end be in doubt. */
  private static final class Marked implements Ledger {
    private static final int TRIES = 30;

    private final Ledger ledger;
    private RunReport report;
    private String mark;

    Marked(Ledger ledger) {
      this.ledger = ledger;
    }

    @Override
    public void begin(LedgerLayout layout) {
      ledger.begin(layout);
    }

    @Override
    public void append(LedgerChunk chunk) {
      ledger.append(chunk);
    }

    @Override
    public void made(LedgerChunk chunk) {
      ledger.made(chunk);
    }

    @Override
    public boolean isKept() {
      return ledger.isKept();
    }

    @Override
    public void beforeCommit(RunReport books, @Nullable String of) {
      ledger.beforeCommit(books, of);
      report = books;
      mark = of;
    }

    /** True if the run stands; asks for a while, since the database may be starting again. */
    boolean settled(Database database) {
      for (int i = 0; i < TRIES && mark != null; i++) {
        try {
          Settled found = new Settlement(database).byMark(mark);
          if (found != Settled.GOING) {
            return found == Settled.COMMITTED;
          }
          Thread.sleep(1_000);
        } catch (PorterException e) {
          pause();
        } catch (InterruptedException e) {
          Thread.currentThread().interrupt();
          return false;
        }
      }
      return false;
    }

    private static void pause() {
      try {
        Thread.sleep(1_000);
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      }
    }
  }
}
