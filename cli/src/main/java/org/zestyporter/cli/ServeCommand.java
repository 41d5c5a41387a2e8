package org.zestyporter.cli;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
    name = "serve",
    description = "Starts the server on a data folder of your own.",
    mixinStandardHelpOptions = true)
final class ServeCommand implements Callable<Integer> {
  @Option(names = "--port", defaultValue = "8080", description = "default ${DEFAULT-VALUE}")
  int port;

  @Option(names = "--home", paramLabel = "DIR", description = "the data folder (PORTER_HOME)")
  Path home;

  @Override
  public Integer call() throws InterruptedException {
    Path folder = home != null ? home : Server.defaultHome();
    Server server = Server.start(folder, port);
    server
        .firstAccount("admin", "Administrator")
        .ifPresentOrElse(
            password ->
                System.out.printf(
                    "First sign-in: name admin, password %s (shown this once)%n", password),
            () -> System.out.println("Sign in with your own name and password."));
    System.out.printf("Zesty Porter is ready: %s%n", server.address());
    System.out.flush();
    Thread.currentThread().join();
    return Porter.DONE;
  }
}
