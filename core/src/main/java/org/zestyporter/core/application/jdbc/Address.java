package org.zestyporter.core.application.jdbc;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * The JDBC address of a database, taken apart and put together anew from what is known to be
 * harmless.
 *
 * <p>A driver's address can run code, read and write files, load classes and reach other hosts than
 * the one it names. So nothing that a person types is handed to a driver: an address is parsed, and
 * any part that is not on the driver's short list is refused.
 *
 * <pre>{@code
 * Address.parse("jdbc:postgresql://db.example/marina?sslmode=require", Address.Rules.ANYWHERE).url();
 * }</pre>
 *
 * @param product the name of the database's product
 * @param host where it listens; null if it is a file or lives in memory
 * @param file the database's file; null if it is none
 * @param shown the address as it is kept and shown; it can be read again
 * @param url what the driver is given
 * @param schema the schema that is asked for, which the driver does not tell when it is missing;
 *     null if none is
 */
public record Address(
    String product,
    @Nullable String host,
    @Nullable Path file,
    String shown,
    String url,
    @Nullable String schema) {

  /** An address that the driver is given as it is shown. */
  Address(String product, @Nullable String host, @Nullable Path file, String url) {
    this(product, host, file, url, url, null);
  }

  /**
   * What an installation allows.
   *
   * @param folders folders in which database files may lie, with all that is below; null for any
   * @param forbidden a file that can't be a connection under any name; null if there is none
   * @param memory true if a database may live in this process's memory
   */
  public record Rules(@Nullable List<Path> folders, @Nullable Path forbidden, boolean memory) {
    /** For a person at the command line, whose files they are anyway. */
    public static final Rules ANYWHERE = new Rules(null, null, true);
  }

  /** How addresses of one driver are read. */
  interface Form {
    String prefix();

    /** How an address looks, for messages. */
    String example();

    Address parse(String rest, Rules rules);
  }

  /** The databases that can be reached, for messages. */
  public static final String SUPPORTED = "PostgreSQL, MariaDB, MySQL, SQLite and H2";

  private static final Map<String, Form> FORMS = forms();

  private static Map<String, Form> forms() {
    Map<String, Form> forms = new LinkedHashMap<>();
    for (Form form :
        List.of(
            ServerAddress.postgres(),
            ServerAddress.maria("jdbc:mariadb:"),
            ServerAddress.maria("jdbc:mysql:"),
            new SqliteAddress(),
            new H2Address())) {
      forms.put(form.prefix(), form);
    }
    return forms;
  }

  private static final int LONGEST = 1_000;

  /**
   * Reads an address.
   *
   * @throws PorterException naming the part that is not allowed and what is
   */
  public static Address parse(String url, Rules rules) {
    String text = url == null ? "" : url.strip();
    if (text.length() > LONGEST || text.chars().anyMatch(c -> c < ' ' || c == 127)) {
      throw ErrorCode.ADDRESS.error(
          "The address of a database has up to 1,000 characters and none that control a"
              + " printer.");
    }
    for (Map.Entry<String, Form> form : FORMS.entrySet()) {
      if (text.regionMatches(true, 0, form.getKey(), 0, form.getKey().length())) {
        return form.getValue().parse(text.substring(form.getKey().length()), rules);
      }
    }
    throw ErrorCode.UNKNOWN_DATABASE.error(
        "The address must begin with one of "
            + String.join(", ", FORMS.keySet())
            + ": "
            + SUPPORTED
            + " can be reached.");
  }

  /**
   * Takes a setting if it is allowed.
   *
   * @param allowed settings by name, with what their values look like
   * @param end what a message ends with
   */
  static void put(
      Map<String, String> settings,
      Map<String, Pattern> allowed,
      String name,
      String value,
      String end) {
    String known =
        allowed.keySet().stream().filter(name::equalsIgnoreCase).findFirst().orElse(null);
    if (known == null || !allowed.get(known).matcher(value).matches()) {
      throw refused(
          (known == null
                  ? "The setting “" + name + "” is not allowed in an address"
                  : "The setting " + known + " can't be “" + value + "”")
              + ". Allowed are "
              + String.join(", ", allowed.keySet())
              + end);
    }
    if (settings.put(known, value) != null) {
      throw refused("The setting " + known + " stands twice in the address.");
    }
  }

  static PorterException refused(String message) {
    return ErrorCode.ADDRESS.error(message);
  }
}
