package org.zestyporter.core.source;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.zestyporter.core.source.layout.Layout;
import org.zestyporter.core.source.layout.RowSelector;
import org.zestyporter.core.source.parse.RowParser;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.ColumnProfile.Finding;
import org.zestyporter.core.value.ColumnProfile.FindingCode;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.Votes;

/** Puts what was found in a file into words: evidence for settings, and warnings. */
final class Findings {
  private static final int SHOWN_ROWS = 20;

  private final SourceTable table;
  private final SourceReader.Parsed parsed;
  private final Reading wanted;
  private final List<Evidence> evidence = new ArrayList<>();
  private final List<Warning> warnings = new ArrayList<>();

  Findings(
      SourceTable table,
      Layout.Found layout,
      SourceReader.Parsed parsed,
      Reading wanted,
      Votes votes) {
    this.table = table;
    this.parsed = parsed;
    this.wanted = wanted;
    locale(votes);
    leftOut();
    blankWords();
    spaces();
    totalAgrees(layout);
    table.profiles().forEach(this::column);
    warnings.addAll(NoteWarnings.of(parsed.notes()));
    cellCounts(layout);
    List<String> confirmed = wanted.confirmed() == null ? List.of() : wanted.confirmed();
    warnings.replaceAll(w -> confirmed.contains(w.key()) ? w.asConfirmed() : w);
  }

  List<Evidence> evidence() {
    return evidence;
  }

  List<Warning> warnings() {
    return warnings;
  }

  private void found(String setting, String value, String because, Object... numbers) {
    evidence.add(new Evidence(setting, value, String.format(Locale.ROOT, because, numbers)));
  }

  private void locale(Votes votes) {
    LocaleSettings locale = table.reading().locale();
    if (votes.comma() + votes.point() > 0) {
      boolean comma = ",".equals(locale.decimal());
      found(
          "decimal",
          comma ? "comma" : "point",
          "%s",
          votes.comma() == 0 || votes.point() == 0
              ? String.format(
                  Locale.ROOT,
                  "%,d cells have one, none has a %s",
                  votes.comma() + votes.point(),
                  votes.comma() == 0 ? "comma" : "point")
              : String.format(
                  Locale.ROOT,
                  "%,d cells have a comma, %,d a point",
                  votes.comma(),
                  votes.point()));
    }
    boolean monthFirst = locale.dateOrder() == DateOrder.MONTH_DAY_YEAR;
    if (votes.dayFirst() + votes.monthFirst() > 0) {
      found(
          "dateOrder",
          monthFirst ? "month, day, year" : "day, month, year",
          "%,d dates can only be day first, %,d only month first",
          votes.dayFirst(),
          votes.monthFirst());
    } else if (votes.eitherWay() > 0) {
      found(
          "dateOrder",
          monthFirst ? "month, day, year" : "day, month, year",
          wanted.locale() == null
              ? "assumed: no date has a part greater than 12"
              : "as the plan says: no date has a part greater than 12");
    }
    ambiguous(
        WarningCode.AMBIGUOUS_DECIMALS,
        votes.eitherSign(),
        "%s: one sign with three figures behind it, as in %s, may part thousands or decimals (%s)."
            + " Say which sign stands before decimals.");
    ambiguous(
        WarningCode.AMBIGUOUS_DATES,
        votes.eitherWay(),
        "%s: no date tells day from month, as in %s (%s). Say which comes first.");
  }

  /** What reads in two ways, unless somebody has said how it is meant. */
  private void ambiguous(WarningCode code, long rows, String message) {
    List<Ambiguity> open = table.ambiguities().stream().filter(a -> a.code() == code).toList();
    if (!open.isEmpty()) {
      String columns =
          open.stream().map(Ambiguity::column).limit(3).collect(Collectors.joining(", "));
      String said = String.format(message, columns, open.get(0).sample(), cells(rows));
      warnings.add(new Warning(0, code, said, null, rows, true));
    }
  }

