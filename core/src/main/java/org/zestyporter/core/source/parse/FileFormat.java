package org.zestyporter.core.source.parse;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.zestyporter.core.source.reading.SourceFormat;
import org.zestyporter.core.value.ErrorCode;

/** Tells from a file's content, never from its name, what it is. */
public final class FileFormat {
  public static final byte[] OLE2 = {(byte) 0xD0, (byte) 0xCF, 0x11, (byte) 0xE0};
  private static final byte[] SEVEN_ZIP = {'7', 'z', (byte) 0xBC, (byte) 0xAF};

  private FileFormat() {}

  /** The format, as far as the first bytes tell: text is {@link SourceFormat#DELIMITED} here. */
  public static SourceFormat find(Path file, byte[] head) throws IOException {
    if (head.length == 0) {
      throw ErrorCode.EMPTY_FILE.error("The file is empty: it holds 0 bytes.");
    }
    switch (Archive.kind(file, head)) {
      case WORKBOOK:
        return SourceFormat.XLSX;
      case OPEN_DOCUMENT:
        return SourceFormat.ODS;
      case GZIP, ZIP:
        throw ErrorCode.PACKED_TWICE.error("The archive holds another archive.");
      default:
    }
    if (Encodings.startsWith(head, OLE2)) {
      refuseLocked(head);
      return SourceFormat.XLS;
    }
    if (Encodings.isBinary(head)) {
      refuseNul(head);
      throw ErrorCode.NOT_A_TABLE.error(
          "The file is neither text nor a workbook, so it holds no table" + kindOf(head) + ".");
    }
    if (isMarkup(head)) {
      throw ErrorCode.MARKUP.error(
          "The file is a page or document in HTML or XML, not a table, whatever its name"
              + " says.");
    }
    return isJson(head) ? SourceFormat.JSON : SourceFormat.DELIMITED;
  }

  /** A text with a few NUL bytes in it is told as what it is. */
  private static void refuseNul(byte[] head) {
    int nul = 0;
    int first = -1;
    int odd = 0;
    int line = 1;
    for (int i = 0; i < head.length; i++) {
      if (head[i] == 0) {
        nul++;
        first = first < 0 ? line : first;
      } else if (head[i] == '\n') {
        line++;
      } else if (head[i] > 0 && head[i] < ' ' && head[i] != '\t' && head[i] != '\r') {
        odd++;
      }
    }
    boolean text = nul > 0 && odd == 0 && nul <= Math.max(1, head.length / 10);
    if (text && kindOf(head).isEmpty()) {
      throw ErrorCode.NUL_BYTE.error(
          "The file is text, but has NUL bytes in it (U+0000, which is no character),"
              + " the first on line "
              + first
              + ". Something went wrong when it was written.");
    }
  }

  private static void refuseLocked(byte[] head) {
    String names = new String(head, StandardCharsets.UTF_16LE);
    String odd = new String(head, 1, head.length - 1, StandardCharsets.UTF_16LE);
    if (names.contains("EncryptedPackage") || odd.contains("EncryptedPackage")) {
      throw SheetErrors.locked();
    }
  }

  private static String start(byte[] head) {
    String marked = Encodings.marked(head);
    String wide = marked == null ? Encodings.wide(head) : marked;
    return TextFiles.headText(head, wide == null ? StandardCharsets.UTF_8 : TextFiles.charset(wide))
        .stripLeading();
  }

  private static boolean isMarkup(byte[] head) {
    String start = start(head);
    return start.length() > 4
        && start.charAt(0) == '<'
        && start
            .substring(0, Math.min(2000, start.length()))
            .toLowerCase(java.util.Locale.ROOT)
            .matches("(?s)<(\\?xml|!doctype|html|head|body|table|meta|[a-z]+\\s+xmlns).*");
  }

  /** An array or object at the beginning, with what can follow there. */
  private static boolean isJson(byte[] head) {
    String start = start(head);
    if (start.isEmpty() || start.charAt(0) != '{' && start.charAt(0) != '[') {
      return false;
    }
    String next = start.substring(1).stripLeading();
    return start.charAt(0) == '{'
        ? next.startsWith("\"") && isKey(next) || next.startsWith("}")
        : next.matches("(?s)([\\[{\\]\"]|-?\\d|true|false|null).*") && looksClosed(start);
  }

  /** True for a quoted text with a colon behind it; also for one that goes on beyond the head. */
  private static boolean isKey(String text) {
    int at = 1;
    while (at < text.length() && text.charAt(at) != '"') {
      at += text.charAt(at) == '\\' ? 2 : 1;
    }
    return at >= text.length() || text.substring(at + 1).stripLeading().startsWith(":");
  }

  /** Text such as {@code [draft];3} is no JSON. */
  private static boolean looksClosed(String start) {
    String firstLine = start.lines().findFirst().orElse("").strip();
    return !firstLine.matches("\\[[^\\[\\]{}\",]*].+");
  }

  private static String kindOf(byte[] head) {
    if (Encodings.startsWith(head, (byte) 0x89, (byte) 'P', (byte) 'N', (byte) 'G')
        || Encodings.startsWith(head, (byte) 0xFF, (byte) 0xD8, (byte) 0xFF)
        || Encodings.startsWith(head, (byte) 'G', (byte) 'I', (byte) 'F', (byte) '8')) {
      return " (it is a picture)";
    }
    if (Encodings.startsWith(head, SEVEN_ZIP)
        || Encodings.startsWith(head, (byte) 'R', (byte) 'a', (byte) 'r', (byte) '!')
        || Encodings.startsWith(head, (byte) 'B', (byte) 'Z', (byte) 'h')
        || Encodings.startsWith(head, (byte) 0xFD, (byte) '7', (byte) 'z')) {
      return " (it is packed in a way that is not read here; unpack it first)";
    }
    return Encodings.startsWith(head, (byte) '%', (byte) 'P', (byte) 'D', (byte) 'F')
        ? " (it is a PDF)"
        : "";
  }
}
