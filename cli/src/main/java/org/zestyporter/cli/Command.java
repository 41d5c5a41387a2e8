package org.zestyporter.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.UncheckedIOException;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import org.apache.commons.cli.AlreadySelectedException;
import org.apache.commons.cli.CommandLine;
import org.apache.commons.cli.DefaultParser;
import org.apache.commons.cli.MissingArgumentException;
import org.apache.commons.cli.Option;
import org.apache.commons.cli.OptionGroup;
import org.apache.commons.cli.Options;
import org.apache.commons.cli.ParseException;
import org.apache.commons.cli.UnrecognizedOptionException;
import org.apache.commons.cli.help.HelpFormatter;
import org.apache.commons.cli.help.TextHelpAppendable;

/** One of the commands: the words that it takes, and what it does. */
abstract class Command {
  private static final String HELP = "help";
  private static final int WIDTH = 100;

  private final String name;
  private final String description;
  private final Options options = new Options();
  private final Map<String, Consumer<String>> takers = new HashMap<>();
  private final Set<String> repeated = new HashSet<>();
  private final List<String> parameters = new ArrayList<>();
  private final List<Consumer<String>> parameterTakers = new ArrayList<>();

  /** Where it prints what was asked for. */
  PrintWriter out;

  /** Where it prints everything else. */
  PrintWriter err;

  Command(String name, String description) {
    this.name = name;
    this.description = description;
    options.addOption(Option.builder("h").longOpt(HELP).desc("shows this").get());
  }

  /**
   * Does it, once its words were {@link #take taken}.
   *
   * @return the exit code
   */
  abstract int call() throws Exception;

  final String name() {
    return name;
  }

  final String description() {
    return description;
  }

  /** Takes a word that has to be there; such words come in the order in which they are declared. */
  final void parameter(String label, Consumer<String> taker) {
    parameters.add(label);
    parameterTakers.add(taker);
  }

  /**
   * Takes a word after an option, {@code --option WORD} or {@code --option=WORD}.
   *
   * @param label what the word stands for
   */
  final void option(String option, String label, String told, Consumer<String> taker) {
    options.addOption(Option.builder().longOpt(option).hasArg().argName(label).desc(told).get());
    takers.put(option, taker);
  }

  /** The same for one that may be said more than once. */
  final void options(String option, String label, String told, Consumer<String> taker) {
    option(option, label, told, taker);
    repeated.add(option);
  }

  /** Takes an option without a word. */
  final void option(String option, String told, Runnable taker) {
    options.addOption(flag(option, told, taker));
  }

  /** Takes one of several options without a word. */
  final void oneOf(Option... choices) {
    OptionGroup group = new OptionGroup();
    for (Option choice : choices) {
      group.addOption(choice);
    }
    options.addOptionGroup(group);
  }

  /** An option without a word. */
  final Option flag(String option, String told, Runnable taker) {
    takers.put(option, word -> taker.run());
    return Option.builder().longOpt(option).desc(told).get();
  }

  /**
   * Takes the words that were typed after the command's name.
   *
   * @throws WordsException if it can't
   */
  final void take(List<String> words) {
    try {
      CommandLine typed =
          DefaultParser.builder()
              .setAllowPartialMatching(false)
              .setStripLeadingAndTrailingQuotes(false)
              .get()
              .parse(options, words.toArray(String[]::new));
      Set<String> said = new HashSet<>();
      for (Option option : typed.getOptions()) {
        if (!said.add(option.getLongOpt()) && !repeated.contains(option.getLongOpt())) {
          throw mistake("--" + option.getLongOpt() + " is said twice");
        }
        takers.get(option.getLongOpt()).accept(option.getValue());
      }
      List<String> others = typed.getArgList();
      for (int i = 0; i < Math.min(others.size(), parameters.size()); i++) {
        parameterTakers.get(i).accept(others.get(i));
      }
      if (others.size() < parameters.size()) {
        throw mistake(parameters.get(others.size()) + " is missing");
      }
      if (others.size() > parameters.size()) {
        throw mistake("“" + others.get(parameters.size()) + "” is one word too many");
      }
    } catch (UnrecognizedOptionException e) {
      throw mistake("there is no option " + e.getOption());
    } catch (MissingArgumentException e) {
      Option option = e.getOption();
      throw mistake("after --" + option.getLongOpt() + ", " + option.getArgName() + " is missing");
    } catch (AlreadySelectedException e) {
      throw mistake(
          "--"
              + e.getOptionGroup().getSelected()
              + " and --"
              + e.getOption().getLongOpt()
              + " exclude each other");
    } catch (ParseException e) {
      throw mistake(e.getMessage());
    }
  }

  /** True if somebody asks what the command is for. */
  static boolean asksForHelp(List<String> words) {
    return words.contains("--" + HELP) || words.contains("-h");
  }

  /** Prints what the command takes. */
  final void help() {
    TextHelpAppendable text = new TextHelpAppendable(out);
    text.setMaxWidth(WIDTH);
    try {
      HelpFormatter.builder()
          .setHelpAppendable(text)
          .setShowSince(false)
          .get()
          .printHelp(usage(), description, options, "", false);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    out.flush();
  }

  private String usage() {
    String words = parameters.isEmpty() ? "" : " " + String.join(" ", parameters);
    return "./porter " + name + words + " [OPTIONS]";
  }

  /** What is wrong with the words, and what they could be. */
  final WordsException mistake(String why) {
    return new WordsException(
        Character.toUpperCase(why.charAt(0))
            + why.substring(1)
            + ": "
            + usage()
            + "; --help tells them.");
  }

  /** A file or folder that a word names. */
  final Path path(String word) {
    try {
      return Path.of(word);
    } catch (InvalidPathException e) {
      throw mistake("“" + word + "” can't be the name of a file");
    }
  }

  /** A whole number that a word is. */
  final int number(String word) {
    try {
      return Integer.parseInt(word.strip());
    } catch (NumberFormatException e) {
      throw mistake("“" + word + "” is not a whole number");
    }
  }

  /** The words that were typed can't be used. */
  static final class WordsException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    WordsException(String message) {
      super(message);
    }
  }
}
