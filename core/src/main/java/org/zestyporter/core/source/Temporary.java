package org.zestyporter.core.source;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * Folders for the life of a process, in the system's temporary folder. They go when the process
 * ends, also by a signal; what a killed one left is swept by the next, which knows it by the number
 * of the process in its name.
 */
public final class Temporary {
  private static final Pattern NAME = Pattern.compile("porter-(\\d+)-.*");

  private static final Set<Path> THERE = ConcurrentHashMap.newKeySet();
  private static boolean hooked;

  private Temporary() {}

  /**
   * A new folder.
   *
   * @param what a word for what it holds
   */
  public static Path folder(String what) throws IOException {
    Path folder = Files.createTempDirectory(prefix() + what);
    goesAtTheEnd(folder);
    return folder;
  }

  private static String prefix() {
    return "porter-" + ProcessHandle.current().pid() + "-";
  }

  private static synchronized void goesAtTheEnd(Path path) {
    if (!hooked) {
      hooked = true;
      Runtime.getRuntime()
          .addShutdownHook(new Thread(() -> List.copyOf(THERE).forEach(Temporary::drop)));
    }
    THERE.add(path);
  }

  /** Takes a file away, or a folder with all that is in it. */
  public static void drop(Path path) {
    THERE.remove(path);
    try (Stream<Path> all = Files.walk(path)) {
      all.sorted(Comparator.reverseOrder()).forEach(p -> p.toFile().delete());
    } catch (IOException | RuntimeException e) {
      // it is gone already, or it is not ours
    }
  }

  /** Takes away what processes left that are no more. */
  public static void sweep() {
    try (Stream<Path> all = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
      all.filter(Temporary::isLeft).forEach(Temporary::drop);
    } catch (IOException | RuntimeException e) {
      // the next one tries again
    }
  }

  private static boolean isLeft(Path path) {
    Matcher name = NAME.matcher(path.getFileName().toString());
    return name.matches()
        && name.group(1).length() < 18
        && ProcessHandle.of(Long.parseLong(name.group(1))).isEmpty();
  }
}
