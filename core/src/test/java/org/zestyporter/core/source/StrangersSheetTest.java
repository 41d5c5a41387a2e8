package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.apache.poi.hssf.usermodel.HSSFCell;
import org.apache.poi.hssf.usermodel.HSSFCellStyle;
import org.apache.poi.hssf.usermodel.HSSFFont;
import org.apache.poi.hssf.usermodel.HSSFRow;
import org.apache.poi.hssf.usermodel.HSSFSheet;
import org.apache.poi.hssf.usermodel.HSSFWorkbook;
import org.apache.poi.ss.util.CellRangeAddress;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.source.layout.Layout;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Reading;

/**
 * Sheets as people keep them: headings above, a group line over the titles, sections, subtotals,
 * pages, notes, a second table below.
 */
class StrangersSheetTest extends TestTables {
  /** A cell ends at a bar; {@code <<} behind it joins it with the one before. */
  private static final List<String> BOATS =
      List.of(
          "*Winterlager Ost|<<|<<|<<|<<|<<|<<",
          "Stand|12.03.2026||Bearbeiter|Meier",
          "",
          "*Boot|<<|<<|Eigner|<<|<<|Platz",
          "*Kennzeichen|Name|Länge|Name|E-Mail|Ort|Nr",
          "Steg A|<<|<<|<<|<<|<<|<<",
          "QH-1042|Möwe|18,80|Meier, Jan|jan@a.example|Kiel|4",
          "QH-1043|Biene|9,10|Öz, Ela|ela@b.example||5",
          "Zwischensumme||27,90",
          "Steg B|<<|<<|<<|<<|<<|<<",
          "QH-1051|Lotte|7,25|Kurz, Al||Laboe|11",
          "Seite 2 von 2",
          "Kennzeichen|Name|Länge|Name|E-Mail|Ort|Nr",
          "QH-1052|Anna|12,00|Lang, Bo|bo@c.example|Kiel|12",
          "QH-1053|Max|6,40|Lang, Bo|bo@c.example|Kiel|13",
          "Summe||53,55",
          "",
          "Ersatzteile",
          "*Teil|Farbe|Stück",
          "Fender|weiß|4",
          "Leine|blau|9");

  private static final List<String> RECORDS =
      List.of(
          "QH-1042|Möwe|18,80|Meier, Jan|jan@a.example|Kiel|4|Steg A",
          "QH-1043|Biene|9,10|Öz, Ela|ela@b.example||5|Steg A",
          "QH-1051|Lotte|7,25|Kurz, Al||Laboe|11|Steg B",
          "QH-1052|Anna|12,00|Lang, Bo|bo@c.example|Kiel|12|Steg B",
          "QH-1053|Max|6,40|Lang, Bo|bo@c.example|Kiel|13|Steg B");

  @FunctionalInterface
  private interface Format {
    byte[] of(List<String> lines);
  }

  static Stream<Format> workbooks() {
    return Stream.of(l -> xlsx(l, s -> {}), StrangersSheetTest::xls, StrangersSheetTest::ods);
  }

  static Stream<Format> formats() {
    return Stream.concat(workbooks(), Stream.of(StrangersSheetTest::csv));
  }

  @ParameterizedTest
  @MethodSource("formats")
  void onlyRecordsAreRead(Format format) throws IOException {
    SourceTable table = bytes(format.of(BOATS));
    assertThat(table.reading().titleRows()).containsExactly(4L, 5L);
    assertThat(table.columns())
        .containsExactly(
            "Boot Kennzeichen",
            "Boot Name",
            "Boot Länge",
            "Eigner Name",
            "Eigner E-Mail",
            "Eigner Ort",
            "Platz Nr",
            "Steg");
    assertThat(rows(table)).containsExactlyElementsOf(RECORDS);
    assertThat(because(table, "section"))
        .isEqualTo(
            "2 lines with one cell head those below them, the first is line 6, “Steg A”, “Steg B”");
    assertThat(table.evidence().stream().filter(e -> e.setting().equals("leftOut")))
        .extracting(Evidence::value)
        .containsExactlyInAnyOrder("repeated titles", "pages", "totals");
  }

