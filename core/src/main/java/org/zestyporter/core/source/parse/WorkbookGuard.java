package org.zestyporter.core.source.parse;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * Looks through the parts of a workbook (ECMA-376) before they are read, for what would take more
 * memory than there is: a cell far beyond the last column, or texts by the million.
 */
final class WorkbookGuard {
  private static final int BUFFER = 1 << 16;

  /** How much of a sheet's beginning and of its end is handed on. */
  private static final int END_BYTES = 1 << 19;

  /** What a text of a workbook costs in memory beside its characters. */
  private static final long A_TEXT = 60;

  private WorkbookGuard() {}

  /** The first and the last of a sheet's markup. */
  record Ends(String head, String tail) {}

  /**
   * Throws if a sheet has a cell outside of what a sheet can hold.
   *
   * @return both ends of the sheet, where all that is beside the cells stands
   * @throws PorterException with code {@code too-wide}
   */
  static Ends checkSheet(ZipFile zip, String part, ReadProgress progress) throws IOException {
    ZipEntry entry = part == null ? null : zip.getEntry(part);
    if (entry == null) {
      return new Ends("", "");
    }
    ByteArrayOutputStream head = new ByteArrayOutputStream();
    ByteArrayOutputStream tail = new ByteArrayOutputStream();
    byte[] wanted = {' ', 'r', '=', '"'};
    try (InputStream in = zip.getInputStream(entry)) {
      byte[] buffer = new byte[BUFFER];
      int matched = 0;
      int letters = -1;
      int column = 0;
      int n;
      while ((n = in.read(buffer)) > 0) {
        progress.check();
        if (head.size() < END_BYTES) {
          head.write(buffer, 0, n);
        }
        if (tail.size() > 2 * END_BYTES) {
          byte[] all = tail.toByteArray();
          tail.reset();
          tail.write(all, all.length - END_BYTES, END_BYTES);
        }
        tail.write(buffer, 0, n);
        for (int i = 0; i < n; i++) {
          byte b = buffer[i];
          if (letters >= 0) {
            if (b >= 'A' && b <= 'Z') {
              letters++;
              column = letters > 4 ? column : column * 26 + (b - 'A') + 1;
              continue;
            }
            if (letters > 3 || column > SheetErrors.MAX_COLUMNS) {
              throw ErrorCode.TOO_WIDE.error(
                  "The sheet has a cell beyond column XFD, the 16,384th, which is the last that"
                      + " a sheet can hold.",
                  "Save the workbook again in a spreadsheet and bring that.");
            }
            letters = -1;
          }
          matched = b == wanted[matched] ? matched + 1 : b == wanted[0] ? 1 : 0;
          if (matched == wanted.length) {
            matched = 0;
            letters = 0;
            column = 0;
          }
        }
      }
    }
    return new Ends(head.toString(StandardCharsets.UTF_8), tail.toString(StandardCharsets.UTF_8));
  }

  /**
   * Throws if the texts that a workbook keeps for all of its sheets need more memory than there is.
   *
   * @throws PorterException with code {@code too-much}
   */
  static void checkTexts(ZipFile zip, ReadProgress progress) throws IOException {
    ZipEntry entry = zip.getEntry("xl/sharedStrings.xml");
    if (entry == null || entry.getCompressedSize() >= 0 && entry.getCompressedSize() < 100_000) {
      return;
    }
    long most = Runtime.getRuntime().maxMemory() / 2;
    long bytes = 0;
    long texts = 0;
    byte[] wanted = {'<', 's', 'i'};
    int matched = 0;
    try (InputStream in = zip.getInputStream(entry)) {
      byte[] buffer = new byte[BUFFER];
      int n;
      while ((n = in.read(buffer)) > 0) {
        progress.check();
        bytes += n;
        for (int i = 0; i < n; i++) {
          byte b = buffer[i];
          matched = b == wanted[matched] ? matched + 1 : b == wanted[0] ? 1 : 0;
          if (matched == wanted.length) {
            matched = 0;
            texts++;
          }
        }
        if (bytes + texts * A_TEXT > most) {
          throw ErrorCode.TOO_MUCH.error(
              String.format(
                  Locale.ROOT,
                  "The workbook holds more than %,d different texts, which need more memory than"
                      + " there is here (%,d MB).",
                  texts,
                  2 * most >> 20));
        }
      }
    }
  }
}
