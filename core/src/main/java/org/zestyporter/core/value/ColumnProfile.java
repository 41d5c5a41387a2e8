package org.zestyporter.core.value;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a whole column holds.
 *
 * @param name the column's title
 * @param letter its place in the sheet, A for the first
 * @param type what at least nine tenths of its cells are
 * @param pattern how they are written, such as {@code d.M.yyyy}; null for text
 * @param blank number of blank cells
 * @param distinct number of distinct non-blank texts; {@code distinctCapped} if there are more
 * @param distinctCapped true if counting stopped at {@code distinct}
 * @param least smallest value of the type, as text
 * @param greatest greatest value of the type, as text
 * @param longest characters of the longest text
 * @param ambiguous true if the column alone does not tell day from month
 * @param samples the most frequent values
 * @param misfits values that are not of the type, most frequent first
 */
public record ColumnProfile(
    String name,
    String letter,
    ValueType type,
    @Nullable String pattern,
    long blank,
    int distinct,
    boolean distinctCapped,
    @Nullable String least,
    @Nullable String greatest,
    int longest,
    boolean ambiguous,
    List<ValueCount> samples,
    List<ValueCount> misfits) {

  /**
   * A distinct cell of a column.
   *
   * @param text as the file has it
   * @param rows how many rows hold it
   * @param line line of the first of them
   */
  public record ValueCount(String text, long rows, long line) {}
}
