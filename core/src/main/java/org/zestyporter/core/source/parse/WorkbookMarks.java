package org.zestyporter.core.source.parse;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.zestyporter.core.source.reading.Letters;
import org.zestyporter.core.source.reading.SheetMarks;

/**
 * Finds in the parts of a workbook (ECMA-376 part 1, chapter 18) what it shows of a sheet beside
 * its cells: merged cells, filters, tables, named ranges, panes, bold lines.
 */
final class WorkbookMarks {
  private static final int MOST_BYTES = 1 << 20;

  /** Tables of a sheet that are looked at. */
  private static final int MOST_TABLES = 50;

  private static final String REF = "\\$?([A-Z]{1,3})\\$?(\\d{1,7}):\\$?([A-Z]{1,3})\\$?(\\d{1,7})";
  private static final Pattern MERGED = element("mergeCell", "ref=\"" + REF + "\"");
  private static final Pattern FILTER = element("autoFilter", "ref=\"" + REF + "\"");
  private static final Pattern TABLE = element("table", "ref=\"" + REF + "\"");
  private static final Pattern NO_HEAD = Pattern.compile("headerRowCount=\"0\"");
  private static final Pattern PANE = element("pane", "ySplit=\"(\\d{1,4})(?:\\.0*)?\"[^>]*");
  private static final Pattern NAME = Pattern.compile("<(?:\\w+:)?definedName\\b([^>]*)>([^<]*)<");
  private static final Pattern OF_SHEET = Pattern.compile("localSheetId=\"(\\d{1,5})\"");
  private static final Pattern SHEET = element("sheet", "name=\"([^\"]*)\"");
  private static final Pattern AREA = Pattern.compile("(?:'((?:[^']|'')+)'|([^'!,]+))!" + REF);
  private static final Pattern LAST_LINE = Pattern.compile("\\$(\\d{1,7})$");
  private static final Pattern ROW =
      Pattern.compile(
          "<(?:\\w+:)?row\\b[^>]*?\\br=\"(\\d{1,7})\"[^>]*>(.*?)</(?:\\w+:)?row>", Pattern.DOTALL);
  private static final Pattern FILLED =
      Pattern.compile("<(?:\\w+:)?c\\b([^>]*[^>/])>\\s*<(?:\\w+:)?(?:v|is|f)\\b");
  private static final Pattern STYLE = Pattern.compile("\\bs=\"(\\d{1,5})\"");
  private static final Pattern FONT =
      Pattern.compile("<(?:\\w+:)?font(?:/>|>(.*?)</(?:\\w+:)?font>)", Pattern.DOTALL);
  private static final Pattern BOLD = Pattern.compile("<(?:\\w+:)?b(?:/>| val=\"(?:1|true)\"/>)");
  private static final Pattern FORMAT = element("xf", "fontId=\"(\\d{1,5})\"");

  private WorkbookMarks() {}

  private static Pattern element(String name, String attribute) {
    return Pattern.compile("<(?:\\w+:)?" + name + "\\b[^>]*?\\b" + attribute);
  }

  /**
   * The marks of a sheet.
   *
   * @param part path of the sheet's part
   * @param ends the first and last bytes of that part
   * @param index the sheet's place in the workbook, from 0
   */
  static SheetMarks of(ZipFile zip, String part, WorkbookGuard.Ends ends, int index)
      throws IOException {
    SheetMarks.Builder marks = new SheetMarks.Builder();
    Matcher merged = MERGED.matcher(ends.tail());
    while (merged.find()) {
      marks.merged(
          Long.parseLong(merged.group(2)),
          Letters.index(merged.group(1)),
          Letters.index(merged.group(3)));
    }
    tables(zip, part, marks);
    Matcher filter = FILTER.matcher(ends.tail());
    if (filter.find()) {
      marks.head(Long.parseLong(filter.group(2)), SheetMarks.Why.FILTER);
    }
    String workbook = text(zip, "xl/workbook.xml");
    printed(workbook, index, marks);
    named(workbook, index, marks);
    Matcher pane = PANE.matcher(ends.head());
    if (pane.find() && pane.group().contains("frozen")) {
      marks.head(Long.parseLong(pane.group(1)), SheetMarks.Why.FROZEN);
    }
    bold(zip, ends.head(), marks);
    return marks.build();
  }

