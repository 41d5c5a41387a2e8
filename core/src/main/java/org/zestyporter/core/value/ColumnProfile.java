package org.zestyporter.core.value;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What a whole column holds.
 *
 * @param name the column's title
 * @param letter its place in the sheet, A for the first
 * @param type what at least nine tenths of its cells are
 * @param pattern how they are written, such as {@code d.M.yyyy} or {@code #,##0.0}; null for text
 * @param locale the locale in which the column is read: the file's, unless its own values tell
 *     otherwise
 * @param blank number of blank cells
 * @param distinct number of distinct non-blank texts; {@code distinctCapped} if there are more
 * @param distinctCapped true if counting stopped at {@code distinct}
 * @param least smallest value of the type, as text
 * @param greatest greatest value of the type, as text
 * @param longest characters of the longest text
 * @param ambiguous true if the column alone does not tell day from month
 * @param samples the most frequent values
 * @param misfits values that are not of the type, most frequent first
 * @param findings what else is to be known about the column
 */
public record ColumnProfile(
    String name,
    String letter,
    ValueType type,
    @Nullable String pattern,
    LocaleSettings locale,
    long blank,
    int distinct,
    boolean distinctCapped,
    @Nullable String least,
    @Nullable String greatest,
    int longest,
    boolean ambiguous,
    List<ValueCount> samples,
    List<ValueCount> misfits,
    List<Finding> findings) {

  /**
   * A distinct cell of a column.
   *
   * @param text as the file has it
   * @param rows how many rows hold it
   * @param line line of the first of them
   */
  public record ValueCount(String text, long rows, long line) {}

  /** What a finding is about. */
  public enum FindingCode {
    /** Years written with two figures. */
    SHORT_YEARS,
    /** Digits with a zero before them: codes, not numbers. */
    LEADING_ZEROS,
    /** Numbers that a spreadsheet has shortened, such as 1.23E+11. */
    SHORTENED_NUMBERS,
    /** A few dates among codes: codes that a spreadsheet took for dates. */
    DATES_AMONG_CODES,
    /** Amounts in one currency. */
    CURRENCY,
    /** Amounts in several currencies. */
    SEVERAL_CURRENCIES,
    /** Blanks at an end of the value. */
    OUTER_SPACES,
    /** Cells that hold an error, or a formula without a result. */
    ERRORS,
    /** Bytes that are no character in the encoding. */
    UNDECODABLE,
    /** Words that mean blank. */
    BLANK_WORDS;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  /**
   * Something to be known about a column.
   *
   * @param rows rows that show it
   * @param line line of the first of them
   * @param sample a value that shows it
   */
  public record Finding(FindingCode code, long rows, long line, String sample) {}

  /** The finding of a code, if the column has it. */
  public Optional<Finding> finding(FindingCode code) {
    return findings.stream().filter(f -> f.code() == code).findFirst();
  }
}
