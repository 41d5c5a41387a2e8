package org.zestyporter.cli;

import org.zestyporter.core.value.PorterException;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The entry point: {@code ./porter COMMAND}. */
@Command(
    name = "porter",
    description = "Brings records from files into the tables of a business application.",
    mixinStandardHelpOptions = true,
    version = "Zesty Porter 0.1.0",
    subcommands = {
      DemoCommand.class,
      ServeCommand.class,
      LookCommand.class,
      DraftCommand.class,
      RehearseCommand.class,
      RunCommand.class
    })
public final class Porter implements Runnable {
  static final int DONE = 0;
  static final int REJECTED = 1;
  static final int UNUSABLE = 2;
  static final int DATABASE = 3;

  @CommandLine.Spec CommandLine.Model.CommandSpec spec;

  public static void main(String[] args) {
    System.exit(commandLine().execute(args));
  }

  static CommandLine commandLine() {
    return new CommandLine(new Porter())
        .setExitCodeExceptionMapper(Porter::exitCode)
        .setExecutionExceptionHandler(
            (e, command, parsed) -> {
              command.getErr().println(e instanceof PorterException ? e.getMessage() : plain(e));
              return exitCode(e);
            });
  }

  private static String plain(Exception e) {
    return e instanceof java.nio.file.NoSuchFileException missing
        ? "There is no file " + missing.getFile() + "."
        : "Something went wrong: " + e;
  }

  private static int exitCode(Throwable e) {
    return e instanceof PorterException p && p.kind() == PorterException.Kind.DATABASE
        ? DATABASE
        : UNUSABLE;
  }

  @Override
  public void run() {
    spec.commandLine().usage(System.err);
  }
}
