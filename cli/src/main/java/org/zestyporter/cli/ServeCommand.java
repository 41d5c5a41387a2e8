package org.zestyporter.cli;

import java.nio.file.Path;

final class ServeCommand extends Command {
  private int port = Server.PORT;
  private Path home;

  ServeCommand() {
    super("serve", "Starts the server on a data folder of your own.");
    option("port", "N", "where it answers (" + Server.PORT + ")", word -> port = number(word));
    option("home", "DIR", "the data folder (PORTER_HOME)", word -> home = path(word));
  }

  @Override
  int call() throws InterruptedException {
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