  private void leftOut() {
    for (RowSelector.LeftOut reason : table.selector().reasons()) {
      long[] count = table.selector().leftOut(reason);
      switch (reason) {
        case TITLES ->
            found(
                "leftOut",
                "repeated titles",
                count[0] == 1
                    ? "%,d line repeats the titles: line %,d"
                    : "%,d lines repeat the titles, the first is line %,d",
                count[0],
                count[1]);
        case SECTION ->
            found(
                "section",
                table.sections().name(),
                count[0] == 1
                    ? "%,d line with one cell heads those below it: line %,d, “%s”"
                    : "%,d lines with one cell head those below them, the first is line %,d, “%s”",
                count[0],
                count[1],
                String.join("”, “", table.sections().samples()));
        case PAGE ->
            found(
                "leftOut",
                "pages",
                count[0] == 1
                    ? "%,d line only numbers a page: line %,d"
                    : "%,d lines only number a page, the first is line %,d",
                count[0],
                count[1]);
        case TOTAL ->
            found(
                "leftOut",
                "totals",
                count[0] == 1
                    ? "%,d line begins with a word for a total and is hardly filled: line %,d"
                    : "%,d lines begin with a word for a total and are hardly filled, the first is"
                        + " line %,d",
                count[0],
                count[1]);
        case LINE -> found("leftOut", "lines", "%,d lines, as the plan says", count[0]);
        case CONDITION ->
            found("leftOut", "conditions", "%,d lines, as the conditions say", count[0]);
        case NUMBER -> found("leftOut", "numbers", "%,d records by their number", count[0]);
        default -> {}
      }
    }
  }

  private void blankWords() {
    if (table.reading().blankWords() == null || table.reading().blankWords().isEmpty()) {
      return;
    }
    found(
        "blankWords",
        String.join(" ", table.reading().blankWords()),
        "%s",
        wanted.blankWords() == null
            ? "they stand in for nothing; all of them are counted as blank"
            : "as the plan says");
  }

  private void spaces() {
    List<Finding> spaces = new ArrayList<>();
    table.profiles().forEach(p -> p.finding(FindingCode.OUTER_SPACES).ifPresent(spaces::add));
    if (!spaces.isEmpty()) {
      found(
          "spaces",
          "kept",
          "%,d cells have them at an end",
          spaces.stream().mapToLong(Finding::rows).sum());
    }
  }

  /** A number of the total line that is the number of records. */
  private void totalAgrees(Layout.Found layout) {
    long line = layout.lastRow() + 1;
    if (wanted.lastRow() != null || line > table.raw().lastLine()) {
      return;
    }
    String count = String.valueOf(table.rowCount());
    for (int c = 0; c < table.raw().width(); c++) {
      Cell cell = table.raw().cellAt(line, c);
      if (cell.text().strip().equals(count)) {
        found("lastRow", "agrees", "its %,d is the number of records", table.rowCount());
        return;
      }
    }
  }

  private void warn(ColumnProfile column, Finding f, boolean confirm, String message) {
    WarningCode code = WarningCode.of(f.code());
    warnings.add(new Warning(f.line(), code, message, column.name(), f.rows(), confirm));
  }

  static String cells(long count) {
    return String.format(Locale.ROOT, count == 1 ? "%,d cell" : "%,d cells", count);
  }

  private static String verb(Finding f, String one, String more) {
    return f.rows() == 1 ? one : more;
  }

