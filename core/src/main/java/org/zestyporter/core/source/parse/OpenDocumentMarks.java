package org.zestyporter.core.source.parse;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.zestyporter.core.source.reading.Letters;
import org.zestyporter.core.source.reading.SheetMarks;

/**
 * Finds what an OpenDocument spreadsheet shows of a sheet beside its table: lines that stay in
 * view, filters, named ranges (OASIS ODF 1.2 part 1, chapters 9.4 and 9.5).
 */
final class OpenDocumentMarks {
  private static final Pattern RANGE =
      Pattern.compile(
          "\\$?(.+?)\\.\\$?([A-Z]{1,3})\\$?(\\d{1,7}):(?:.*\\.)?\\$?([A-Z]{1,3})\\$?(\\d{1,7})");

  private static final Pattern FROZEN = Pattern.compile("\"VerticalSplitMode\"[^>]*>2<");
  private static final Pattern FROZEN_LINES =
      Pattern.compile("\"VerticalSplitPosition\"[^>]*>(\\d{1,4})<");

  private OpenDocumentMarks() {}

  /** How many lines of a sheet stay in view, as the file's settings say; 0 if none do. */
  static long frozen(Path file, String sheet) throws IOException {
    try (ZipFile zip = new ZipFile(file.toFile())) {
      ZipEntry entry = zip.getEntry("settings.xml");
      if (entry == null) {
        return 0;
      }
      String text;
      try (InputStream in = zip.getInputStream(entry)) {
        text = new String(in.readNBytes(1 << 20), StandardCharsets.UTF_8);
      }
      int from = text.indexOf("config:name=\"" + sheet + "\"");
      int to = from < 0 ? -1 : text.indexOf("</config:config-item-map-entry>", from);
      String ofSheet = to < 0 ? "" : text.substring(from, to);
      Matcher lines = FROZEN_LINES.matcher(ofSheet);
      return FROZEN.matcher(ofSheet).find() && lines.find() ? Long.parseLong(lines.group(1)) : 0;
    }
  }

  /**
   * Takes a range of the file's that has a filter or a name, if it is of the sheet.
   *
   * @param address as the file writes it, such as {@code $Boats.$A$5:.$I$66}
   */
  static void range(SheetMarks.Builder marks, String sheet, String address, boolean filtered) {
    Matcher area = RANGE.matcher(address);
    if (!area.matches()
        || !area.group(1).replaceAll("^'|'$", "").replace("''", "'").equals(sheet)) {
      return;
    }
    long first = Long.parseLong(area.group(3));
    if (filtered) {
      marks.head(first, SheetMarks.Why.FILTER);
    } else {
      marks.named(
          first,
          Long.parseLong(area.group(5)),
          Letters.index(area.group(2)),
          Letters.index(area.group(4)));
    }
  }
}
