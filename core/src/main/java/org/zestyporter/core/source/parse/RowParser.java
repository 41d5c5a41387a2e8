package org.zestyporter.core.source.parse;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetPart;

/** Turns the bytes of one format into rows. */
public interface RowParser {

  /**
   * What a parser tells beside the rows.
   *
   * @param names names of the columns where the format itself has them; empty if lines hold them
   * @param parts the sheets that the rows came from, if there were several
   * @param evidence what was found on the way
   * @param widths how many rows have how many cells; empty where that means nothing
   */
  record Told(
      List<String> names, List<SheetPart> parts, List<Evidence> evidence, List<RowWidth> widths) {
    public static final Told NOTHING = new Told(List.of(), List.of(), List.of(), List.of());
  }

  /**
   * Rows of one number of cells.
   *
   * @param lines lines of the first of them
   */
  record RowWidth(int cells, long rows, List<Long> lines) {}

  /** Reads the whole file. */
  Told parse(Path file, Reading reading, RowSink sink, ReadProgress progress) throws IOException;
}