  /** The lines that are printed on every page: the last of them is nearest to the records. */
  private static void printed(String workbook, int index, SheetMarks.Builder marks) {
    Matcher name = NAME.matcher(workbook);
    while (name.find()) {
      Matcher sheet = OF_SHEET.matcher(name.group(1));
      Matcher line = LAST_LINE.matcher(name.group(2));
      if (name.group(1).contains("\"_xlnm.Print_Titles\"")
          && sheet.find()
          && Integer.parseInt(sheet.group(1)) == index
          && line.find()) {
        marks.head(Long.parseLong(line.group(1)), SheetMarks.Why.PRINTED);
      }
    }
  }

  /** The ranges of the sheet that have a name which a person gave. */
  private static void named(String workbook, int index, SheetMarks.Builder marks) {
    Matcher sheet = SHEET.matcher(workbook);
    for (int i = 0; i <= index; i++) {
      if (!sheet.find()) {
        return;
      }
    }
    String wanted = unescaped(sheet.group(1));
    Matcher name = NAME.matcher(workbook);
    while (name.find()) {
      Matcher area = AREA.matcher(unescaped(name.group(2)));
      if (name.group(1).contains("\"_xlnm.") || !area.matches()) {
        continue;
      }
      String on = area.group(1) == null ? area.group(2) : area.group(1).replace("''", "'");
      if (on.equalsIgnoreCase(wanted)) {
        marks.named(
            Long.parseLong(area.group(4)),
            Long.parseLong(area.group(6)),
            Letters.index(area.group(3)),
            Letters.index(area.group(5)));
      }
    }
  }

  private static String unescaped(String xml) {
    return xml.replace("&lt;", "<")
        .replace("&gt;", ">")
        .replace("&quot;", "\"")
        .replace("&apos;", "'")
        .replace("&amp;", "&");
  }

  /** The tables of a sheet, whose titles are in their first line. */
  private static void tables(ZipFile zip, String part, SheetMarks.Builder marks)
      throws IOException {
    int slash = part.lastIndexOf('/');
    String relations =
        text(zip, part.substring(0, slash) + "/_rels/" + part.substring(slash + 1) + ".rels");
    Matcher target = Pattern.compile("Target=\"([^\"]*tables/[^\"/]+)\"").matcher(relations);
    for (int i = 0; i < MOST_TABLES && target.find(); i++) {
      String path = target.group(1);
      String table =
          text(zip, path.startsWith("/") ? path.substring(1) : path.replaceFirst("^\\.\\.", "xl"));
      Matcher area = TABLE.matcher(table);
      if (area.find() && !NO_HEAD.matcher(table).find()) {
        marks.head(Long.parseLong(area.group(2)), SheetMarks.Why.TABLE);
      }
    }
  }

  private static void bold(ZipFile zip, String head, SheetMarks.Builder marks) throws IOException {
    Set<Integer> styles = boldStyles(text(zip, "xl/styles.xml"));
    if (styles.isEmpty()) {
      return;
    }
    Matcher row = ROW.matcher(head);
    while (row.find() && Long.parseLong(row.group(1)) <= SheetMarks.SEARCHED_LINES) {
      Matcher cell = FILLED.matcher(row.group(2));
      boolean any = false;
      boolean all = true;
      while (cell.find()) {
        Matcher style = STYLE.matcher(cell.group(1));
        any = true;
        all &= style.find() && styles.contains(Integer.parseInt(style.group(1)));
      }
      if (any) {
        marks.line(Long.parseLong(row.group(1)), all);
      }
    }
  }

  /** The cell formats whose font is bold. */
  private static Set<Integer> boldStyles(String styles) {
    Set<Integer> fonts = new HashSet<>();
    Matcher font = FONT.matcher(between(styles, "fonts"));
    for (int i = 0; font.find(); i++) {
      if (font.group(1) != null && BOLD.matcher(font.group(1)).find()) {
        fonts.add(i);
      }
    }
    Set<Integer> bold = new HashSet<>();
    Matcher format = FORMAT.matcher(between(styles, "cellXfs"));
    for (int i = 0; format.find(); i++) {
      if (fonts.contains(Integer.parseInt(format.group(1)))) {
        bold.add(i);
      }
    }
    return bold;
  }

  private static String between(String xml, String element) {
    Matcher m =
        Pattern.compile(
                "<(?:\\w+:)?" + element + "\\b[^>]*>(.*?)</(?:\\w+:)?" + element + ">",
                Pattern.DOTALL)
            .matcher(xml);
    return m.find() ? m.group(1) : "";
  }

  private static String text(ZipFile zip, String part) throws IOException {
    ZipEntry entry = zip.getEntry(part);
    if (entry == null) {
      return "";
    }
    try (InputStream in = zip.getInputStream(entry)) {
      return new String(in.readNBytes(MOST_BYTES), StandardCharsets.UTF_8);
    }
  }
}
