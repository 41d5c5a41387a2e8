package org.zestyporter.core.source;

import java.io.IOException;
import java.nio.file.Path;

/** Turns the bytes of one format into rows. */
@FunctionalInterface
interface RowParser {
  void parse(Path file, Reading reading, RowSink sink) throws IOException;
}