  @ParameterizedTest
  @MethodSource("formats")
  void theOtherTableIsOfferedAndCanBeRead(Format format) throws IOException {
    SourceTable table = bytes(format.of(BOATS));
    assertThat(table.proposals().others())
        .containsExactly(new Layout.OtherTable(19, List.of("Teil", "Farbe", "Stück"), 2, null));
    assertThat(because(table, "lastRow")).startsWith("line 19 begins another table: “Teil”");
    SourceTable other = bytes(format.of(BOATS), Reading.FIND.withTitleRows(List.of(19L)));
    assertThat(other.columns()).startsWith("Teil", "Farbe", "Stück");
    assertThat(rows(other)).hasSize(2).allMatch(r -> r.matches("(Fender|Leine).*"));
    assertThat(other.proposals().others())
        .extracting(Layout.OtherTable::titles)
        .containsExactly(4L);
  }

  /** Where nothing repeats, only the workbook's merged cells tell that a line groups columns. */
  @ParameterizedTest
  @MethodSource("workbooks")
  void mergedCellsGroupTitlesThatDoNotRepeat(Format format) throws IOException {
    SourceTable table =
        bytes(
            format.of(
                List.of(
                    "Art|Maße|<<|Bemerkung",
                    "|Breite|Höhe",
                    "Kiste|20|30|leicht",
                    "Fass|60|90|voll")));
    assertThat(table.columns()).containsExactly("Art", "Maße Breite", "Maße Höhe", "Bemerkung");
    assertThat(rows(table)).containsExactly("Kiste|20|30|leicht", "Fass|60|90|voll");
    assertThat(because(table, "titles")).contains("merged over");
  }

  @Test
  void oneMergedWordOverAllIsAHeading() throws IOException {
    SourceTable table =
        bytes(
            xlsx(List.of("Lager|<<|<<", "Art|Breite|Höhe", "Kiste|20|30", "Fass|60|90"), s -> {}));
    assertThat(table.columns()).containsExactly("Art", "Breite", "Höhe");
  }

  @ParameterizedTest
  @CsvSource({"filter", "frozen", "table", "printed", "named"})
  void theWorkbookSaysWhichLineHasTheTitles(String mark) throws IOException {
    // words in all lines: nothing else tells the titles from what stands above them
    List<String> lines =
        List.of(
            "Verein|Abteilung|Jugend",
            "Name|Ort|Gruppe",
            "Anna Beck|Kiel|Rot",
            "Bo Lang|Laboe|Blau",
            "Cleo Öz|Kiel|Rot");
    Consumer<Worksheet> set =
        sheet -> {
          switch (mark) {
            case "filter" -> sheet.setAutoFilter(1, 0, 4, 2);
            case "frozen" -> sheet.freezePane(0, 2);
            case "table" -> sheet.range(1, 0, 4, 2).createTable();
            case "named" -> sheet.range(1, 0, 4, 2).setName("Members");
            default -> sheet.repeatRows(1);
          }
        };
    // a number below tells titles where several lines could be
    List<String> numbered = new ArrayList<>();
    for (int i = 0; i < lines.size(); i++) {
      numbered.add(lines.get(i) + (i == 0 ? "|Liste" : i == 1 ? "|Alter" : "|" + (30 + i)));
    }
    assertThat(bytes(xlsx(numbered, set)).reading().titleRows()).containsExactly(2L);
    assertThat(bytes(xlsx(numbered, s -> {})).reading().titleRows()).containsExactly(1L);
    // a filter or a table is enough by itself
    boolean isSaid = mark.equals("filter") || mark.equals("table");
    assertThat(bytes(xlsx(lines, set)).reading().titleRows()).containsExactly(isSaid ? 2L : 1L);
  }

  /** Two lines of words over numbers: only the workbook tells which one has the titles. */
  private static final List<String> TWO_LINES =
      List.of("Verein|Abteilung|Liste", "Name|Ort|Alter", "Anna|Kiel|30", "Bo|Ulm|41");

  @ParameterizedTest
  @CsvSource({"filter", "frozen", "printed", "bold", "named"})
  void theOlderWorkbookSaysSoToo(String mark) throws IOException {
    byte[] book =
        Sheets.xls(
            b -> {
              HSSFSheet sheet = xls(b, mark.equals("bold") ? bold(TWO_LINES) : TWO_LINES);
              switch (mark) {
                case "filter" -> sheet.setAutoFilter(new CellRangeAddress(1, 3, 0, 2));
                case "frozen" -> sheet.createFreezePane(0, 2);
                case "printed" -> sheet.setRepeatingRows(new CellRangeAddress(0, 1, -1, -1));
                case "named" -> {
                  b.createSheet("other");
                  var name = b.createName();
                  name.setNameName("Members");
                  name.setRefersToFormula(sheet.getSheetName() + "!$A$2:$C$4");
                  var elsewhere = b.createName();
                  elsewhere.setNameName("Elsewhere");
                  elsewhere.setRefersToFormula("other!$A$1:$C$4");
                }
                default -> {}
              }
            });
    assertThat(bytes(book).reading().titleRows()).containsExactly(2L);
    assertThat(bytes(xls(TWO_LINES)).reading().titleRows()).containsExactly(1L);
  }

