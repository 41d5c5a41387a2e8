package org.zestyporter.demo;

import java.io.Closeable;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Writes the least that an OpenDocument spreadsheet (OASIS ODF 1.2) needs. */
public final class OpenDocument implements Closeable {
  private static final String TYPE = "application/vnd.oasis.opendocument.spreadsheet";
  private static final String NAMES = "urn:oasis:names:tc:opendocument:xmlns:";

  private final Path file;
  private final StringBuilder body = new StringBuilder();
  private boolean open;

  /** An amount in euros. */
  public record Money(BigDecimal amount) {}

  /** A number that is shown with zeros before it. */
  public record Padded(int number, int width) {}

  public OpenDocument(Path file) {
    this.file = file;
  }

  /** Begins a sheet. */
  public void table(String name, boolean hidden) {
    end();
    open = true;
    body.append("<table:table table:name=\"").append(name).append('"');
    body.append(hidden ? " table:style-name=\"hidden\">" : ">");
  }

  private void end() {
    body.append(open ? "</table:table>" : "");
    open = false;
  }

  /** A row of texts, numbers, {@link Money} and {@link Padded}; an empty text is a blank cell. */
  public void row(Object... cells) {
    body.append("<table:table-row>");
    for (Object cell : cells) {
      body.append(cell(cell));
    }
    body.append("</table:table-row>");
  }

  private static String cell(Object cell) {
    if (cell instanceof Money money) {
      return "<table:table-cell office:value-type=\"currency\" office:currency=\"EUR\""
          + " office:value=\""
          + money.amount()
          + "\"><text:p>"
          + money.amount()
          + " €</text:p></table:table-cell>";
    }
    if (cell instanceof Padded padded) {
      return number(padded.number(), String.format("%0" + padded.width() + "d", padded.number()));
    }
    if (cell instanceof Number number) {
      return number(number, number.toString());
    }
    String text = cell.toString();
    return text.isEmpty()
        ? "<table:table-cell/>"
        : "<table:table-cell office:value-type=\"string\"><text:p>"
            + text.replace("&", "&amp;").replace("<", "&lt;")
            + "</text:p></table:table-cell>";
  }

  private static String number(Number value, String shown) {
    return "<table:table-cell office:value-type=\"float\" office:value=\""
        + value
        + "\"><text:p>"
        + shown
        + "</text:p></table:table-cell>";
  }

  /** Takes the markup of rows as it is. */
  public void markup(String rows) {
    body.append(rows);
  }

  @Override
  public void close() throws IOException {
    end();
    try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
      byte[] type = TYPE.getBytes(StandardCharsets.US_ASCII);
      ZipEntry first = new ZipEntry("mimetype");
      CRC32 crc = new CRC32();
      crc.update(type);
      first.setMethod(ZipEntry.STORED);
      first.setSize(type.length);
      first.setCrc(crc.getValue());
      zip.putNextEntry(first);
      zip.write(type);
      put(
          zip,
          "META-INF/manifest.xml",
          "<manifest:manifest xmlns:manifest=\""
              + NAMES
              + "manifest:1.0\"><manifest:file-entry manifest:full-path=\"/\""
              + " manifest:media-type=\""
              + TYPE
              + "\"/><manifest:file-entry manifest:full-path=\"content.xml\""
              + " manifest:media-type=\"text/xml\"/></manifest:manifest>");
      put(
          zip,
          "content.xml",
          "<office:document-content xmlns:office=\""
              + NAMES
              + "office:1.0\" xmlns:table=\""
              + NAMES
              + "table:1.0\" xmlns:text=\""
              + NAMES
              + "text:1.0\" xmlns:style=\""
              + NAMES
              + "style:1.0\" office:version=\"1.2\"><office:automatic-styles><style:style"
              + " style:name=\"hidden\" style:family=\"table\"><style:table-properties"
              + " table:display=\"false\"/></style:style></office:automatic-styles>"
              + "<office:body><office:spreadsheet>"
              + body
              + "</office:spreadsheet></office:body></office:document-content>");
    }
  }

  private static void put(ZipOutputStream zip, String name, String content) throws IOException {
    zip.putNextEntry(new ZipEntry(name));
    zip.write(
        ("<?xml version=\"1.0\" encoding=\"UTF-8\"?>" + content).getBytes(StandardCharsets.UTF_8));
  }
}
