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

  /** Only what decides which cells are taken out of the bytes; the same for the same cache. */
  public Reading parsing() {
    return new Reading(format, encoding, delimiter, quote, sheet, null, null, null, null);
  }

  /** This parsing with the titles, range and locale of another reading. */
  public Reading withLayout(Reading other) {
    return new Reading(
        format,
        encoding,
        delimiter,
        quote,
        sheet,
        other.titleRows,
        other.firstRow,
        other.lastRow,
        other.locale);
  }
}
