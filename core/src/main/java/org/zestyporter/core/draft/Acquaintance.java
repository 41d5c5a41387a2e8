package org.zestyporter.core.draft;

import java.io.IOException;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.StringJoiner;
import java.util.function.BooleanSupplier;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.Temporary;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.PorterException;

/**
 * Gets to know an application before the first file for it is there, so that its draft is as quick
 * as later ones: the tables are read and sketched, and a few of the application's own records are
 * drafted for as if they had come in a file. No more records are read than drafts read.
 */
public final class Acquaintance {
  private static final int COLUMNS = 60;
  private static final int ROWS = 200;
  private static final int CELL = 200;

  /** Drafts after which a process drafts about as fast as it can. */
  private static final int REHEARSED = 4;

  private Acquaintance() {}

  /**
   * Looks at all tables of an application.
   *
   * @param known remembers what is found
   * @param goesOn asked again and again; false ends it
   * @throws PorterException if the application does not answer
   */
  public static void make(KnownRecords known, BooleanSupplier goesOn) throws IOException {
    Application application = known.application();
    List<TableInfo> tables = TableRank.tables(application, TableRank.own(application));
    for (TableInfo table : tables) {
      if (!goesOn.getAsBoolean()) {
        return;
      }
      known.sketches(table);
    }
    Path folder = Temporary.folder("known");
    try {
      Path file = folder.resolve("records");
      write(application, tables, file);
      for (int times = 0; times < REHEARSED && goesOn.getAsBoolean(); times++) {
        try (SourceTable source =
            SourceReader.open(file, folder.resolve("cells" + times), Reading.FIND)) {
          new PlanDraft(known, source, List.of()).rank();
        }
      }
    } finally {
      Temporary.drop(folder);
    }
  }

  /** Writes the first records of some tables beside each other, as tabbed text. */
  private static void write(Application application, List<TableInfo> tables, Path file)
      throws IOException {
    List<StringJoiner> lines = new ArrayList<>();
    for (int line = 0; line <= ROWS; line++) {
      lines.add(new StringJoiner("\t", "", "\n"));
    }
    int columns = 0;
    for (TableInfo table : tables) {
      int width = Math.min(COLUMNS - columns, table.fields().size());
      List<Object[]> records = application.page(table, null, 0, ROWS);
      for (int field = 0; field < width; field++) {
        lines.get(0).add(table.fields().get(field).name());
        for (int row = 0; row < ROWS; row++) {
          lines.get(row + 1).add(row < records.size() ? cell(records.get(row)[field]) : "");
        }
      }
      columns += width;
      if (columns == COLUMNS) {
        break;
      }
    }
    try (Writer out = Files.newBufferedWriter(file)) {
      for (StringJoiner line : lines) {
        out.write(line.toString());
      }
    }
  }

  private static String cell(@Nullable Object value) {
    String cell = value == null ? "" : value.toString().replaceAll("[\\t\\r\\n\"]", " ");
    return cell.substring(0, Math.min(CELL, cell.length()));
  }
}
