package org.zestyporter.core.source;

import java.io.IOException;
import java.util.List;
import org.zestyporter.core.value.Cell;

/** Takes the rows of a file, one after the other. */
@FunctionalInterface
interface RowSink {

  /**
   * @param line the row's line number in the file, from 1
   * @param cells the row's cells; blank cells at the end may be missing
   */
  void row(long line, List<Cell> cells) throws IOException;
}
