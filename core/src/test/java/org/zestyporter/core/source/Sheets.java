package org.zestyporter.core.source;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Consumer;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.poi.hssf.usermodel.HSSFWorkbook;
import org.dhatim.fastexcel.Workbook;

/** Makes workbooks and archives for tests. */
final class Sheets {
  private static final String MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
  private static final String OFFICE =
      "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
  private static final String PACKAGE = "http://schemas.openxmlformats.org/package/2006/";
  private static final String ODF = "urn:oasis:names:tc:opendocument:xmlns:";

  private Sheets() {}

  static byte[] xlsx(Consumer<Workbook> fill) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (Workbook book = new Workbook(out, "test", "1.0")) {
      fill.accept(book);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toByteArray();
  }

  static byte[] xls(Consumer<HSSFWorkbook> fill) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (HSSFWorkbook book = new HSSFWorkbook()) {
      fill.accept(book);
      book.write(out);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toByteArray();
  }

  /** A workbook of one sheet from the markup of its rows. */
  static byte[] bareXlsx(String rows, String workbookProperties, String styles) {
    Map<String, String> parts = new LinkedHashMap<>();
    String relation = "<Relationship Id=\"%s\" Type=\"" + OFFICE + "/%s\" Target=\"%s\"/>";
    String relations = "<Relationships xmlns=\"" + PACKAGE + "relationships\">%s</Relationships>";
    parts.put(
        "[Content_Types].xml",
        "<Types xmlns=\""
            + PACKAGE
            + "content-types\"><Default Extension=\"xml\" ContentType=\"application/xml\"/>"
            + "<Override PartName=\"/xl/styles.xml\" ContentType=\""
            + "application/vnd.openxmlformats-officedocument.spreadsheetml.styles+xml\"/></Types>");
    parts.put(
        "_rels/.rels",
        relations.formatted(relation.formatted("r1", "officeDocument", "xl/workbook.xml")));
    parts.put(
        "xl/_rels/workbook.xml.rels",
        relations.formatted(
            relation.formatted("r1", "worksheet", "worksheets/s.xml")
                + (styles.isEmpty() ? "" : relation.formatted("r2", "styles", "styles.xml"))));
    parts.put(
        "xl/workbook.xml",
        "<workbook xmlns=\""
            + MAIN
            + "\" xmlns:r=\""
            + OFFICE
            + "\">"
            + workbookProperties
            + "<sheets><sheet name=\"S\" sheetId=\"1\" r:id=\"r1\"/></sheets></workbook>");
    parts.put(
        "xl/worksheets/s.xml",
        "<worksheet xmlns=\"" + MAIN + "\"><sheetData>" + rows + "</sheetData></worksheet>");
    if (!styles.isEmpty()) {
      parts.put("xl/styles.xml", "<styleSheet xmlns=\"" + MAIN + "\">" + styles + "</styleSheet>");
    }
    Map<String, byte[]> files = new LinkedHashMap<>();
    parts.forEach(
        (name, xml) ->
            files.put(name, ("<?xml version=\"1.0\"?>" + xml).getBytes(StandardCharsets.UTF_8)));
    return zip(files);
  }

  /** An OpenDocument spreadsheet from the markup of its tables. */
  static byte[] ods(String tables) {
    return ods(tables, "");
  }

  static byte[] ods(String tables, String prologue) {
    return ods(tables, prologue, "");
  }

  /** The same with settings of the views of its sheets. */
  static byte[] odsWith(String tables, String settings) {
    return ods(tables, "", settings);
  }

  private static byte[] ods(String tables, String prologue, String settings) {
    Map<String, byte[]> files = new LinkedHashMap<>();
    files.put(
        "mimetype",
        "application/vnd.oasis.opendocument.spreadsheet".getBytes(StandardCharsets.US_ASCII));
    String content =
        "<?xml version=\"1.0\"?>"
            + prologue
            + "<office:document-content xmlns:office=\""
            + ODF
            + "office:1.0\" xmlns:table=\""
            + ODF
            + "table:1.0\" xmlns:text=\""
            + ODF
            + "text:1.0\" xmlns:style=\""
            + ODF
            + "style:1.0\" xmlns:fo=\""
            + ODF
            + "xsl-fo-compatible:1.0\"><office:automatic-styles><style:style style:name=\"strong\""
            + " style:family=\"table-cell\"><style:text-properties fo:font-weight=\"bold\"/>"
            + "</style:style><style:style style:name=\"gone\""
            + " style:family=\"table\"><style:table-properties table:display=\"false\"/></style:style>"
            + "</office:automatic-styles><office:body><office:spreadsheet>"
            + tables
            + "</office:spreadsheet></office:body></office:document-content>";
    files.put("content.xml", content.getBytes(StandardCharsets.UTF_8));
    if (!settings.isEmpty()) {
      files.put("settings.xml", settings.getBytes(StandardCharsets.UTF_8));
    }
    return zip(files);
  }

  /** A cell of text in an OpenDocument row. */
  static String odsText(String text) {
    return "<table:table-cell office:value-type=\"string\"><text:p>"
        + text
        + "</text:p></table:table-cell>";
  }

  static byte[] zip(Map<String, byte[]> files) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(out)) {
      for (Map.Entry<String, byte[]> file : files.entrySet()) {
        ZipEntry entry = new ZipEntry(file.getKey());
        entry.setTime(0);
        zip.putNextEntry(entry);
        zip.write(file.getValue());
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toByteArray();
  }

  static byte[] gzip(byte[] content) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (java.util.zip.GZIPOutputStream gzip = new java.util.zip.GZIPOutputStream(out)) {
      gzip.write(content);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toByteArray();
  }
}
