package org.zestyporter.core.application.jdbc;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.regex.Pattern;
import org.zestyporter.core.value.PorterException;

/**
 * Addresses of SQLite: a file in a folder that is allowed, and nothing else. A database that is not
 * there is never made.
 */
final class SqliteAddress implements Address.Form {
  /** What the driver takes for settings, other files or code. */
  private static final Pattern ODD = Pattern.compile("[?:\\\\]");

  /** How each such file begins (SQLite's documentation of its file format, 1.3). */
  private static final byte[] HEADER = "SQLite format 3\0".getBytes(StandardCharsets.US_ASCII);

  @Override
  public String prefix() {
    return "jdbc:sqlite:";
  }

  @Override
  public String example() {
    return "jdbc:sqlite:/srv/databases/marina.db";
  }

  @Override
  public Address parse(String rest, Address.Rules rules) {
    if (rest.isEmpty() || ODD.matcher(rest).find()) {
      throw Address.refused(
          "A SQLite address names a database file and nothing else, such as " + example() + ".");
    }
    Path file = DatabaseFile.find(rest, "", "SQLite", example(), rules);
    if (ODD.matcher(file.toString()).find()) {
      throw Address.refused("The path of a SQLite database can't hold ?, : or \\.");
    }
    requireDatabase(file);
    return new Address("SQLite", null, file, prefix() + file);
  }

  /** An empty file is a database without tables; anything else has to say what it is. */
  private static void requireDatabase(Path file) {
    try (InputStream in = Files.newInputStream(file)) {
      byte[] first = in.readNBytes(HEADER.length);
      if (first.length > 0 && !Arrays.equals(first, HEADER)) {
        throw noDatabase(file);
      }
    } catch (IOException e) {
      throw noDatabase(file);
    }
  }

  private static PorterException noDatabase(Path file) {
    return Address.refused(file.getFileName() + " is not a SQLite database that can be read.");
  }
}
