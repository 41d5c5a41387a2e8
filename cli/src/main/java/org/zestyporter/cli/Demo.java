package org.zestyporter.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.Optional;
import org.zestyporter.demo.Marina;
import org.zestyporter.server.connection.ConnectionService;
import org.zestyporter.server.connection.ConnectionSettings;
import org.zestyporter.server.store.OwnerOnly;

/** The server with the made-up marina as its only application. */
public final class Demo implements AutoCloseable {
  /** The account of the demonstration. */
  public static final String NAME = "odile";

  private final Server server;
  private final Path home;

  private Demo(Server server, Path home) {
    this.server = server;
    this.home = home;
  }

  /**
   * Starts the demonstration in a folder; what is there already is used again.
   *
   * @param port 0 for any that is free
   */
  public static Demo start(Path home, int port) throws IOException, SQLException {
    OwnerOnly.folder(home);
    // beside our own records, and the only folder whose databases may be connected to
    Path application = OwnerOnly.folder(home.resolve("application"));
    String url =
        "jdbc:h2:file:"
            + application.toAbsolutePath().resolve("marina")
            + ";DATABASE_TO_LOWER=TRUE";
    if (!Files.exists(application.resolve("marina.mv.db"))) {
      build(url, home.resolve("files"));
    }
    Server server =
        Server.start(home, port, "--porter.database-folders=" + application.toAbsolutePath());
    Demo demo = new Demo(server, home);
    Optional<String> password = server.firstAccount(NAME, "Odile Brask");
    if (password.isPresent()) {
      // no secret: it stands beside the made-up data that it opens
      Files.writeString(OwnerOnly.file(demo.note()), password.get() + "\n");
    }
    if (server.connections().all().isEmpty()) {
      server
          .connections()
          .add(
              "marina",
              new ConnectionService.Wanted(
                  "Quillhaven Marina", url, "sa", "", ConnectionSettings.USUAL));
    }
    return demo;
  }

  private static void build(String url, Path files) throws IOException, SQLException {
    Marina marina = Marina.open();
    try (Connection connection = DriverManager.getConnection(url, "sa", "")) {
      marina.build(connection);
    }
    Files.createDirectories(files);
    marina.arrivals().writeWorkbook(files.resolve("winter-arrivals.xlsx"));
    marina.arrivals().writeText(files.resolve("winter-arrivals.csv"));
    marina.officeFiles().write(files);
  }

  /** Adds a large file to the ones to try. */
  void writeLarge(int rows) throws IOException {
    Marina.open().arrivals().writeLargeText(files().resolve("arrivals-" + rows + ".csv"), rows);
  }

  private Path note() {
    return home.resolve("sign-in.txt");
  }

  public String address() {
    return server.address();
  }

  public String password() throws IOException {
    return Files.readString(note()).strip();
  }

  /** The folder with the files to try. */
  public Path files() {
    return home.resolve("files");
  }

  @Override
  public void close() {
    server.stop();
  }
}
