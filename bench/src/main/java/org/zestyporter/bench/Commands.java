package org.zestyporter.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Runs whole, cold processes and tells what they took. */
final class Commands {
  private final Path folder;

  /**
   * @param folder where their data goes
   */
  Commands(Path folder) {
    this.folder = folder;
  }

  /**
   * What a process took.
   *
   * @param wall seconds of the clock
   * @param cpu seconds of CPU
   */
  record Times(double wall, double cpu) {}

  /** The command as people start it. */
  static List<String> porter(String... arguments) {
    List<String> command = new ArrayList<>(List.of(System.getProperty("bench.porter")));
    command.addAll(List.of(arguments));
    return command;
  }

  /** Runs a command so many times; the median by CPU. */
  Times median(List<String> command, int times) throws IOException {
    List<Times> all = new ArrayList<>();
    for (int i = 0; i < times; i++) {
      all.add(run("postgres", command));
    }
    all.sort(Comparator.comparingDouble(Times::cpu));
    return all.get(times / 2);
  }

  /** What the last command printed. */
  Path printed() {
    return folder.resolve("printed");
  }

  /**
   * Runs a command to its end; the shell tells what it took.
   *
   * @param user who signs in to the database, without a password
   */
  Times run(String user, List<String> command) throws IOException {
    Path errors = folder.resolve("errors");
    List<String> timed =
        new ArrayList<>(List.of("bash", "-c", "TIMEFORMAT='%R %U %S'; time \"$@\"", "porter"));
    timed.addAll(command);
    ProcessBuilder builder = new ProcessBuilder(timed);
    builder.environment().put("PORTER_DB_USER", user);
    builder.environment().put("PORTER_HOME", folder.resolve("home").toString());
    builder.redirectOutput(printed().toFile()).redirectError(errors.toFile());
    try {
      int code = builder.start().waitFor();
      String said = Files.readString(errors, StandardCharsets.UTF_8).strip();
      if (code > 1) {
        throw new IllegalStateException(String.join(" ", command) + " ended with " + said);
      }
      String[] parts = said.substring(said.lastIndexOf('\n') + 1).split(" ");
      double user0 = Double.parseDouble(parts[1]);
      return new Times(Double.parseDouble(parts[0]), user0 + Double.parseDouble(parts[2]));
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
