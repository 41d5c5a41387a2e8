package org.zestyporter.core.source;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Enumeration;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import org.zestyporter.core.value.PorterException;

/** Tells from a file's content, never from its name, what it is and how its text is parted. */
final class Sniffer {
  private static final int HEAD_BYTES = 256 * 1024;
  private static final List<Character> DELIMITERS = List.of(';', '\t', ',', '|');
  private static final byte[] ZIP = {'P', 'K', 3, 4};
  private static final byte[] OLE2 = {(byte) 0xD0, (byte) 0xCF, 0x11, (byte) 0xE0};

  private Sniffer() {}

  static SourceFormat format(Path file) throws IOException {
    byte[] head = head(file);
    if (head.length == 0) {
      throw PorterException.input(
          "empty-file", "The file is empty: it holds 0 bytes. Ask for it to be sent again.");
    }
    if (startsWith(head, ZIP)) {
      requireWorkbook(file);
      return SourceFormat.XLSX;
    }
    if (startsWith(head, OLE2)) {
      throw oldOrLocked(head);
    }
    if (isBinary(head)) {
      throw PorterException.input(
          "not-a-table",
          "The file is neither text nor a workbook, so it holds no table"
              + kindOf(head)
              + ". Bring a .csv, .txt, .tsv or .xlsx file.");
    }
    return SourceFormat.DELIMITED;
  }

  private static PorterException oldOrLocked(byte[] head) {
    String names = new String(head, StandardCharsets.UTF_16LE);
    String odd = new String(head, 1, head.length - 1, StandardCharsets.UTF_16LE);
    boolean locked = names.contains("EncryptedPackage") || odd.contains("EncryptedPackage");
    return locked
        ? PorterException.input(
            "password-protected",
            "The workbook is protected by a password. Open it with the password, save it without"
                + " one and bring the new file.")
        : PorterException.input(
            "old-workbook",
            "The file is a workbook of the old binary kind. Save it as .xlsx and bring the new"
                + " file.");
  }

  private static void requireWorkbook(Path file) throws IOException {
    try (ZipFile zip = new ZipFile(file.toFile())) {
      if (zip.getEntry("xl/workbook.xml") != null || zip.getEntry("[Content_Types].xml") != null) {
        refuseBomb(zip);
        return;
      }
    } catch (ZipException e) {
      throw new PorterException(
          PorterException.Kind.INPUT,
          "unreadable-workbook",
          "The file begins like a workbook but is damaged or cut short. Ask for it to be sent"
              + " again.",
          e);
    }
    throw PorterException.input(
        "not-a-table",
        "The file is an archive without a workbook in it. Take the table out first.");
  }

  /** More than 4 GiB unpacked at over 200 to 1 is no honest sheet. */
  private static void refuseBomb(ZipFile zip) {
    Enumeration<? extends ZipEntry> entries = zip.entries();
    while (entries.hasMoreElements()) {
      ZipEntry entry = entries.nextElement();
      if (entry.getSize() > 4L << 30
          && entry.getSize() / Math.max(1, entry.getCompressedSize()) > 200) {
        throw PorterException.input(
            "too-large", "The workbook unpacks to more than 4 GiB and is not opened.");
      }
    }
  }

  private static boolean isBinary(byte[] head) {
    if (bomCharset(head) != null) {
      return false;
    }
    int odd = 0;
    for (byte b : head) {
      if (b == 0) {
        return true;
      }
      if (b > 0 && b < 32 && b != '\t' && b != '\n' && b != '\r' && b != '\f' && b != 0x1A) {
        odd++;
      }
    }
    return odd > head.length / 50;
  }

  private static String kindOf(byte[] head) {
    if (startsWith(head, new byte[] {(byte) 0x89, 'P', 'N', 'G'})
        || startsWith(head, new byte[] {(byte) 0xFF, (byte) 0xD8, (byte) 0xFF})
        || startsWith(head, new byte[] {'G', 'I', 'F', '8'})) {
      return " (it is a picture)";
    }
    return startsWith(head, new byte[] {'%', 'P', 'D', 'F'}) ? " (it is a PDF)" : "";
  }

  /** The encoding: a byte order mark, else UTF-8 if every byte of the file is valid in it. */
  static Evidence encoding(Path file) throws IOException {
    Charset marked = bomCharset(head(file));
    if (marked != null) {
      return new Evidence("encoding", marked.name(), "the file begins with its byte order mark");
    }
    Utf8Check check = utf8(file);
    if (check == Utf8Check.ASCII) {
      return new Evidence("encoding", "UTF-8", "only plain ASCII characters, the same everywhere");
    }
    return check == Utf8Check.VALID
        ? new Evidence("encoding", "UTF-8", "all accented characters are valid UTF-8")
        : new Evidence(
            "encoding", "windows-1252", "not valid UTF-8; Western European is the usual other");
  }

  private enum Utf8Check {
    ASCII,
    VALID,
    INVALID
  }

