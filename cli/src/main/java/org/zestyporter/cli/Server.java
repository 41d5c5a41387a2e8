package org.zestyporter.cli;

import java.net.BindException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.web.server.PortInUseException;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.PorterServer;
import org.zestyporter.server.account.AccountService;
import org.zestyporter.server.connection.ConnectionService;

/** The server, started from the command line. */
final class Server {
  /** Where it answers if nothing else is said. */
  static final int PORT = 8080;

  private static final int H2_IN_USE = 90_020;

  private final ConfigurableApplicationContext context;

  private Server(ConfigurableApplicationContext context) {
    this.context = context;
  }

  static Path defaultHome() {
    String home = System.getenv("PORTER_HOME");
    return home != null ? Path.of(home) : Path.of(System.getProperty("user.home"), ".zesty-porter");
  }

  static Server start(Path home, int port, String... more) {
    SpringApplication application = new SpringApplication(PorterServer.class);
    application.setLogStartupInfo(false);
    // what the command line says goes before what the environment says
    List<String> arguments = new ArrayList<>();
    arguments.add("--porter.home=" + home.toAbsolutePath());
    arguments.add("--server.port=" + port);
    arguments.addAll(List.of(more));
    try {
      return new Server(application.run(arguments.toArray(String[]::new)));
    } catch (RuntimeException e) {
      throw ErrorCode.NO_START.error(why(e, home, port), e);
    }
  }

  private static String why(Throwable e, Path home, int port) {
    for (Throwable cause = e; cause != null; cause = cause.getCause()) {
      if (cause instanceof PorterException told) {
        return told.getMessage();
      }
      if (cause instanceof SQLException sql && sql.getErrorCode() == H2_IN_USE) {
        return "Another server is using the data folder " + home + ". Stop it, or choose another.";
      }
      if (cause instanceof PortInUseException || cause instanceof BindException) {
        return "Port " + port + " is taken. Choose another with --port.";
      }
    }
    Throwable root = e;
    while (root.getCause() != null) {
      root = root.getCause();
    }
    return "The server did not start: " + root.getMessage();
  }

  String address() {
    int port = ((WebServerApplicationContext) context).getWebServer().getPort();
    return "http://localhost:" + port + "/";
  }

  Optional<String> firstAccount(String name, String shownName) {
    return context.getBean(AccountService.class).createFirst(name, shownName);
  }

  ConnectionService connections() {
    return context.getBean(ConnectionService.class);
  }

  void stop() {
    context.close();
  }
}
