package org.zestyporter.core.source.parse;

import java.util.regex.Pattern;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** What is common to the sheets of all kinds of workbooks. */
public final class SheetErrors {
  public static final int MAX_COLUMNS = 16_384;
  static final long MAX_LINES = 1_048_576;
  private static final Pattern ERROR =
      Pattern.compile(
          "#(DIV/0!|N/A|NAME\\?|NULL!|NUM!|REF!|VALUE!|SPILL!|CALC!|GETTING_DATA)|Err:\\d{3}");

  private SheetErrors() {}

  static boolean isError(String text) {
    return ERROR.matcher(text).matches();
  }

  /** A cell of a formula that was saved without its result. */
  static void noResult(RowSink sink, int column, String formula) {
    String text = "=" + formula;
    sink.note(NoteCode.NO_RESULT, column, text);
    sink.cell(column, new Cell(Cell.Kind.ERROR, text));
  }

  public static PorterException noSuchSheet(String sheet) {
    return ErrorCode.NO_SUCH_SHEET.error("The workbook has no sheet “" + sheet + "”.");
  }

  public static PorterException unreadable(Exception cause) {
    return ErrorCode.UNREADABLE_WORKBOOK.error(
        "The workbook can't be opened: it is damaged or cut short.", cause);
  }

  static PorterException repeats() {
    return ErrorCode.TOO_MUCH.error(
        "The workbook says that a filled line or cell is repeated many million times. No table needs that.",
        "Delete what lies below and beside the table, save the workbook again and bring the new file.");
  }

  static PorterException locked() {
    return ErrorCode.PASSWORD_PROTECTED.error("The workbook is protected by a password.");
  }
}
