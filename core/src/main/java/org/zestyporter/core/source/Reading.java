package org.zestyporter.core.source;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.LocaleSettings;

/**
 * How a source is turned into rows. A part that is null is found in each file anew.
 *
 * @param format the file's format
 * @param encoding IANA name of the text encoding; null for workbooks
 * @param delimiter the character between two cells; null for workbooks
 * @param quote the character around a cell; null for workbooks
 * @param sheet name of the sheet; null for text
 * @param titleRows line numbers of the titles, from 1; empty if the file has none, null if the
 *     titles are looked for
 * @param firstRow line number of the first record
 * @param lastRow line number of the last record
 * @param locale how numbers and dates are written
 */
public record Reading(
    @Nullable SourceFormat format,
    @Nullable String encoding,
    @Nullable String delimiter,
    @Nullable String quote,
    @Nullable String sheet,
    @Nullable List<Long> titleRows,
    @Nullable Long firstRow,
    @Nullable Long lastRow,
    @Nullable LocaleSettings locale) {

  /** Everything is to be found. */
  public static final Reading FIND =
      new Reading(null, null, null, null, null, null, null, null, null);

  /** True if both take the same cells out of the same bytes, so that a cache serves both. */
  public boolean parsesLike(Reading other) {
    return format == other.format
        && same(encoding, other.encoding)
        && same(delimiter, other.delimiter)
        && same(quote, other.quote)
        && same(sheet, other.sheet);
  }

  /** This reading for the next file: the set-up stays, line numbers are found anew. */
  public Reading forNextFile() {
    return new Reading(format, null, null, quote, null, null, null, null, locale);
  }

  private static boolean same(Object a, Object b) {
    return a == null ? b == null : a.equals(b);
  }
}
