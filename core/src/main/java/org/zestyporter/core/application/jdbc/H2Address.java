package org.zestyporter.core.application.jdbc;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;

/**
 * Addresses of H2: a file in a folder that is allowed, or a database in memory, and settings that
 * change nothing but names and waiting. A database that is not there is never made.
 */
final class H2Address implements Address.Form {
  private static final String SUFFIX = ".mv.db";
  private static final Pattern NAME = Pattern.compile("[A-Za-z0-9_-]{1,100}");
  private static final Pattern TRUTH = Pattern.compile("(?i)true|false");
  private static final Pattern NUMBER = Pattern.compile("-?\\d{1,9}");

  private static final Map<String, Pattern> ALLOWED =
      new TreeMap<>(
          Map.of(
              "DATABASE_TO_LOWER", TRUTH,
              "DATABASE_TO_UPPER", TRUTH,
              "CASE_INSENSITIVE_IDENTIFIERS", TRUTH,
              "IFEXISTS", Pattern.compile("(?i)true"),
              "MODE", Pattern.compile("(?i)regular|strict|postgresql|mysql|mariadb|oracle|derby"),
              "SCHEMA", Pattern.compile("[\\p{L}\\p{N}_$]{1,200}"),
              "LOCK_TIMEOUT", NUMBER,
              "DB_CLOSE_DELAY", NUMBER));

  @Override
  public String prefix() {
    return "jdbc:h2:";
  }

  @Override
  public String example() {
    return "jdbc:h2:file:/srv/databases/marina";
  }

  @Override
  public Address parse(String rest, Address.Rules rules) {
    if (rest.indexOf('\\') >= 0) {
      throw Address.refused(
          "An H2 address has no backslashes. Write folders with /, such as " + example() + ".");
    }
    int end = rest.indexOf(';');
    String where = end < 0 ? rest : rest.substring(0, end);
    Map<String, String> settings = settings(end < 0 ? "" : rest.substring(end + 1));
    // a mistyped name would make an empty database, and be found right
    settings.put("IFEXISTS", "TRUE");
    StringBuilder tail = new StringBuilder();
    settings.forEach((name, value) -> tail.append(';').append(name).append('=').append(value));
    if (where.toLowerCase(Locale.ROOT).startsWith("mem:")) {
      return memory(where.substring("mem:".length()), tail.toString(), rules);
    }
    String path =
        where.toLowerCase(Locale.ROOT).startsWith("file:")
            ? where.substring("file:".length())
            : where;
    if (path.isEmpty() || path.indexOf(':') >= 0) {
      throw Address.refused(
          "An H2 address names a database file, such as "
              + example()
              + "; servers, archives and"
              + " other file systems are not reached this way.");
    }
    Path file = file(path, rules);
    String bare = file.toString().substring(0, file.toString().length() - SUFFIX.length());
    return new Address("H2", null, file, prefix() + "file:" + bare + tail);
  }

  private Address memory(String name, String tail, Address.Rules rules) {
    if (!rules.memory() || !NAME.matcher(name).matches()) {
      throw Address.refused(
          "A database in memory holds nothing that could be reached from here. Name a database"
              + " file, such as "
              + example()
              + ".");
    }
    return new Address("H2", null, null, prefix() + "mem:" + name + tail);
  }

  /** The database's file by its real path, so that no link leads out of what is allowed. */
  private Path file(String path, Address.Rules rules) {
    String home = System.getProperty("user.home");
    Path typed = Path.of(path.startsWith("~/") ? home + path.substring(1) : path);
    if (rules.folders() != null && !typed.isAbsolute()) {
      throw Address.refused("Give the whole path of the database file, such as " + example() + ".");
    }
    Path file = typed.toAbsolutePath().normalize();
    file = file.resolveSibling(file.getFileName() + SUFFIX);
    boolean inside = rules.folders() == null || rules.folders().stream().anyMatch(isIn(file));
    try {
      Path real = file.toRealPath();
      inside = rules.folders() == null || rules.folders().stream().anyMatch(isIn(real));
      boolean ours =
          rules.forbidden() != null
              && Files.exists(rules.forbidden())
              && Files.isSameFile(real, rules.forbidden());
      if (inside && !ours && real.toString().endsWith(SUFFIX)) {
        return real;
      }
    } catch (IOException e) {
      if (inside && !Files.exists(file, LinkOption.NOFOLLOW_LINKS)) {
        throw Address.refused(
            "There is no H2 database at "
                + path
                + ": the file "
                + file.getFileName()
                + " is missing.");
      }
    }
    throw Address.refused(
        "Database files are reached only in folders that this installation allows (setting"
            + " porter.database-folders).");
  }

  private static java.util.function.Predicate<Path> isIn(Path file) {
    return folder -> {
      try {
        return file.startsWith(folder.toRealPath());
      } catch (IOException e) {
        return false;
      }
    };
  }

  private static Map<String, String> settings(String text) {
    Map<String, String> settings = new TreeMap<>();
    for (String part : text.isEmpty() ? new String[0] : text.split(";", -1)) {
      int at = part.indexOf('=');
      String name = (at < 0 ? part : part.substring(0, at)).strip().toUpperCase(Locale.ROOT);
      String value = at < 0 ? "" : part.substring(at + 1).strip();
      Pattern allowed = ALLOWED.get(name);
      if (allowed == null || !allowed.matcher(value).matches()) {
        throw Address.refused(
            (allowed == null
                    ? "The setting “" + name + "” is not allowed in an address"
                    : "The setting " + name + " can't be “" + value + "”")
                + ". Allowed are "
                + String.join(", ", ALLOWED.keySet())
                + ".");
      }
      if (settings.put(name, value) != null) {
        throw Address.refused("The setting " + name + " stands twice in the address.");
      }
    }
    return settings;
  }
}