  @ParameterizedTest
  @CsvSource({"filter", "frozen", "printed", "bold", "named"})
  void theOpenWorkbookSaysSoToo(String mark) throws IOException {
    String table = odsTable(mark.equals("bold") ? bold(TWO_LINES) : TWO_LINES);
    String settings = "";
    switch (mark) {
      case "filter" ->
          table +=
              "<table:database-ranges><table:database-range table:name=\"f\""
                  + " table:target-range-address=\"Liste.A2:Liste.C4\""
                  + " table:display-filter-buttons=\"true\"/></table:database-ranges>";
      case "named" ->
          table +=
              "<table:named-expressions><table:named-range table:name=\"elsewhere\""
                  + " table:cell-range-address=\"$Other.$A$1:.$C$4\"/>"
                  + "<table:named-range table:name=\"members\""
                  + " table:base-cell-address=\"$Liste.$A$1\""
                  + " table:cell-range-address=\"$Liste.$A$2:.$C$4\"/></table:named-expressions>";
      case "frozen" ->
          settings =
              "<config:config-item-map-entry config:name=\"Liste\"><config:config-item"
                  + " config:name=\"VerticalSplitMode\" config:type=\"short\">2"
                  + "</config:config-item><config:config-item"
                  + " config:name=\"VerticalSplitPosition\" config:type=\"int\">2"
                  + "</config:config-item></config:config-item-map-entry>";
      case "printed" -> {
        int second = table.indexOf("</table:table-row>", table.indexOf("</table:table-row>") + 1);
        int end = second + "</table:table-row>".length();
        int first = table.indexOf("<table:table-row>");
        table =
            table.substring(0, first)
                + "<table:table-header-rows>"
                + table.substring(first, end)
                + "</table:table-header-rows>"
                + table.substring(end);
      }
      default -> {}
    }
    assertThat(bytes(Sheets.odsWith(table, settings)).reading().titleRows()).containsExactly(2L);
    assertThat(bytes(ods(TWO_LINES)).reading().titleRows()).containsExactly(1L);
  }

  /** The second of the lines in bold. */
  private static List<String> bold(List<String> lines) {
    List<String> bold = new ArrayList<>(lines);
    bold.set(1, "*" + lines.get(1));
    return bold;
  }

  /** Headings of sheets that are read as one head no sections. */
  @Test
  void headingsOfSheetsAreNoSections() throws IOException {
    byte[] book =
        Sheets.xlsx(
            b -> {
              for (String month : List.of("May", "June", "July")) {
                Worksheet sheet = b.newWorksheet(month);
                sheet.value(0, 0, "Arrivals of " + month);
                for (int c = 0; c < 5; c++) {
                  sheet.value(1, c, "Title " + (char) ('A' + c));
                  sheet.value(2, c, 10 + c);
                  sheet.value(3, c, 20 + c);
                }
              }
            });
    SourceTable table = bytes(book, Reading.FIND.withSheets(List.of("May", "June", "July")));
    assertThat(table.rowCount()).isEqualTo(6);
    assertThat(table.columns()).doesNotContain("Section").endsWith("Sheet");
  }

  @Test
  void scatteredWordsAreNoTitles() throws IOException {
    SourceTable table =
        text(
            "Hafen;;Liste;;Ost\nvon;Meier;;;\n\nReg;Name;Kind;Crew;Feet\n"
                + "QH-1;Gull;sloop;2;28\nQH-2;Heron;yawl;4;31\nQH-3;Tern;ketch;3;40\n");
    assertThat(table.reading().titleRows()).containsExactly(4L);
    assertThat(table.rowCount()).isEqualTo(3);
  }

