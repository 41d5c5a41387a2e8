package org.zestyporter.cli;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.run.Standing;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

final class RunCommand extends PlanCommand {
  private static final int TRIES = 30;
  private static final long PAUSE_MILLIS = 1_000;

  private String mode;
  private Integer batch;
  private String stopAfter;
  private String resume;
  private Path home;
  private Path returnsFile;
  private KeptRun kept;

  RunCommand() {
    super("run", "Brings every row in: all or nothing, or in batches.");
    option(
        "mode",
        "M",
        "if the database refuses a row: all-or-nothing, set-aside, or batches, which sets it aside"
            + " and makes some thousand rows lasting at a time",
        word -> mode = word);
    option(
        "batch",
        "ROWS",
        "rows that are made lasting together, at least (10,000)",
        word -> batch = number(word));
    option(
        "stop-after",
        "N",
        "end the run if more than N rows, or N% of them, are rejected",
        word -> stopAfter = word);
    option(
        "resume",
        "RUN",
        "go on with a run in batches that was cut off, such as 2026-0007",
        word -> resume = word);
    option(
        "home",
        "DIR",
        "the data folder, which keeps what undo and resume need (PORTER_HOME)",
        word -> home = path(word));
    option(
        "returns",
        "OUT.xlsx",
        "where to write the rejected rows, to be corrected and brought back (.xlsx or .csv)",
        word -> returnsFile = path(word));
  }

  @Override
  @Nullable Path returns() {
    return returnsFile;
  }

  @Override
  String doing() {
    return "writing";
  }

  @Override
  int call() throws IOException {
    try {
      return super.call();
    } finally {
      if (kept != null) {
        kept.ended();
      }
    }
  }

  @Override
  RunReport go(
      Database database, Function<RunContext, Pipeline> pipelines, Ledger ledger, Progress progress)
      throws IOException {
    if (resume == null) {
      kept =
          KeptRun.begin(
              folder(),
              plan.name(),
              file.getFileName().toString(),
              plan.run().mode() == RunSettings.Mode.BATCHES ? fingerprint() : null,
              to,
              null,
              Clock.systemDefaultZone());
      kept.keep(plan);
    } else {
      kept.settle(database);
      if (kept.description().isDone()) {
        return kept.description().stands().report();
      }
    }
    Thread told = new Thread(this::cutOff);
    Runtime.getRuntime().addShutdownHook(told);
    try (FolderLedger folder = new FolderLedger(kept, ledger)) {
      return run(database, pipelines.apply(kept.description().context()), folder, ledger, progress);
    } catch (PorterException e) {
      kept.failed(e);
      String next = next(e);
      throw next == null ? e : e.and(next);
    } catch (RuntimeException e) {
      kept.failed(e);
      throw e;
    } finally {
      remove(told);
    }
  }

  private static void remove(Thread hook) {
    try {
      Runtime.getRuntime().removeShutdownHook(hook);
    } catch (IllegalStateException e) {
      // it is being done
    }
  }

  /** What can be done next; null if that goes without saying. */
  private @Nullable String next(PorterException e) {
    boolean couldStand =
        e.code() == ErrorCode.ROW_REFUSED && plan.run().mode() == RunSettings.Mode.ALL_OR_NOTHING;
    return couldStand
        ? "With --mode set-aside the others are brought in, and such lines rejected."
        : goesOn();
  }

  /** What can be done with a run that was cut off; null if nothing of it stands. */
  private @Nullable String goesOn() {
    RunDescription of = kept.description();
    return of.isDone() || of.stands().batches() == 0
        ? null
        : "It goes on with --resume "
            + of.number()
            + ", and “undo "
            + of.number()
            + "” takes it back.";
  }

  private void cutOff() {
    String goesOn = goesOn();
    if (goesOn != null) {
      RunDescription.Part stands = kept.description().stands();
      System.err.println();
      System.err.println(Standing.told(stands.rows(), stands.report().read()) + " " + goesOn);
    }
  }

  private Path folder() {
    return home != null ? home : Server.defaultHome();
  }

