package org.zestyporter.cli;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.RunReport;
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
   * @param state {@code going}, {@code committing} while it is being made lasting, or {@code done}
   * @param mark what tells its transaction from all others; null if nothing does
   * @param undoes number of the run that it takes back; null if it is no undo
   * @param undoneBy number of the undo that took it back; null if it stands
   */
  record Description(
      String number,
      String plan,
      String source,
      String url,
      String state,
      @Nullable String mark,
      @Nullable String undoes,
      @Nullable String undoneBy,
      List<LedgerLayout> layouts,
      @Nullable RunReport report) {
    public Description {
      layouts = layouts == null ? List.of() : List.copyOf(layouts);
    }

    Description in(String newState) {
      return new Description(
          number, plan, source, url, newState, mark, undoes, undoneBy, layouts, report);
    }

    Description undoneBy(@Nullable String undo) {
      return new Description(number, plan, source, url, state, mark, undoes, undo, layouts, report);
    }
  }

  private final Path folder;
  private Description description;

  private KeptRun(Path folder, Description description) {
    this.folder = folder;
    this.description = description;
  }

  /** Begins a run under the next number of the year, such as {@code 2026-0007}. */
  static KeptRun begin(
      Path home, String plan, String source, String url, @Nullable String undoes, Clock clock)
      throws IOException {
    Path all = OwnerOnly.folder(home.resolve("runs"));
    sweep(all, clock);
    int year = LocalDate.now(clock).getYear();
    for (int n = highest(all, year) + 1; n < MOST; n++) {
      String number = String.format("%d-%04d", year, n);
      try {
        Files.createDirectory(all.resolve(number));
      } catch (FileAlreadyExistsException e) {
        // another one has just taken it
        continue;
      }
      KeptRun run =
          new KeptRun(
              OwnerOnly.folder(all.resolve(number)),
              new Description(
                  number, plan, source, url, "going", null, undoes, null, List.of(), null));
      run.write(run.description);
      return run;
    }
    throw ErrorCode.NUMBER.error("There are too many runs of this year in " + all + ".");
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
    return new KeptRun(
        folder,
        PlanJson.MAPPER.readValue(Files.readString(folder.resolve("run.json")), Description.class));
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

  /** Forgets the run, of which nothing stands, unless nobody can tell whether it does. */
  void failed(RuntimeException why) throws IOException {
    if (!(why instanceof PorterException p) || p.code() != ErrorCode.UNSURE) {
      delete(folder);
    }
  }
}
