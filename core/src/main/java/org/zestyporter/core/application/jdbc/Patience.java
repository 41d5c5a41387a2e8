package org.zestyporter.core.application.jdbc;

import java.time.Duration;

/**
 * How long is waited for a database.
 *
 * @param lock for a record or table that somebody else has locked
 * @param statement for one statement to end
 */
public record Patience(Duration lock, Duration statement) {
  public static final Patience USUAL = new Patience(Duration.ofSeconds(30), Duration.ofMinutes(30));
}
