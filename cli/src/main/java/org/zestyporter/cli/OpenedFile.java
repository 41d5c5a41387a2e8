package org.zestyporter.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.Temporary;
import org.zestyporter.core.source.reading.Reading;

/** A file opened for one command, with a folder for its cache that goes away with it. */
record OpenedFile(SourceTable table, Path folder) implements AutoCloseable {

  static OpenedFile open(Path file, Reading reading) throws IOException {
    if (!Files.isRegularFile(file)) {
      throw new NoSuchFileException(file.toString());
    }
    Path folder = Temporary.folder("file");
    try {
      return new OpenedFile(SourceReader.open(file, folder.resolve("cells"), reading), folder);
    } catch (IOException | RuntimeException e) {
      Temporary.drop(folder);
      throw e;
    }
  }

  @Override
  public void close() throws IOException {
    table.close();
    Temporary.drop(folder);
  }
}
