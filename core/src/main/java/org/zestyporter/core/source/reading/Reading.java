package org.zestyporter.core.source.reading;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.LocaleSettings;

/**
 * How a source is turned into rows. A part that is null is found in each file anew.
 *
 * <pre>{@code
 * Reading.FIND.withTitleRows(List.of(5L)).withFillDown(List.of("Pontoon"));
 * }</pre>
 *
 * @param format the file's format
 * @param entry name of the file inside an archive; null if the source is no archive
 * @param encoding IANA name of the text encoding; null for workbooks
 * @param delimiter the characters between two cells; null for workbooks
 * @param quote the character around a cell, empty if there is none; null for workbooks
 * @param escape how a quote stands inside a quoted cell
 * @param comment what the lines begin with that are no rows; empty if there are none
 * @param borders characters before each cell after the first, ascending; fixed width only
 * @param sheet name of the sheet, or the path of the array in JSON; null for text
 * @param sheets sheets of one shape that are read as one; the sheet's name becomes a column
 * @param titleRows line numbers of the titles, from 1; empty if the file has none, null if the
 *     titles are looked for
 * @param unitsRow line of the units or types below the titles, which is no record; 0 if there is
 *     none
 * @param firstRow line number of the first record
 * @param lastRow line number of the last record
 * @param stopAfterBlank blank lines in a row that end the records; 0 if none do
 * @param records which of the records are taken
 * @param leaveOut rows that one of these holds for are no records
 * @param where formula that a row must hold for to be a record
 * @param skip single lines that are no records
 * @param totals true if total lines are records too; they are left out otherwise
 * @param section name of the column that lines with a single cell make for the records below them;
 *     empty if such lines are records, null if they are looked for
 * @param omit columns that are left out; null if those that lie beside the table are looked for
 * @param fillDown columns whose blank cells take the value of the cell above
 * @param blankWords words that mean a blank cell
 * @param renamed names under which the plan knows columns, by their titles in the file
 * @param picks cells outside of the table, each a column with the same value in every row
 * @param fold columns that become rows
 * @param locale how numbers and dates are written
 * @param century the first two figures of years written with two, such as {@code 20}
 * @param confirmed warnings that a person has seen and let stand, as {@code code:column}
 * @param columns the columns as they were when the plan was made; another file is compared with
 *     them
 */
@RecordBuilder
public record Reading(
    @Nullable SourceFormat format,
    @Nullable String entry,
    @Nullable String encoding,
    @Nullable String delimiter,
    @Nullable String quote,
    @Nullable Escape escape,
    @Nullable String comment,
    @Nullable List<Integer> borders,
    @Nullable String sheet,
    @Nullable List<String> sheets,
    @Nullable List<Long> titleRows,
    @Nullable Long unitsRow,
    @Nullable Long firstRow,
    @Nullable Long lastRow,
    @Nullable Integer stopAfterBlank,
    @Nullable Span records,
    @Nullable List<RowTest> leaveOut,
    @Nullable String where,
    @Nullable List<SkippedLine> skip,
    @Nullable Boolean totals,
    @Nullable String section,
    @Nullable List<String> omit,
    @Nullable List<String> fillDown,
    @Nullable List<String> blankWords,
    @Nullable Map<String, String> renamed,
    @Nullable List<Pick> picks,
    @Nullable Fold fold,
    @Nullable LocaleSettings locale,
    @Nullable String century,
    @Nullable List<String> confirmed,
    @Nullable List<ColumnShape> columns)
    implements ReadingBuilder.With {

  /** Everything is to be found. */
  public static final Reading FIND = ReadingBuilder.builder().build();

  /** Only what decides which cells are taken out of the bytes; the same for the same cache. */
  public Reading parsing() {
    return FIND.with(this::copyParsing);
  }

  /** This parsing with the titles, range, cells and locale of another reading. */
  public Reading withLayout(Reading other) {
    return other.with(this::copyParsing);
  }

  private void copyParsing(ReadingBuilder target) {
    target
        .format(format)
        .entry(entry)
        .encoding(encoding)
        .delimiter(delimiter)
        .quote(quote)
        .escape(escape)
        .comment(comment)
        .borders(borders)
        .sheet(sheet)
        .sheets(sheets);
  }
}
