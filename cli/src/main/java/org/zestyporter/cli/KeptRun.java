package org.zestyporter.cli;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.LocalDateTime;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Settled;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.Settlement;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.store.Lasting;
import org.zestyporter.server.store.OwnerOnly;

/**
 * A run of the command line as it is kept in the data folder, so that it can be undone: a folder of
 * its own with a description and a ledger. Runs are kept for 90 days.
 */
final class KeptRun {
  private static final Duration KEPT = Duration.ofDays(90);
  private static final int MOST = 10_000;

  private final Path folder;
  private RunDescription description;
  private @Nullable FileChannel claim;

  private KeptRun(Path folder, RunDescription description) {
    this.folder = folder;
    this.description = description;
  }

  /**
   * Begins a run under the next number of the year, such as {@code 2026-0007}.
   *
   * @param fingerprint what tells its plan and its file from others; null if it can't go on anyway
   */
  static KeptRun begin(
      Path home,
      String plan,
      String file,
      @Nullable String fingerprint,
      String url,
      @Nullable String undoes,
      Clock clock)
      throws IOException {
    Path all = OwnerOnly.folder(home.resolve("runs"));
    sweep(all, clock);
    LocalDateTime now = LocalDateTime.now(clock);
    int year = now.getYear();
    for (int n = highest(all, year) + 1; n < MOST; n++) {
      String number = String.format("%d-%04d", year, n);
      try {
        Files.createDirectory(all.resolve(number));
      } catch (FileAlreadyExistsException e) {
        // another one has just taken it
        continue;
      }
      RunContext context = new RunContext(System.getProperty("user.name"), now, file, number);
      KeptRun run =
          new KeptRun(
              OwnerOnly.folder(all.resolve(number)),
              new RunDescription(
                  number,
                  plan,
                  url,
                  "going",
                  context,
                  fingerprint,
                  RunDescription.Part.NOTHING,
                  null,
                  null,
                  undoes,
                  null,
                  List.of()));
      run.claim();
      run.write(run.description);
      return run;
    }
    throw ErrorCode.NUMBER.error("There are too many runs of this year in " + all + ".");
  }

  /**
   * Has the run for this process alone, until it ends.
   *
   * @throws PorterException if another process has it
   */
  void claim() throws IOException {
    Path file = OwnerOnly.file(folder.resolve("claim"));
    // held until the process ends, however it does
    claim = FileChannel.open(file, StandardOpenOption.WRITE);
    if (!isFree(claim)) {
      throw ErrorCode.ALREADY_GOING.error(
          "The run " + description.number() + " is going on just now.",
          "Wait until it is done, or stop it.");
    }
    if (Files.exists(folder.resolve("run.json"))) {
      // another process may have gone on with it since it was found
      description = read(folder);
    }
  }

  private static boolean isFree(FileChannel channel) throws IOException {
    try {
      return channel.tryLock() != null;
    } catch (OverlappingFileLockException e) {
      return false;
    }
  }

  private static int highest(Path all, int year) throws IOException {
    int highest = 0;
    try (DirectoryStream<Path> runs =
        Files.newDirectoryStream(all, year + "-[0-9][0-9][0-9][0-9]")) {
      for (Path run : runs) {
        highest = Math.max(highest, Integer.parseInt(run.getFileName().toString().substring(5)));
      }
    }
    return highest;
  }

  /** Takes away what is older than runs are kept. */
  private static void sweep(Path all, Clock clock) throws IOException {
    FileTime before = FileTime.from(clock.instant().minus(KEPT));
    try (DirectoryStream<Path> runs = Files.newDirectoryStream(all, "[0-9]*-[0-9]*")) {
      for (Path run : runs) {
        if (Files.getLastModifiedTime(run).compareTo(before) < 0) {
          delete(run);
        }
      }
    }
  }

  private static void delete(Path run) throws IOException {
    try (DirectoryStream<Path> files = Files.newDirectoryStream(run)) {
      for (Path file : files) {
        Files.deleteIfExists(file);
      }
    }
    Files.deleteIfExists(run);
  }

  /**
   * Finds a run.
   *
   * @throws PorterException with code {@code no-such-run} if there is none of this number
   */
  static KeptRun find(Path home, String number) throws IOException {
    Path folder = home.resolve("runs").resolve(number);
    boolean named = number.matches("\\d{4}-\\d{4}");
    if (!named || !Files.isRegularFile(folder.resolve("run.json"))) {
      throw ErrorCode.NO_SUCH_RUN.error(
          "There is no run " + (named ? number : "of this number") + " in " + home + ".",
          "Its number was told when it was done, such as 2026-0007; --home says in which folder.");
    }
    return new KeptRun(folder, read(folder));
  }

  private static RunDescription read(Path folder) throws IOException {
    return PlanJson.MAPPER.readValue(
        Files.readString(folder.resolve("run.json")), RunDescription.class);
  }

  RunDescription description() {
    return description;
  }

  Path ledger() {
    return folder.resolve("ledger");
  }

  /** Notes what is said of the run; it is on the disk when this returns. */
  void write(RunDescription now) {
    try {
      byte[] json = PlanJson.MAPPER.writeValueAsString(now).getBytes(StandardCharsets.UTF_8);
      Lasting.write(folder.resolve("run.json"), json);
      description = now;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Keeps the plan by which it goes on. */
  void keep(Plan plan) throws IOException {
    Lasting.write(
        folder.resolve("plan.json"), PlanJson.write(plan).getBytes(StandardCharsets.UTF_8));
  }

  /** The plan that was kept. */
  Plan plan() throws IOException {
    return PlanJson.read(Files.readString(folder.resolve("plan.json")));
  }

  /** Lets other processes have the run. */
  void ended() throws IOException {
    if (claim != null) {
      claim.close();
    }
  }

  /** Forgets the run if nothing of it stands, unless nobody can tell whether it does. */
  void failed(RuntimeException why) throws IOException {
    boolean isUnsure = why instanceof PorterException p && p.code() == ErrorCode.UNSURE;
    if (!isUnsure && !description.isAny()) {
      delete(folder);
    }
  }

  /**
   * Finds out whether a batch stands that was cut off while it was being made lasting, if there is
   * one.
   *
   * @throws PorterException if that can't be told
   */
  void settle(Database database) throws IOException {
    RunDescription.Part next = description.next();
    if (next == null) {
      return;
    }
    Settled settled = new Settlement(database).byMark(description.mark());
    if (settled == null) {
      settled = byRecords(database, next);
    }
    if (settled == Settled.COMMITTED) {
      write(description.committed(next.report().state().equals("done")));
    } else if (settled == Settled.TAKEN_BACK) {
      write(description.takenBack());
    } else {
      throw ErrorCode.UNSURE.error(
          "Whether all of the run "
              + description.number()
              + " stands can't be told: it was cut off at the very moment of committing.");
    }
  }

  private @Nullable Settled byRecords(Database database, RunDescription.Part next)
      throws IOException {
    RunDescription.Part stands = description.stands();
    try (FolderPast before = new FolderPast(this);
        FolderPast past = new FolderPast(this, next)) {
      return new Settlement(database)
          .byLastBatch(
              past.layouts(),
              past::entries,
              stands.rows(),
              stands.batches() > 0 && !before.waits());
    }
  }
}
