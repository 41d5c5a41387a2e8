package org.zestyporter.core.application.jdbc;

import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * What of a database may be had through a connection.
 *
 * @param readOnly true if nothing may be written
 * @param tables the tables that are offered, with {@code *} for any letters: {@code vessel}, {@code
 *     harbour.*}; empty for all. Links into others are left to the database
 */
public record Offer(boolean readOnly, List<String> tables) {
  /** Everything. */
  public static final Offer ALL = new Offer(false, List.of());

  public Offer {
    tables = tables == null ? List.of() : List.copyOf(tables);
  }

  /**
   * True if a table is offered.
   *
   * @param shown what plans call it
   */
  boolean offers(String shown, @Nullable String schema, String relation) {
    return tables.isEmpty()
        || tables.stream()
            .map(Offer::pattern)
            .anyMatch(
                p -> p.matcher(shown).matches() || p.matcher(schema + "." + relation).matches());
  }

  private static Pattern pattern(String table) {
    String parts =
        List.of(table.strip().split("\\*", -1)).stream()
            .map(Pattern::quote)
            .collect(Collectors.joining(".*"));
    return Pattern.compile(parts, Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE);
  }
}