  @Test
  void sectionsAreRecordsIfAPersonSaysSo() throws IOException {
    SourceTable table = bytes(csv(BOATS), Reading.FIND.withSection(""));
    assertThat(table.columns()).doesNotContain("Steg");
    assertThat(rows(table)).hasSize(8).anyMatch(r -> r.startsWith("Steg A|"));
    SourceTable named = bytes(csv(BOATS), Reading.FIND.withSection("Pier"));
    assertThat(named.columns()).contains("Pier");
    assertThat(rows(named)).containsExactlyElementsOf(RECORDS);
  }

  /** In a list that is thinly filled, a line with one cell is a record. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '#',
      value = {
        "Name;Phone;Mail;Town;Note/Ann;;;;/Bea;11;;;/Cy;;;;/Dora;12;d@x.example;Kiel;old/"
            + "Eve;13;e@x.example;Kiel;new/Fay;14;f@x.example;Ulm;x",
        "Name;Phone;Town/Ann;;/Bea;11;Kiel/Cy;;/Dora;12;Ulm/Eve Kay;13;Kiel",
        "Code;Name;Kind;Feet;Crew/A-1;Gull;sloop;28;2/A-2;;;;/A-3;Tern;yawl;31;4"
      })
  void thinRecordsStayRecords(String content) throws IOException {
    String text = content.replace('/', '\n');
    SourceTable table = text(text);
    assertThat(table.rowCount()).isEqualTo(text.lines().count() - 1);
    assertThat(table.reading().section()).isEmpty();
  }

  /** The titles again after a gap, or words below numbers, begin no other table. */
  @Test
  void aGapAloneBeginsNoTable() throws IOException {
    SourceTable table =
        text(
            "Reg;Kind;Feet\nQH-1;sloop;28\n\nReg;Kind;Feet\nQH-2;yawl;31\n\nQH-3;ketch;tbc\nQH-4;x;9\n");
    assertThat(table.proposals().others()).isEmpty();
    assertThat(table.rowCount()).isEqualTo(4);
  }

  /**
   * A list of what words mean lies beside the table; a column that is but thinly filled does not.
   */
  @Test
  void whatLiesBesideTheTableIsNoneOfItsColumns() throws IOException {
    String text =
        "Reg;Kind;Feet;;Code;Meaning\nQH-1;S;28;;S;sloop\nQH-2;Y;31;;Y;yawl\nQH-3;S;40;;;\n"
            + "QH-4;Y;22;;;\nQH-5;S;25;;;\n";
    SourceTable table = text(text);
    assertThat(table.columns()).containsExactly("Reg", "Kind", "Feet");
    assertThat(table.reading().omit()).containsExactly("Code", "Meaning");
    assertThat(because(table, "omit"))
        .isEqualTo(
            "columns E to F lie beside the table, behind a column without cells, and have some in"
                + " 2 rows where the table has 5");
    SourceTable said = text(text, Reading.FIND.withOmit(List.of("Code")));
    assertThat(said.columns()).containsExactly("Reg", "Kind", "Feet", "Meaning");
    SourceTable thin = text("Reg;Kind;Note\nQH-1;S;\nQH-2;Y;old\nQH-3;S;\nQH-4;S;\n");
    assertThat(thin.columns()).containsExactly("Reg", "Kind", "Note");
  }

  /** What lies beside a table can be read instead, and the table again instead of that. */
  @Test
  void whatLiesBesideCanBeReadInstead() throws IOException {
    String text =
        "Reg;Kind;Feet;;Code;Meaning\nQH-1;S;28;;S;sloop\nQH-2;Y;31;;Y;yawl\nQH-3;S;40;;;\n"
            + "QH-4;Y;22;;;\nQH-5;S;25;;;\nQH-6;S;26;;;\n;;;;;\n;;;;K;ketch\n";
    SourceTable table = text(text);
    // a line that only has cells of the other table is no record
    assertThat(table.rowCount()).isEqualTo(6);
    List<Layout.OtherTable> others = table.proposals().others();
    assertThat(others)
        .containsExactly(
            new Layout.OtherTable(
                1, List.of("Code", "Meaning"), 3, List.of("Reg", "Kind", "Feet")));
    SourceTable other = text(text, Reading.FIND.withOmit(others.get(0).omit()));
    assertThat(other.columns()).containsExactly("Code", "Meaning");
    assertThat(rows(other)).containsExactly("S|sloop", "Y|yawl", "K|ketch");
    assertThat(other.proposals().others())
        .containsExactly(
            new Layout.OtherTable(
                1, List.of("Reg", "Kind", "Feet"), 6, List.of("Code", "Meaning")));
  }

