package org.zestyporter.cli;

import com.fasterxml.jackson.annotation.JsonIgnore;
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
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.RunReport;
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

  /**
   * What is said of a run.
   *
   * @param url where it was written to, without user and password
   * @param state {@code going}, {@code committing} while a batch is being made lasting, or {@code
   *     done}
   * @param context who began it, when, and with which file: what its values are made of
   * @param fingerprint what tells its plan and its file from others; null if it can't go on anyway
   * @param stands what stands of it
   * @param next what will stand once the batch is made lasting; null if none is
   * @param mark what tells its transaction from all others; null if nothing does
   * @param undoes number of the run that it takes back; null if it is no undo
   * @param undoneBy number of the undo that took it back; null if it stands
   */
  record Description(
      String number,
      String plan,
      String url,
      String state,
      RunContext context,
      @Nullable String fingerprint,
      Part stands,
      @Nullable Part next,
      @Nullable String mark,
      @Nullable String undoes,
      @Nullable String undoneBy,
      List<LedgerLayout> layouts) {
    public Description {
      layouts = layouts == null ? List.of() : List.copyOf(layouts);
    }

    private Description at(String newState, Part now, @Nullable Part then, @Nullable String of) {
      return new Description(
          number,
          plan,
          url,
          newState,
          context,
          fingerprint,
          now,
          then,
          of,
          undoes,
          undoneBy,
          layouts);
    }

    /** A batch is about to be made lasting. */
    Description committing(Part then, @Nullable String of, List<LedgerLayout> all) {
      return new Description(
          number,
          plan,
          url,
          "committing",
          context,
          fingerprint,
          stands,
          then,
          of,
          undoes,
          undoneBy,
          all);
    }

    /** The batch that was being made lasting stands. */
    Description committed(boolean last) {
      return at(last ? "done" : "going", next, null, null);
    }

    /** The batch that was being made lasting does not stand. */
    Description takenBack() {
      return at("going", stands, null, null);
    }

    Description undoneBy(@Nullable String undo) {
      return new Description(
          number,
          plan,
          url,
          state,
          context,
          fingerprint,
          stands,
          next,
          mark,
          undoes,
          undo,
          layouts);
    }

    @JsonIgnore
    boolean isDone() {
      return state.equals("done");
    }

    /** True if anything of it stands. */
    @JsonIgnore
    boolean isAny() {
      return isDone() || stands.batches() > 0;
    }
  }

  /**
   * A part of a run from its beginning.
   *
   * @param rows rows of the file that it took in
   * @param bytes what its ledger takes
   * @param report its books; null if it is empty
   */
  record Part(int batches, long rows, long bytes, @Nullable RunReport report) {
    static final Part NOTHING = new Part(0, 0, 0, null);
  }

  private final Path folder;
  private Description description;
  private @Nullable FileChannel claim;

  private KeptRun(Path folder, Description description) {
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
              new Description(
                  number,
                  plan,
                  url,
                  "going",
                  context,
                  fingerprint,
                  Part.NOTHING,
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

  private static Description read(Path folder) throws IOException {
    return PlanJson.MAPPER.readValue(
        Files.readString(folder.resolve("run.json")), Description.class);
  }

  Description description() {
    return description;
  }

  Path ledger() {
    return folder.resolve("ledger");
  }

  /** Notes what is said of the run; it is on the disk when this returns. */
  void write(Description now) {
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
    Part next = description.next();
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

  private @Nullable Settled byRecords(Database database, Part next) throws IOException {
    Settlement settlement = new Settlement(database);
    boolean any = false;
    try (FolderPast past = new FolderPast(this, next)) {
      for (LedgerLayout layout : past.layouts()) {
        List<LedgerEntry> written = past.writtenFrom(description.stands().rows(), layout);
        any |= !written.isEmpty();
        TableInfo table = database.table(layout.table());
        Settled found = settlement.byRecords(table, layout.fields(), written.stream());
        if (found != null) {
          return found;
        }
      }
    }
    // a batch that wrote nothing may as well be gone through again
    return any || next.batches() == 1 ? null : Settled.TAKEN_BACK;
  }
}
