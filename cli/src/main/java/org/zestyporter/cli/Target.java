package org.zestyporter.cli;

import java.util.Map;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.value.ErrorCode;

/** The database that a command works against. */
final class Target {
  private Target() {}

  /**
   * Opens a JDBC address; user and password come from the environment, never from the command line.
   */
  static Database open(String url, Map<String, String> environment) {
    if (url == null || !url.startsWith("jdbc:")) {
      throw ErrorCode.NO_ADDRESS.error(
          "Say where to with --to and a JDBC address, such as"
              + " jdbc:postgresql://localhost/marina.");
    }
    return Database.connect(
        url,
        environment.getOrDefault("PORTER_DB_USER", ""),
        environment.getOrDefault("PORTER_DB_PASSWORD", ""));
  }
}
