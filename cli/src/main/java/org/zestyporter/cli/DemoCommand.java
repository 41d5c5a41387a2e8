package org.zestyporter.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import org.zestyporter.core.source.Temporary;

final class DemoCommand extends Command {
  private int port = Server.PORT;
  private Path home;
  private int rows;

  DemoCommand() {
    super("demo", "Starts the server with the made-up marina and its files.");
    option("port", "N", "where it answers (" + Server.PORT + ")", word -> port = number(word));
    option(
        "home",
        "DIR",
        "where to keep it; a fresh folder, gone at the end, if left out",
        word -> home = path(word));
    option("rows", "N", "also write a large file of so many rows", word -> rows = number(word));
  }

  @Override
  int call() throws IOException, SQLException, InterruptedException {
    Path folder = home != null ? home : Temporary.folder("demo");
    Demo demo = Demo.start(folder, port);
    if (rows > 0) {
      demo.writeLarge(rows);
    }
    System.out.printf("%nZesty Porter, demonstration with the made-up Quillhaven Marina%n");
    System.out.printf("  open     %s%n", demo.address());
    System.out.printf("  name     %s%n", Demo.NAME);
    System.out.printf("  password %s%n", demo.password());
    System.out.printf("  files    %s%n%n", demo.files());
    System.out.flush();
    Thread.currentThread().join();
    return Porter.DONE;
  }
}
