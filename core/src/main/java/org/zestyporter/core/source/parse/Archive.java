package org.zestyporter.core.source.parse;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Enumeration;
import java.util.List;
import java.util.Locale;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** Files packed by gzip (RFC 1952) or into a zip archive. */
public final class Archive {
  private static final byte[] GZIP = {0x1F, (byte) 0x8B};
  private static final byte[] ZIP = {'P', 'K', 3, 4};
  private static final byte[] EMPTY_ZIP = {'P', 'K', 5, 6};

  /** No honest table is packed tighter than this once it is large. */
  private static final long TIGHTEST = 400;

  private static final long LARGE = 1L << 30;
  private static final long MOST_BYTES = 64L << 30;
  private static final int MOST_ENTRIES = 2_000;

  private Archive() {}

  /** What an archive is: packed, a package of a workbook, or neither. */
  public enum Kind {
    NONE,
    GZIP,
    ZIP,
    WORKBOOK,
    OPEN_DOCUMENT
  }

  public static Kind kind(Path file, byte[] head) throws IOException {
    if (Encodings.startsWith(head, GZIP)) {
      return Kind.GZIP;
    }
    if (Encodings.startsWith(head, EMPTY_ZIP)) {
      throw ErrorCode.EMPTY_FILE.error("The archive is empty.");
    }
    if (!Encodings.startsWith(head, ZIP)) {
      return Kind.NONE;
    }
    try (ZipFile zip = new ZipFile(file.toFile())) {
      refuseBomb(zip);
      if (zip.getEntry("xl/workbook.xml") != null) {
        return Kind.WORKBOOK;
      }
      if (zip.getEntry("content.xml") != null && zip.getEntry("mimetype") != null) {
        return Kind.OPEN_DOCUMENT;
      }
      if (zip.getEntry("[Content_Types].xml") != null) {
        if (zip.getEntry("xl/workbook.bin") != null) {
          throw ErrorCode.BINARY_WORKBOOK.error("The workbook is of the binary kind (.xlsb).");
        }
        throw ErrorCode.NOT_A_TABLE.error(
            "The file is an office document, but no workbook, so it holds no table.");
      }
      return Kind.ZIP;
    } catch (IOException | IllegalArgumentException e) {
      throw ErrorCode.UNREADABLE_WORKBOOK.error(
          "The file begins like a workbook or an archive but is damaged or cut short.",
          "Ask for it to be sent again.",
          e);
    }
  }

  private static void refuseBomb(ZipFile zip) {
    Enumeration<? extends ZipEntry> entries = zip.entries();
    while (entries.hasMoreElements()) {
      ZipEntry entry = entries.nextElement();
      if (entry.getSize() > LARGE
          && entry.getSize() / Math.max(1, entry.getCompressedSize()) > TIGHTEST) {
        throw bomb();
      }
    }
  }

  private static PorterException bomb() {
    return ErrorCode.TOO_LARGE.error(
        "The file unpacks to more than a gigabyte at over "
            + TIGHTEST
            + " to 1. No table packs so tightly, so it is not opened.");
  }

  /** Names of the files in a zip archive that can be tables, in its order. */
  public static List<String> entries(Path file) throws IOException {
    List<String> names = new ArrayList<>();
    try (ZipFile zip = new ZipFile(file.toFile())) {
      Enumeration<? extends ZipEntry> entries = zip.entries();
      while (entries.hasMoreElements() && names.size() < MOST_ENTRIES) {
        ZipEntry entry = entries.nextElement();
        String name = entry.getName();
        String bare = name.substring(name.lastIndexOf('/') + 1);
        boolean beside = bare.startsWith(".") || name.startsWith("__MACOSX/");
        if (!entry.isDirectory() && !beside && entry.getSize() != 0 && mayBeTable(zip, entry)) {
          names.add(name);
        }
      }
    } catch (IOException | IllegalArgumentException e) {
      throw damaged(e);
    }
    return names;
  }

  private static boolean mayBeTable(ZipFile zip, ZipEntry entry) throws IOException {
    byte[] head;
    try (InputStream in = zip.getInputStream(entry)) {
      head = in.readNBytes(4096);
    } catch (ZipException | java.io.EOFException e) {
      return false;
    }
    boolean packed = Encodings.startsWith(head, ZIP) || Encodings.startsWith(head, FileFormat.OLE2);
    boolean note = entry.getName().toLowerCase(Locale.ROOT).matches("(.*/)?(readme|licen[cs]e).*");
    return packed || !Encodings.isBinary(head) && !note;
  }

  /**
   * Unpacks a gzip file, or one file of a zip archive.
   *
   * @param entry name of the file in the archive; null for gzip
   * @param most bytes after which to stop
   */
  public static void unpack(Path file, String entry, Path target, long most) throws IOException {
    if (entry == null) {
      try (InputStream in =
          new GZIPInputStream(new BufferedInputStream(Files.newInputStream(file)), 1 << 16)) {
        copy(in, target, Files.size(file), most);
      } catch (java.io.EOFException | ZipException e) {
        throw damaged(e);
      }
      return;
    }
    try (ZipFile zip = new ZipFile(file.toFile())) {
      ZipEntry found = zip.getEntry(entry);
      if (found == null) {
        throw ErrorCode.NO_SUCH_ENTRY.error("The archive has no file “" + entry + "”.");
      }
      try (InputStream in = zip.getInputStream(found)) {
        copy(in, target, Math.max(1, found.getCompressedSize()), most);
      }
    } catch (ZipException | java.io.EOFException | IllegalArgumentException e) {
      throw damaged(e);
    }
  }

  private static PorterException damaged(Exception e) {
    return ErrorCode.UNREADABLE_ARCHIVE.error("The archive is damaged, cut short or protected.", e);
  }

  private static void copy(InputStream in, Path target, long packed, long most) throws IOException {
    byte[] buffer = new byte[1 << 16];
    long bytes = 0;
    try (OutputStream out = Files.newOutputStream(target)) {
      int n;
      while (bytes < most && (n = in.read(buffer)) > 0) {
        bytes += n;
        if (bytes > LARGE && bytes / packed > TIGHTEST || bytes > MOST_BYTES) {
          throw bomb();
        }
        out.write(buffer, 0, n);
      }
    }
  }
}
