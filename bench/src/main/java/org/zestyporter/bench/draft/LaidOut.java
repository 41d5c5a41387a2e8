package org.zestyporter.bench.draft;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/**
 * Writes records as people keep them in a workbook: under headings and a line that groups the
 * titles, in sections with a sum below each, the titles again on a new page, a note at the end, and
 * another table below.
 */
final class LaidOut {
  private static final int SECTION = 17;
  private static final int PAGE = 30;

  private LaidOut() {}

  static void write(Path file, List<String> titles, List<List<String>> records) throws IOException {
    try (OutputStream out = Files.newOutputStream(file);
        Workbook book = new Workbook(out, "bench", "1.0")) {
      Worksheet sheet = book.newWorksheet("List");
      int width = titles.size();
      sheet.value(0, 0, "As of autumn");
      sheet.range(0, 0, 0, width - 1).merge();
      sheet.value(1, 0, "kept by");
      sheet.value(1, 1, "the office");
      sheet.value(1, width - 1, "copy");
      int line = 3;
      int half = width / 2;
      group(sheet, line, 0, half - 1, "First half");
      group(sheet, line, half, width - 1, "Second half");
      put(sheet, ++line, titles);
      for (int r = 0; r < records.size(); r++) {
        if (r % SECTION == 0) {
          if (r > 0) {
            sheet.value(++line, 0, "Total");
            sheet.value(line, 1, SECTION);
          }
          sheet.value(++line, 0, "Part " + (char) ('A' + r / SECTION));
        } else if (r == PAGE) {
          sheet.value(++line, 0, "Page 2 of 2");
          put(sheet, ++line, titles);
        }
        put(sheet, ++line, records.get(r));
      }
      line += 2;
      put(sheet, line, List.of("Key", "Meaning", "Since", "Number"));
      put(sheet, line + 1, List.of("x", "left out", "2019", "4"));
      put(sheet, line + 2, List.of("y", "told twice", "2020", "6"));
      sheet.value(line + 4, 0, "Please tell the office of mistakes.");
    }
  }

  private static void group(Worksheet sheet, int line, int from, int to, String word) {
    sheet.value(line, from, word);
    sheet.range(line, from, line, to).merge();
  }

  private static void put(Worksheet sheet, int line, List<String> cells) {
    for (int c = 0; c < cells.size(); c++) {
      if (!cells.get(c).isEmpty()) {
        sheet.value(line, c, cells.get(c));
      }
    }
  }
}
