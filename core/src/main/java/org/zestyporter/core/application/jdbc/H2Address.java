package org.zestyporter.core.application.jdbc;

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
    Path file = DatabaseFile.find(path, SUFFIX, "H2", example(), rules);
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

  private static Map<String, String> settings(String text) {
    Map<String, String> settings = new TreeMap<>();
    for (String part : text.isEmpty() ? new String[0] : text.split(";", -1)) {
      int at = part.indexOf('=');
      String name = (at < 0 ? part : part.substring(0, at)).strip().toUpperCase(Locale.ROOT);
      String value = at < 0 ? "" : part.substring(at + 1).strip();
      Address.put(settings, ALLOWED, name, value, ".");
    }
    return settings;
  }
}
