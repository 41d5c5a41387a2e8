package org.zestyporter.core.run;

import static org.mockito.AdditionalAnswers.delegatesTo;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doReturn;
import static org.mockito.Mockito.mock;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.List;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;

/** Rehearses and runs plans that are written as JSON, on files that are written as text. */
public final class Runs {
  private static final RunContext CONTEXT =
      new RunContext("odile", LocalDateTime.of(2026, 11, 25, 9, 0), "file.csv");

  private Runs() {}

  public static RunReport rehearse(
      Databases.Fresh on, Path folder, String plan, String file, Ledger ledger) throws IOException {
    return go(on, folder, plan, file, pipeline -> pipeline.rehearse(ledger, Progress.NONE));
  }

  public static RunReport run(
      Databases.Fresh on, Path folder, String plan, String file, Ledger ledger) throws IOException {
    return go(on, folder, plan, file, p -> p.run("2026-0001", ledger, Progress.NONE));
  }

  /** Runs what was drafted for a table, without its keys; all guesses are right. */
  public static RunReport run(
      Databases.Fresh on, Path folder, Destination drafted, Ledger ledger, String... lines)
      throws IOException {
    List<Fill> fills = drafted.fills().stream().map(f -> f.withGuess(false)).toList();
    Destination bare = new Destination(drafted.table(), fills, drafted.keys(), null);
    Plan plan = new Plan("As drafted", null, Reading.FIND, List.of(bare), null);
    return run(on, folder, PlanJson.write(plan), String.join("\n", lines), ledger);
  }

  /** The same for a plan that is put together. */
  static RunReport go(
      Databases.Fresh on, Path folder, Plan plan, List<String> lines, Ledger ledger, boolean run)
      throws IOException {
    String document = PlanJson.write(plan);
    String file = String.join("\n", lines) + "\n";
    return run
        ? run(on, folder, document, file, ledger)
        : rehearse(on, folder, document, file, ledger);
  }

  /** Runs and hears of how far it comes, which may stop it. */
  public static RunReport run(
      Databases.Fresh on, Path folder, String plan, String file, Ledger ledger, Progress progress)
      throws IOException {
    return go(on, folder, plan, file, p -> p.run("2026-0001", ledger, progress));
  }

  /** Goes on with what stands of a run. */
  public static RunReport resume(
      Databases.Fresh on,
      Path folder,
      String plan,
      String file,
      MemoryLedger ledger,
      Progress progress)
      throws IOException {
    return go(
        on, folder, plan, file, p -> p.resume("2026-0001", ledger.standing(), ledger, progress));
  }

  /** Runs with a session of somebody's own, which may be watched. */
  static RunReport run(
      Databases.Fresh on,
      WriteSession session,
      Path folder,
      String plan,
      String file,
      Ledger ledger)
      throws IOException {
    Application application = mock(Application.class, delegatesTo(on.database()));
    doReturn(application).when(application).stoppable();
    doReturn(application).when(application).with(any());
    doReturn(session).when(application).begin(any());
    Path csv = Files.writeString(folder.resolve("file.csv"), file);
    try (SourceTable source = SourceReader.open(csv, folder.resolve("cells"), Reading.FIND)) {
      return new Pipeline(
              new OpenedPlan(application, source, PlanJson.read(plan), CONTEXT, Shared.NONE))
          .run("2026-0001", ledger, Progress.NONE);
    }
  }

  interface Deed {
    RunReport of(Pipeline pipeline);
  }

  static RunReport go(Databases.Fresh on, Path folder, String plan, String file, Deed deed)
      throws IOException {
    Path csv = folder.resolve("file.csv");
    Files.writeString(csv, file);
    on.database().forget();
    try (SourceTable source = SourceReader.open(csv, folder.resolve("cells"), Reading.FIND)) {
      return deed.of(new Pipeline(opened(on, source, PlanJson.read(plan))));
    }
  }

  /** Opens a source of some lines. */
  static SourceTable source(Path folder, String... lines) throws IOException {
    Path csv = folder.resolve("lines.csv");
    Files.writeString(csv, String.join("\n", lines) + "\n");
    return SourceReader.open(csv, folder.resolve("lines-cells"), Reading.FIND);
  }

  static OpenedPlan opened(Databases.Fresh on, SourceTable source, Plan plan) {
    return new OpenedPlan(on.database(), source, plan, CONTEXT, Shared.NONE);
  }

  /** Somebody who has enough after a little while. */
  public static Progress stoppedSoon() {
    long begun = System.nanoTime();
    return new Progress() {
      @Override
      public void at(Phase phase, long rows, long total) {
        // nobody looks on
      }

      @Override
      public boolean stopped() {
        return System.nanoTime() - begun > 700_000_000L;
      }
    };
  }
}
