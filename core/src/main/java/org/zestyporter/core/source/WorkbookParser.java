package org.zestyporter.core.source;

import java.io.IOException;
import java.math.BigDecimal;
import java.math.MathContext;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.dhatim.fastexcel.reader.ExcelReaderException;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;
import org.dhatim.fastexcel.reader.SheetVisibility;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Values;

/** Workbooks in Office Open XML (ECMA-376), read as a stream. */
final class WorkbookParser implements RowParser {
  /** Spreadsheets keep and show 15 significant digits. */
  private static final MathContext SHEET_DIGITS = new MathContext(15);

  private static final Pattern ERROR =
      Pattern.compile("#(DIV/0!|N/A|NAME\\?|NULL!|NUM!|REF!|VALUE!|SPILL!|CALC!)");

  private static final int MAX_COLUMNS = 16_384;
  private static final LocalDateTime DAY_ZERO = LocalDateTime.of(1899, 12, 31, 0, 0);

  List<SheetInfo> sheets(Path file) throws IOException {
    try (ReadableWorkbook book = open(file);
        Stream<Sheet> sheets = book.getSheets()) {
      return sheets
          .map(s -> new SheetInfo(s.getName(), s.getVisibility() != SheetVisibility.VISIBLE))
          .toList();
    }
  }

  @Override
  public void parse(Path file, Reading reading, RowSink sink) throws IOException {
    try (ReadableWorkbook book = open(file)) {
      Sheet sheet =
          book.findSheet(reading.sheet())
              .orElseThrow(
                  () ->
                      PorterException.input(
                          "no-such-sheet", "The workbook has no sheet “" + reading.sheet() + "”."));
      try (Stream<Row> rows = sheet.openStream()) {
        Iterator<Row> iterator = rows.iterator();
        while (iterator.hasNext()) {
          Row row = iterator.next();
          sink.row(row.getRowNum(), cells(row));
        }
      }
    } catch (ExcelReaderException | IllegalArgumentException | IllegalStateException e) {
      throw unreadable(e);
    }
  }

  private static ReadableWorkbook open(Path file) throws IOException {
    try {
      return new ReadableWorkbook(file.toFile(), new ReadingOptions(true, true));
    } catch (IOException | RuntimeException e) {
      return openPlain(file);
    }
  }

  /** A workbook need not have styles; then it has no dates either. */
  private static ReadableWorkbook openPlain(Path file) {
    try {
      return new ReadableWorkbook(file.toFile(), new ReadingOptions(false, true));
    } catch (IOException | RuntimeException e) {
      throw unreadable(e);
    }
  }

  private static PorterException unreadable(Exception cause) {
    return new PorterException(
        PorterException.Kind.INPUT,
        "unreadable-workbook",
        "The workbook can't be opened: it is damaged or cut short. Open it in a spreadsheet, save"
            + " it again and bring the new file.",
        cause);
  }

  private static List<Cell> cells(Row row) {
    int width = row.getCellCount();
    if (width > MAX_COLUMNS) {
      throw PorterException.input(
          "too-wide", "Line " + row.getRowNum() + " has more than 16,384 columns.");
    }
    List<Cell> cells = new ArrayList<>(width);
    for (int i = 0; i < width; i++) {
      org.dhatim.fastexcel.reader.Cell cell = row.getCell(i);
      cells.add(cell == null ? Cell.BLANK : cell(cell));
    }
    return cells;
  }

  private static Cell cell(org.dhatim.fastexcel.reader.Cell cell) {
    return switch (cell.getType()) {
      case EMPTY -> Cell.BLANK;
      case STRING -> Cell.text(cell.getText());
      case BOOLEAN -> new Cell(Cell.Kind.BOOLEAN, cell.asBoolean().toString());
      case ERROR -> new Cell(Cell.Kind.ERROR, String.valueOf(cell.getRawValue()));
      case NUMBER -> number(cell, (BigDecimal) cell.getValue());
      case FORMULA -> cached(cell);
    };
  }

  private static Cell cached(org.dhatim.fastexcel.reader.Cell cell) {
    Object value = cell.getValue();
    if (value == null && cell.getRawValue() == null) {
      return new Cell(Cell.Kind.ERROR, "=" + cell.getFormula());
    }
    if (value instanceof String text && ERROR.matcher(text).matches()) {
      return new Cell(Cell.Kind.ERROR, text);
    }
    if (value instanceof BigDecimal number) {
      return number(cell, number);
    }
    if (value instanceof Boolean truth) {
      return new Cell(Cell.Kind.BOOLEAN, truth.toString());
    }
    return value == null ? Cell.BLANK : Cell.text(value.toString());
  }

  private static Cell number(org.dhatim.fastexcel.reader.Cell cell, BigDecimal number) {
    String format = cell.getDataFormatString();
    if (format != null && isDate(format)) {
      try {
        return moment(cell.asDate(), number, format);
      } catch (ExcelReaderException e) {
        return new Cell(Cell.Kind.NUMBER, plain(number));
      }
    }
    return new Cell(Cell.Kind.NUMBER, plain(number));
  }

  private static String plain(BigDecimal number) {
    return Values.plain(number.round(SHEET_DIGITS));
  }

  private static Cell moment(LocalDateTime moment, BigDecimal serial, String format) {
    if (serial.compareTo(BigDecimal.ONE) < 0 && !moment.isAfter(DAY_ZERO.plusDays(1))) {
      LocalTime time = moment.toLocalTime().withNano(0);
      return new Cell(Cell.Kind.TIME, time.toString());
    }
    boolean midnight = moment.toLocalTime().equals(LocalTime.MIDNIGHT);
    return midnight
        ? new Cell(Cell.Kind.DATE, moment.toLocalDate().toString())
        : new Cell(Cell.Kind.DATETIME, Values.text(moment));
  }

  /** A number format is a date's if it holds a date letter outside of quotes and brackets. */
  private static boolean isDate(String format) {
    String bare =
        format.toLowerCase(Locale.ROOT).replaceAll("\"[^\"]*\"|\\\\.|\\[(?!h+]|m+]|s+])[^]]*]", "");
    return !bare.contains("general") && bare.matches("(?s).*[dyhs].*|(?s).*m{1,5}[^0#]*");
  }
}
