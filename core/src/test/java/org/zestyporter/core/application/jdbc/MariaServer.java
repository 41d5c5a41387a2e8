package org.zestyporter.core.application.jdbc;

import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/** A MariaDB server of this process's own, in a folder that goes with it. */
public final class MariaServer implements AutoCloseable {
  private static final int SECONDS = 60;
  private static final String WITHOUT = "PORTER_TEST_WITHOUT_MARIADB";

  private final Path folder;
  private final int port;
  private final List<String> settings;
  private Process server;

  private MariaServer(Path folder, int port, List<String> settings) {
    this.folder = folder;
    this.port = port;
    this.settings = settings;
  }

  /** True unless it was said that tests are to do without it, which is told. */
  public static boolean isWanted() {
    boolean isWanted = System.getenv(WITHOUT) == null;
    if (!isWanted) {
      System.err.println("Not tested on MariaDB: " + WITHOUT + " is set");
    }
    return isWanted;
  }

  /**
   * Starts one.
   *
   * @param settings what it is told besides, such as {@code --ssl-cert=…}
   * @throws IllegalStateException if this machine has none
   */
  public static MariaServer start(String... settings) throws IOException {
    int port;
    try (ServerSocket free = new ServerSocket(0)) {
      port = free.getLocalPort();
    }
    Path folder = Files.createTempDirectory("maria");
    MariaServer maria = new MariaServer(folder, port, List.of(settings));
    maria.run(
        "mariadb-install-db",
        "--no-defaults",
        "--datadir=" + folder.resolve("data"),
        "--tmpdir=" + folder,
        "--auth-root-authentication-method=normal",
        "--user=" + System.getProperty("user.name"),
        "--skip-test-db");
    maria.begin();
    return maria;
  }

  private void run(String... command) throws IOException {
    try {
      Process process = process(command);
      if (!process.waitFor(SECONDS, TimeUnit.SECONDS) || process.exitValue() != 0) {
        throw new IllegalStateException(
            String.join(" ", command) + " failed: " + Files.readString(folder.resolve("log")));
      }
    } catch (IOException e) {
      throw new IllegalStateException(
          "MariaDB is missing: ./porter test installs it where it can (Debian's packages"
              + " mariadb-server-core and mariadb-client-core)",
          e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  private Process process(String... command) throws IOException {
    return new ProcessBuilder(command)
        .redirectErrorStream(true)
        .redirectOutput(ProcessBuilder.Redirect.appendTo(folder.resolve("log").toFile()))
        .start();
  }

  /** Begins to serve, until it is closed or killed. */
  public void begin() throws IOException {
    String program =
        Stream.of("/usr/sbin/mariadbd", "/usr/libexec/mariadbd")
            .filter(p -> Files.exists(Path.of(p)))
            .findFirst()
            .orElse("mariadbd");
    List<String> command = new ArrayList<>();
    Collections.addAll(
        command,
        program,
        "--no-defaults",
        "--datadir=" + folder.resolve("data"),
        "--socket=" + folder.resolve("socket"),
        "--pid-file=" + folder.resolve("pid"),
        // a server that starts sweeps its own, and would take those of another
        "--tmpdir=" + folder,
        "--port=" + port,
        "--bind-address=127.0.0.1",
        "--user=" + System.getProperty("user.name"),
        "--innodb-buffer-pool-size=64M",
        "--character-set-server=utf8mb4");
    command.addAll(settings);
    server = process(command.toArray(String[]::new));
    SQLException last = null;
    long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(SECONDS);
    while (System.nanoTime() < end && server.isAlive()) {
      try (Connection connection = DriverManager.getConnection(url("mysql"), "root", "")) {
        return;
      } catch (SQLException e) {
        last = e;
        pause();
      }
    }
    throw new IllegalStateException(Files.readString(folder.resolve("log")), last);
  }

  private static void pause() {
    try {
      Thread.sleep(100);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  /** The address of one of its databases; the user is root, without a password. */
  public String url(String database) {
    return "jdbc:mariadb://localhost:" + port + "/" + database;
  }

  /** Ends it at once, as a power cut would. */
  public void kill() {
    server.destroyForcibly();
    server.onExit().join();
  }

  @Override
  public void close() throws IOException {
    kill();
    try (Stream<Path> files = Files.walk(folder)) {
      List<Path> all = files.sorted(java.util.Comparator.reverseOrder()).toList();
      for (Path file : all) {
        Files.delete(file);
      }
    }
  }
}
