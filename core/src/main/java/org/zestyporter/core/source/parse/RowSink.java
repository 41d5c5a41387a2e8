package org.zestyporter.core.source.parse;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.zestyporter.core.source.reading.SheetMarks;
import org.zestyporter.core.value.Cell;

/** Takes the rows of a file, cell by cell, one row after the other. */
public interface RowSink {

  /**
   * A cell of the row at hand; cells that are left out are blank.
   *
   * @param column from 0
   */
  void cell(int column, Cell cell);

  /**
   * A cell of text, taken out of a buffer.
   *
   * @param bytes holds it in UTF-8
   * @param whole false if it holds bytes that could not be decoded
   */
  default void text(int column, byte[] bytes, int from, int to, boolean whole) {
    String text = new String(bytes, from, to - from, StandardCharsets.UTF_8);
    cell(column, whole ? Cell.text(text) : new Cell(Cell.Kind.ERROR, text));
  }

  /**
   * Something to be known about a cell of the row at hand.
   *
   * @param sample the cell as it is shown
   */
  default void note(NoteCode code, int column, String sample) {}

  /**
   * The format in which a number or a moment of the row at hand is shown, if it has one.
   *
   * @param moment true for days and times
   */
  default void format(int column, boolean moment, String code) {}

  /** What the sheet at hand shows beside its cells; may come before or after its rows. */
  default void marks(SheetMarks marks) {}

  /**
   * Ends the row.
   *
   * @param line the row's line number in the file, from 1
   */
  void endRow(long line) throws IOException;
}
