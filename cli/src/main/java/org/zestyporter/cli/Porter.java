package org.zestyporter.cli;

import java.util.List;
import org.zestyporter.core.source.Temporary;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The entry point: {@code ./porter COMMAND}. */
@Command(
    name = "porter",
    description = "Brings records from files into the tables of a business application.",
    mixinStandardHelpOptions = true,
    version = "Zesty Porter 0.1.0")
public final class Porter implements Runnable {
  static final int DONE = 0;
  static final int REJECTED = 1;
  static final int UNUSABLE = 2;
  static final int DATABASE = 3;

  private static final List<Class<?>> COMMANDS =
      List.of(
          DemoCommand.class,
          ServeCommand.class,
          LookCommand.class,
          DraftCommand.class,
          RehearseCommand.class,
          RunCommand.class,
          UndoCommand.class,
          ReadyCommand.class);

  /** Those that log what they do. */
  private static final List<String> SERVERS =
      List.of(name(DemoCommand.class), name(ServeCommand.class));

  @CommandLine.Spec CommandLine.Model.CommandSpec spec;

  public static void main(String[] args) {
    Temporary.sweep();
    if (args.length > 0 && !SERVERS.contains(args[0])) {
      // what drivers and libraries log is told by the command itself, and standard output is its
      // own
      System.setProperty("logback.configurationFile", "org/zestyporter/cli/silent.xml");
    }
    System.exit(commandLine(args).execute(args));
  }

  /**
   * @param args what was typed: if a command is the first of it, the others aren't made ready
   */
  static CommandLine commandLine(String... args) {
    CommandLine all = new CommandLine(new Porter());
    List<Class<?>> asked =
        COMMANDS.stream().filter(c -> args.length > 0 && name(c).equals(args[0])).toList();
    (asked.isEmpty() ? COMMANDS : asked).forEach(all::addSubcommand);
    return all.setExecutionStrategy(Porter::execute)
        .setExitCodeExceptionMapper(Porter::exitCode)
        .setExecutionExceptionHandler(
            (e, command, parsed) -> {
              command.getErr().println(e instanceof PorterException ? e.getMessage() : plain(e));
              return exitCode(e);
            });
  }

  private static String name(Class<?> command) {
    return command.getAnnotation(Command.class).name();
  }

  /** What asks for more memory than there is ends with a sentence, not with a trace. */
  private static int execute(CommandLine.ParseResult parsed) {
    try {
      return new CommandLine.RunLast().execute(parsed);
    } catch (OutOfMemoryError | StackOverflowError e) {
      parsed
          .commandSpec()
          .commandLine()
          .getErr()
          .println(
              "There is not enough memory for this: the file or the plan asks for more than this"
                  + " machine gives (Java's option -Xmx).");
      return UNUSABLE;
    }
  }

  private static String plain(Exception e) {
    if (e instanceof java.nio.file.NoSuchFileException missing) {
      return "There is no file " + missing.getFile() + ".";
    }
    if (e instanceof java.nio.file.AccessDeniedException denied) {
      return "The file " + denied.getFile() + " may not be read or written by you.";
    }
    if (e instanceof java.io.IOException) {
      return "A file can't be read or written: " + e.getMessage() + ".";
    }
    return "Something went wrong in Zesty Porter itself; nothing was written. ("
        + e.getClass().getSimpleName()
        + (e.getStackTrace().length == 0 ? "" : " at " + e.getStackTrace()[0])
        + ")";
  }

  private static int exitCode(Throwable e) {
    return e instanceof PorterException p && p.code().kind() == ErrorCode.Kind.DATABASE
        ? DATABASE
        : UNUSABLE;
  }

  @Override
  public void run() {
    spec.commandLine().usage(System.err);
  }
}
