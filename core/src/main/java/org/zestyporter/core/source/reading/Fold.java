package org.zestyporter.core.source.reading;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ErrorCode;

/**
 * Columns that become rows: a row of the sheet makes one record for each group of them.
 *
 * <pre>
 * Meter  Sep 26  Oct 26         Meter  Month   Reading
 * M-114     311     402   →     M-114  Sep 26      311
 *                               M-114  Oct 26      402
 * </pre>
 *
 * @param from title or letter of the first column
 * @param to title or letter of the last column; null with a pattern
 * @param pattern regular expression for the titles that are folded; null with a range
 * @param names what the columns are called that take the titles: one for each title line of the
 *     folded columns, the uppermost first
 * @param values what the columns are called that take the values: one for each column of a group
 * @param keepBlank true if a group without a value makes a record too
 */
public record Fold(
    @Nullable String from,
    @Nullable String to,
    @Nullable String pattern,
    List<FoldName> names,
    List<String> values,
    @Nullable Boolean keepBlank) {

  /**
   * A column that takes titles.
   *
   * @param line line of the titles; null for the one name that the columns have
   */
  public record FoldName(String name, @Nullable Long line) {}

  public Fold {
    names = names == null ? List.of() : List.copyOf(names);
    values = values == null ? List.of() : List.copyOf(values);
    if (values.isEmpty()) {
      throw ErrorCode.FOLD.error("A fold needs a name for the column of the values.");
    }
    if ((from == null || to == null) && pattern == null) {
      throw ErrorCode.FOLD.error("A fold needs a first and a last column, or a pattern.");
    }
  }
}