  @Test
  void theLargestTableIsTaken() throws IOException {
    StringBuilder text = new StringBuilder("Rate;Valid\n4.50;2026\n5.10;2027\n\nReg;Kind;Feet\n");
    for (int i = 0; i < 30; i++) {
      text.append("QH-").append(i).append(";sloop;").append(20 + i).append('\n');
    }
    SourceTable table = text(text.toString());
    assertThat(table.columns()).containsExactly("Reg", "Kind", "Feet");
    assertThat(table.rowCount()).isEqualTo(30);
    assertThat(table.proposals().others())
        .containsExactly(new Layout.OtherTable(1, List.of("Rate", "Valid"), 3, null));
  }

  private static String because(SourceTable table, String setting) {
    return table.evidence().stream()
        .filter(e -> e.setting().equals(setting))
        .findFirst()
        .map(Evidence::because)
        .orElse("");
  }

  private static String[] cells(String line) {
    return line.replaceFirst("^\\*", "").split("\\|");
  }

  /** Number of cells that are joined with one. */
  private static int joined(String[] cells, int column) {
    int end = column + 1;
    while (end < cells.length && cells[end].equals("<<")) {
      end++;
    }
    return end - column;
  }

  private static byte[] csv(List<String> lines) {
    List<String> rows =
        lines.stream()
            .map(l -> String.join(";", cells(l)).replace("<<", ""))
            .map(l -> l.isEmpty() ? ";;" : l)
            .toList();
    return String.join("\n", rows).getBytes(java.nio.charset.StandardCharsets.UTF_8);
  }

  private static byte[] xlsx(List<String> lines, Consumer<Worksheet> more) {
    return Sheets.xlsx(
        book -> {
          Worksheet sheet = book.newWorksheet("Liste");
          for (int r = 0; r < lines.size(); r++) {
            String[] cells = cells(lines.get(r));
            for (int c = 0; c < cells.length; c++) {
              if (cells[c].isEmpty() || cells[c].equals("<<")) {
                continue;
              }
              sheet.value(r, c, cells[c]);
              if (lines.get(r).startsWith("*")) {
                sheet.style(r, c).bold().set();
              }
              if (joined(cells, c) > 1) {
                sheet.range(r, c, r, c + joined(cells, c) - 1).merge();
              }
            }
          }
          more.accept(sheet);
        });
  }

  private static byte[] xls(List<String> lines) {
    return Sheets.xls(book -> xls(book, lines));
  }

  private static HSSFSheet xls(HSSFWorkbook book, List<String> lines) {
    HSSFSheet sheet = book.createSheet("Liste");
    HSSFFont font = book.createFont();
    font.setBold(true);
    HSSFCellStyle bold = book.createCellStyle();
    bold.setFont(font);
    for (int r = 0; r < lines.size(); r++) {
      String[] cells = cells(lines.get(r));
      HSSFRow row = sheet.createRow(r);
      for (int c = 0; c < cells.length; c++) {
        if (cells[c].isEmpty() || cells[c].equals("<<")) {
          continue;
        }
        HSSFCell cell = row.createCell(c);
        cell.setCellValue(cells[c]);
        if (lines.get(r).startsWith("*")) {
          cell.setCellStyle(bold);
        }
        if (joined(cells, c) > 1) {
          sheet.addMergedRegion(new CellRangeAddress(r, r, c, c + joined(cells, c) - 1));
        }
      }
    }
    return sheet;
  }

  private static byte[] ods(List<String> lines) {
    return Sheets.ods(odsTable(lines));
  }

  private static String odsTable(List<String> lines) {
    StringBuilder table = new StringBuilder("<table:table table:name=\"Liste\">");
    for (String line : lines) {
      String[] cells = cells(line);
      table.append("<table:table-row>");
      for (int c = 0; c < cells.length; c++) {
        if (cells[c].equals("<<")) {
          table.append("<table:covered-table-cell/>");
        } else if (cells[c].isEmpty()) {
          table.append("<table:table-cell/>");
        } else {
          table
              .append("<table:table-cell")
              .append(line.startsWith("*") ? " table:style-name=\"strong\"" : "")
              .append(" table:number-columns-spanned=\"")
              .append(joined(cells, c))
              .append("\" office:value-type=\"string\"><text:p>")
              .append(cells[c])
              .append("</text:p></table:table-cell>");
        }
      }
      table.append("</table:table-row>");
    }
    return table.append("</table:table>").toString();
  }
}
