package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

class TemporaryTest {

  /** Makes a folder with a file, says which, and waits to be ended. */
  static final class Waits {
    private Waits() {}

    public static void main(String[] arguments) throws Exception {
      Path folder = Temporary.folder("waits");
      Files.writeString(folder.resolve("cells.partial"), "x");
      System.out.println(folder);
      System.out.flush();
      Thread.sleep(60_000);
    }
  }

  private record Waiting(Process process, Path folder) {}

  private static Waiting start() throws IOException {
    Process process =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-cp",
                System.getProperty("java.class.path"),
                Waits.class.getName())
            .start();
    return new Waiting(process, Path.of(process.inputReader().readLine()));
  }

  @Test
  void whatIsTemporaryGoesWithASignalAndWhatAKilledProcessLeftIsSwept() throws Exception {
    Waiting ended = start();
    assertThat(ended.folder().resolve("cells.partial")).exists();
    ended.process().destroy();
    ended.process().waitFor(10, TimeUnit.SECONDS);
    assertThat(ended.folder()).doesNotExist();

    Waiting killed = start();
    Waiting lives = start();
    killed.process().destroyForcibly();
    killed.process().waitFor(10, TimeUnit.SECONDS);
    assertThat(killed.folder()).exists();
    Temporary.sweep();
    assertThat(killed.folder()).doesNotExist();
    assertThat(lives.folder()).as("of a process that is there").exists();
    lives.process().destroy();
    lives.process().waitFor(10, TimeUnit.SECONDS);
  }

  @Test
  void whatIsDroppedIsGoneAtOnce() throws IOException {
    Path folder = Temporary.folder("once");
    Files.createDirectory(folder.resolve("inner"));
    Temporary.drop(folder);
    assertThat(folder).doesNotExist();
    Temporary.drop(folder);
  }
}
