package org.zestyporter.core.source.parse;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetInfo;
import org.zestyporter.core.source.reading.SheetPart;

/** Turns the sheets of one kind of workbook into rows. */
public interface SheetParser extends RowParser {

  /** The sheets, in the order of the workbook. */
  List<SheetInfo> sheets(Path file) throws IOException;

  /**
   * Reads one sheet.
   *
   * @param linesBefore added to the sheet's own line numbers
   * @return number of the last line, with the lines before
   */
  long parse(Path file, String sheet, RowSink sink, long linesBefore) throws IOException;

  @Override
  default Told parse(Path file, Reading reading, RowSink sink, ReadProgress progress)
      throws IOException {
    List<String> sheets = reading.sheets();
    if (sheets == null || sheets.isEmpty()) {
      parse(file, reading.sheet(), sink, 0);
      return Told.NOTHING;
    }
    List<SheetPart> parts = new ArrayList<>();
    long lines = 0;
    for (String sheet : sheets) {
      parts.add(new SheetPart(sheet, lines));
      lines = parse(file, sheet, sink, lines);
    }
    return new Told(List.of(), parts, List.of(), List.of());
  }
}