  private void column(ColumnProfile column) {
    for (Finding f : column.findings()) {
      String where = cells(f.rows()) + " of " + column.name();
      switch (f.code()) {
        case SHORT_YEARS -> {
          if (wanted.century() == null) {
            warn(
                column,
                f,
                true,
                where
                    + verb(f, " writes", " write")
                    + " the year with two figures, such as “"
                    + f.sample()
                    + "”.");
          }
        }
        case LEADING_ZEROS ->
            warn(
                column,
                f,
                false,
                where
                    + verb(f, " begins", " begin")
                    + " with a zero, such as “"
                    + f.sample()
                    + "”; taken as codes, zeros and all.");
        case SHORTENED_NUMBERS ->
            warn(
                column,
                f,
                true,
                where
                    + verb(f, " was", " were")
                    + " shortened by a spreadsheet, such as “"
                    + f.sample()
                    + "”. The last figures are lost: ask for the file as it was exported.");
        case DATES_AMONG_CODES ->
            warn(
                column,
                f,
                true,
                where
                    + verb(f, " is a date", " are dates")
                    + " among codes, such as “"
                    + f.sample()
                    + "”. A spreadsheet may have taken codes for dates: look at line "
                    + f.line()
                    + ".");
        case SEVERAL_CURRENCIES ->
            warn(
                column,
                f,
                true,
                column.name()
                    + " holds several currencies ("
                    + f.sample()
                    + "). Only the amount is read: part them first, or leave rows out.");
        case CURRENCY ->
            warn(
                column,
                f,
                false,
                where
                    + verb(f, " has", " have")
                    + " the currency "
                    + f.sample()
                    + " beside it; the amount is read.");
        case ERRORS ->
            warn(
                column,
                f,
                false,
                where
                    + (f.sample().startsWith("=")
                        ? " are formulas without a result: open the workbook in a spreadsheet and"
                            + " save it."
                        : " hold an error, such as "
                            + f.sample()
                            + ". They are problems, not"
                            + " blanks."));
        case UNDECODABLE ->
            warn(
                column,
                f,
                true,
                where
                    + " hold bytes that are no character in "
                    + table.reading().encoding()
                    + ", the first in line "
                    + f.line()
                    + ". See whether another encoding fits.");
        default -> {}
      }
    }
    LocaleSettings file = table.reading().locale();
    if (!column.locale().decimal().equals(file.decimal())) {
      warnings.add(
          new Warning(
              0,
              WarningCode.OTHER_DECIMAL,
              column.name()
                  + " has a decimal "
                  + (",".equals(column.locale().decimal()) ? "comma" : "point")
                  + ", unlike the rest of the file, and is read so.",
              column.name(),
              0,
              false));
    }
    if (column.locale().dateOrder() != file.dateOrder()) {
      warnings.add(
          new Warning(
              0,
              WarningCode.OTHER_DATE_ORDER,
              column.name()
                  + " writes its dates as "
                  + column.locale().dateOrder().word().replace("-", ", ")
                  + ", unlike the rest of the file, and is read so.",
              column.name(),
              0,
              true));
    }
  }

  /** Rows with more or fewer cells than the titles. */
  private void cellCounts(Layout.Found layout) {
    if (layout.titleRows().isEmpty()) {
      return;
    }
    long titleLine = layout.titleRows().get(layout.titleRows().size() - 1);
    int expected =
        parsed.widths().stream()
            .filter(w -> w.lines().contains(titleLine))
            .mapToInt(RowParser.RowWidth::cells)
            .findFirst()
            .orElse(0);
    List<Warning> found = new ArrayList<>();
    long rows = 0;
    for (RowParser.RowWidth width : parsed.widths()) {
      if (expected == 0 || width.cells() == expected) {
        continue;
      }
      rows += width.rows();
      for (long line : width.lines()) {
        if (table.isRecord(line)) {
          found.add(
              new Warning(
                  line,
                  WarningCode.CELL_COUNT,
                  cells(width.cells()) + " where the titles have " + expected,
                  null,
                  1,
                  false));
        }
      }
    }
    found.sort(Comparator.comparingLong(Warning::row));
    warnings.addAll(found.subList(0, Math.min(SHOWN_ROWS, found.size())));
    if (found.size() > SHOWN_ROWS) {
      warnings.add(
          new Warning(
              0,
              WarningCode.CELL_COUNT,
              String.format(
                  Locale.ROOT,
                  "%,d lines in all have another number of cells than the titles",
                  rows),
              null,
              rows,
              false));
    }
  }
}