  /** What tells the plan and the file from others. */
  private String fingerprint() throws IOException {
    try {
      MessageDigest digest = MessageDigest.getInstance("SHA-256");
      for (Path part : List.of(planFile, file)) {
        try (InputStream bytes = new DigestInputStream(Files.newInputStream(part), digest)) {
          bytes.transferTo(OutputStream.nullOutputStream());
        }
      }
      return HexFormat.of().formatHex(digest.digest());
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  @Override
  Plan set(Plan read) {
    Plan set = resume == null ? read.withRun(mode(read.run())) : resumed();
    return stopAfter == null ? set : set.withRun(stopAfter(set.run()));
  }

  private RunSettings mode(RunSettings settings) {
    RunSettings set = settings;
    if (mode != null) {
      set =
          set.withMode(
              Arrays.stream(RunSettings.Mode.values())
                  .filter(m -> m.word().equals(mode))
                  .findFirst()
                  .orElseThrow(
                      () ->
                          ErrorCode.WORD.error(
                              "There is no mode “"
                                  + mode
                                  + "”; there are all-or-nothing, set-aside and batches.")));
    }
    if (batch != null) {
      set = set.withBatchRows(batch);
    }
    set.require();
    return set;
  }

  private RunSettings stopAfter(RunSettings settings) {
    boolean percent = stopAfter.endsWith("%");
    String digits = percent ? stopAfter.substring(0, stopAfter.length() - 1) : stopAfter;
    if (!digits.strip().matches("-?\\d{1,9}")) {
      throw ErrorCode.NUMBER.error(
          "--stop-after takes a number of rows, or a share of them such as 5%, and not “"
              + stopAfter
              + "”.");
    }
    int number = Integer.parseInt(digits.strip());
    RunSettings set =
        percent ? settings.withStopAfterPercent(number) : settings.withStopAfter(number);
    set.require();
    return set;
  }

  /** The plan of a run that was cut off, as it was begun. */
  private Plan resumed() {
    if (mode != null || batch != null) {
      throw ErrorCode.CANT_GO_ON.error(
          "A run goes on as it was begun: --mode and --batch can't be said again.");
    }
    try {
      kept = KeptRun.find(folder(), resume);
      kept.claim();
      RunDescription of = kept.description();
      if (of.fingerprint() == null) {
        throw ErrorCode.CANT_GO_ON.error("The run " + resume + " was not made in batches.");
      }
      if (of.undoneBy() != null) {
        throw ErrorCode.CANT_GO_ON.error(
            "What stood of the run " + resume + " was taken back by " + of.undoneBy() + ".");
      }
      if (!of.fingerprint().equals(fingerprint())) {
        throw ErrorCode.CANT_GO_ON.error(
            "The plan or the file is not the one that the run " + resume + " began with.",
            "Give it both as they were, or take back what stands of it with undo.");
      }
      to = to == null ? of.url() : to;
      return kept.plan();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private RunReport run(
      Database database, Pipeline pipeline, FolderLedger ledger, Ledger written, Progress progress)
      throws IOException {
    RunDescription of = kept.description();
    try {
      if (of.stands().batches() == 0) {
        return pipeline.run(of.number(), ledger, progress);
      }
      RunDescription.Part stands = of.stands();
      try (FolderPast past = new FolderPast(kept)) {
        past.tell(written);
        Standing standing = new Standing(stands.batches(), stands.rows(), stands.report(), past);
        return pipeline.resume(of.number(), standing, ledger, progress);
      }
    } catch (PorterException e) {
      if (e.code() == ErrorCode.UNSURE && isDone(database)) {
        return kept.description().stands().report();
      }
      throw e;
    }
  }

  /** True if all of the run stands; asks for a while, since the database may be starting again. */
  private boolean isDone(Database database) throws IOException {
    for (int i = 0; i < TRIES; i++) {
      try {
        kept.settle(database);
        return kept.description().isDone();
      } catch (PorterException e) {
        try {
          Thread.sleep(PAUSE_MILLIS);
        } catch (InterruptedException interrupted) {
          Thread.currentThread().interrupt();
          return false;
        }
      }
    }
    return false;
  }

  @Override
  void tell(RunReport report, PrintWriter out) {
    if (report.destinations().stream().anyMatch(d -> d.added() + d.changed() > 0)) {
      out.printf("It can be taken back: ./porter undo %s%n", report.run());
    }
  }
}
