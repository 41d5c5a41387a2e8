package org.zestyporter.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.zestyporter.core.source.Temporary;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** The entry point: {@code ./porter COMMAND}. */
public final class Porter {
  static final int DONE = 0;
  static final int REJECTED = 1;
  static final int UNUSABLE = 2;
  static final int DATABASE = 3;

  private static final String VERSION = "Zesty Porter 0.1.0";

  private static final Map<String, Supplier<Command>> COMMANDS = new LinkedHashMap<>();

  static {
    COMMANDS.put("demo", DemoCommand::new);
    COMMANDS.put("serve", ServeCommand::new);
    COMMANDS.put("look", LookCommand::new);
    COMMANDS.put("draft", DraftCommand::new);
    COMMANDS.put("rehearse", RehearseCommand::new);
    COMMANDS.put("run", RunCommand::new);
    COMMANDS.put("undo", UndoCommand::new);
  }

  /** For the launcher. */
  private static final Map<String, Supplier<Command>> FOR_THE_LAUNCHER =
      Map.of("ready", ReadyCommand::new, "ready-server", ReadyServerCommand::new);

  /** Those that log what they do. */
  private static final List<String> SERVERS = List.of("demo", "serve", "ready-server");

  private Porter() {}

  public static void main(String[] args) {
    Temporary.sweep();
    if (args.length > 0 && !SERVERS.contains(args[0])) {
      // what drivers and libraries log is told by the command itself, and standard output is its
      // own
      System.setProperty("slf4j.internal.verbosity", "WARN");
      System.setProperty("slf4j.provider", "org.slf4j.helpers.NOP_FallbackServiceProvider");
    }
    // whatever the locale is: no letter is lost in it
    System.exit(
        execute(
            new PrintWriter(System.out, true, StandardCharsets.UTF_8),
            new PrintWriter(System.err, true, StandardCharsets.UTF_8),
            args));
  }

  /**
   * Does what was typed.
   *
   * @return the exit code
   */
  static int execute(PrintWriter out, PrintWriter err, String... typed) {
    List<String> words = new ArrayList<>(List.of(typed));
    String name = words.isEmpty() ? "" : words.remove(0);
    switch (name) {
      case "" -> {
        help(err);
        return UNUSABLE;
      }
      case "--help", "-h", "help" -> {
        help(out);
        return DONE;
      }
      case "--version", "-V" -> {
        out.println(VERSION);
        return DONE;
      }
      default -> {
        Supplier<Command> known = FOR_THE_LAUNCHER.getOrDefault(name, COMMANDS.get(name));
        if (known == null) {
          err.println("There is no command “" + name + "”; ./porter --help tells them.");
          return UNUSABLE;
        }
        return execute(known.get(), words, out, err);
      }
    }
  }

  private static int execute(
      Command command, List<String> words, PrintWriter out, PrintWriter err) {
    command.out = out;
    command.err = err;
    try {
      if (Command.asksForHelp(words)) {
        command.help();
        return DONE;
      }
      command.take(words);
      return command.call();
    } catch (Command.WordsException e) {
      err.println(e.getMessage());
      return UNUSABLE;
    } catch (OutOfMemoryError | StackOverflowError e) {
      err.println(
          "There is not enough memory for this: the file or the plan asks for more than this"
              + " machine gives (Java's option -Xmx).");
      return UNUSABLE;
    } catch (Exception e) {
      err.println(e instanceof PorterException ? e.getMessage() : plain(e));
      return exitCode(e);
    } finally {
      out.flush();
      err.flush();
    }
  }

  private static void help(PrintWriter out) {
    out.println("Brings records from files into the tables of a business application.");
    out.println();
    for (Supplier<Command> made : COMMANDS.values()) {
      Command command = made.get();
      out.printf("  ./porter %-9s %s%n", command.name(), command.description());
    }
    out.println();
    out.println("./porter COMMAND --help tells what a command takes; --version, which this is.");
    out.flush();
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
}
