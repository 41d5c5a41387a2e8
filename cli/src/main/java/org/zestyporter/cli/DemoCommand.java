package org.zestyporter.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.concurrent.Callable;
import org.zestyporter.core.source.Temporary;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
    name = "demo",
    description = "Starts the server with the made-up marina and its files.",
    mixinStandardHelpOptions = true)
final class DemoCommand implements Callable<Integer> {
  @Option(names = "--port", defaultValue = "8080", description = "default ${DEFAULT-VALUE}")
  int port;

  @Option(
      names = "--home",
      paramLabel = "DIR",
      description = "where to keep it; a fresh folder, gone at the end, if left out")
  Path home;

  @Option(
      names = "--rows",
      paramLabel = "N",
      description = "also write a large file of so many rows")
  int rows;

  @Override
  public Integer call() throws IOException, SQLException, InterruptedException {
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