  private static Utf8Check utf8(Path file) throws IOException {
    CharsetDecoder decoder =
        StandardCharsets.UTF_8
            .newDecoder()
            .onMalformedInput(CodingErrorAction.REPORT)
            .onUnmappableCharacter(CodingErrorAction.REPORT);
    ByteBuffer bytes = ByteBuffer.allocate(64 * 1024);
    CharBuffer chars = CharBuffer.allocate(64 * 1024);
    boolean ascii = true;
    try (InputStream in = Files.newInputStream(file)) {
      int n;
      while ((n = in.read(bytes.array(), bytes.position(), bytes.remaining())) > 0) {
        for (int i = bytes.position(); ascii && i < bytes.position() + n; i++) {
          ascii = bytes.array()[i] >= 0;
        }
        bytes.position(bytes.position() + n).flip();
        chars.clear();
        CoderResult result = decoder.decode(bytes, chars, false);
        if (result.isError()) {
          return Utf8Check.INVALID;
        }
        bytes.compact();
      }
      bytes.flip();
      if (decoder.decode(bytes, chars.clear(), true).isError()) {
        return Utf8Check.INVALID;
      }
    }
    return ascii ? Utf8Check.ASCII : Utf8Check.VALID;
  }

  private static Charset bomCharset(byte[] head) {
    if (startsWith(head, new byte[] {(byte) 0xEF, (byte) 0xBB, (byte) 0xBF})) {
      return StandardCharsets.UTF_8;
    }
    if (startsWith(head, new byte[] {(byte) 0xFF, (byte) 0xFE})) {
      return StandardCharsets.UTF_16LE;
    }
    return startsWith(head, new byte[] {(byte) 0xFE, (byte) 0xFF})
        ? StandardCharsets.UTF_16BE
        : null;
  }

  /** The delimiter by which most lines part into the same number of cells. */
  static Evidence delimiter(Path file, Charset charset, char quote) throws IOException {
    byte[] bytes = head(file);
    String text = decode(bytes, charset);
    List<String> lines = logicalLines(text, quote, bytes.length == HEAD_BYTES);
    if (lines.isEmpty()) {
      throw PorterException.input(
          "empty-file", "The file holds only blank lines. Ask for it to be sent again.");
    }
    char best = ',';
    long bestScore = 0;
    int bestCells = 1;
    long bestAgree = 0;
    for (char delimiter : DELIMITERS) {
      Map<Integer, Long> widths = new TreeMap<>();
      for (String line : lines) {
        widths.merge(cellCount(line, delimiter, quote), 1L, Long::sum);
      }
      Map.Entry<Integer, Long> mode =
          widths.entrySet().stream()
              .filter(e -> e.getKey() > 1)
              .max(Map.Entry.comparingByValue())
              .orElse(null);
      if (mode == null) {
        continue;
      }
      long score = mode.getValue() * 1000 / lines.size() * 100 + Math.min(mode.getKey(), 99);
      if (score > bestScore) {
        bestScore = score;
        best = delimiter;
        bestCells = mode.getKey();
        bestAgree = mode.getValue();
      }
    }
    String because =
        bestCells == 1
            ? "no line can be parted, so there is one column"
            : String.format(
                Locale.ROOT,
                "%,d of the first %,d lines part into %d cells",
                bestAgree,
                lines.size(),
                bestCells);
    return new Evidence("delimiter", String.valueOf(best), because);
  }

  private static String decode(byte[] bytes, Charset charset) {
    try {
      CharsetDecoder decoder =
          charset
              .newDecoder()
              .onMalformedInput(CodingErrorAction.REPLACE)
              .onUnmappableCharacter(CodingErrorAction.REPLACE);
      String text = decoder.decode(ByteBuffer.wrap(bytes)).toString();
      return text.startsWith("\uFEFF") ? text.substring(1) : text;
    } catch (CharacterCodingException e) {
      throw new IllegalStateException(e);
    }
  }

  /** Up to 1,000 non-blank lines; a line break inside quotes does not end a line. */
  private static List<String> logicalLines(String text, char quote, boolean cutShort) {
    List<String> lines = new java.util.ArrayList<>();
    boolean quoted = false;
    int start = 0;
    for (int i = 0; i <= text.length() && lines.size() < 1000; i++) {
      boolean end = i == text.length();
      char c = end ? '\n' : text.charAt(i);
      if (c == quote) {
        quoted = !quoted;
      }
      if ((c == '\n' || c == '\r') && (!quoted || end)) {
        String line = text.substring(start, i);
        if (!line.isBlank() && !(end && cutShort && !lines.isEmpty())) {
          lines.add(line);
        }
        start = i + 1;
      }
    }
    return lines;
  }

  private static int cellCount(String line, char delimiter, char quote) {
    int count = 1;
    boolean quoted = false;
    for (int i = 0; i < line.length(); i++) {
      char c = line.charAt(i);
      if (c == quote) {
        quoted = !quoted;
      } else if (c == delimiter && !quoted) {
        count++;
      }
    }
    return count;
  }

  private static byte[] head(Path file) throws IOException {
    try (InputStream in = Files.newInputStream(file)) {
      return in.readNBytes(HEAD_BYTES);
    }
  }

  private static boolean startsWith(byte[] bytes, byte[] prefix) {
    return bytes.length >= prefix.length
        && Arrays.equals(bytes, 0, prefix.length, prefix, 0, prefix.length);
  }
}
