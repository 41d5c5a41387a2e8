package org.zestyporter.core.source;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** The titles of the columns that a file of rejected rows has behind those of its source. */
public final class ReturnTitles {
  /** Of the column that says why a row was rejected. */
  public static final String REASONS = "Why it was not taken";

  private static final String LINE_OF = "Line of ";
  private static final String RUN = "Run ";

  private ReturnTitles() {}

  /**
   * Title of the column that tells which line of which run a row is.
   *
   * @param run what the run is called, such as {@code Run 2026-0003}
   */
  public static String mark(String run) {
    return LINE_OF + run;
  }

  /** The run whose rejected rows a file holds, by the titles of its columns; null if of none. */
  public static @Nullable String runOf(List<String> titles) {
    return titles.stream()
        .filter(t -> t.startsWith(LINE_OF + RUN))
        .map(t -> t.substring(LINE_OF.length()))
        .findFirst()
        .orElse(null);
  }

  /** True for the title of such a column. */
  public static boolean isOurs(String title) {
    return title.equals(REASONS) || title.startsWith(LINE_OF + RUN);
  }
}
