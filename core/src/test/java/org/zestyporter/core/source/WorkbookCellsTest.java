package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.List;
import org.apache.poi.hssf.usermodel.HSSFCellStyle;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.reading.SheetInfo;
import org.zestyporter.core.value.Cell;

/** What number formats make of the numbers in workbooks of all kinds. */
class WorkbookCellsTest extends TestTables {

  private static String styles(String format) {
    return "<numFmts count=\"1\"><numFmt numFmtId=\"170\" formatCode=\""
        + format.replace("\"", "&quot;")
        + "\"/></numFmts><fonts count=\"1\"><font/></fonts><fills count=\"1\"><fill/></fills>"
        + "<borders count=\"1\"><border/></borders><cellStyleXfs count=\"1\"><xf numFmtId=\"0\"/>"
        + "</cellStyleXfs><cellXfs count=\"2\"><xf numFmtId=\"0\"/><xf numFmtId=\"170\""
        + " applyNumberFormat=\"1\"/></cellXfs>";
  }

  private SourceTable sheet(String number, String format, String properties) throws IOException {
    String text = "<c r=\"%s\" t=\"inlineStr\"><is><t>%s</t></is></c>";
    return bytes(
        Sheets.bareXlsx(
            "<row r=\"1\">"
                + text.formatted("A1", "name")
                + text.formatted("B1", "value")
                + "</row><row r=\"2\">"
                + text.formatted("A2", "a")
                + "<c r=\"B2\" s=\"1\"><v>"
                + number
                + "</v></c></row>",
            properties,
            styles(format)));
  }

  private static Cell value(SourceTable table) {
    return table.batch(table.batchOf(0)).columns()[1].cell(0);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "46345|dd.mm.yyyy|DATE|2026-11-19",
        "46345.3125|yyyy-mm-dd hh:mm|DATETIME|2026-11-19T07:30:00",
        "0.3125|h:mm|TIME|07:30",
        "59|d/m/yy|DATE|1900-02-28",
        "61|d/m/yy|DATE|1900-03-01",
        "1.5|[h]:mm|TEXT|36:00",
        "0.25|[h]:mm:ss|TEXT|6:00",
        "0.255|0.0%|NUMBER|0.255",
        "1204.5|#,##0.00\" kr\"|NUMBER|1204.5",
        "42|00000|TEXT|00042",
        "420000|00000|TEXT|420000",
        "42.5|00000|NUMBER|42.5",
        "0.30000000000000004|General|NUMBER|0.3",
        "12345678901234567|0|NUMBER|12345678901234567",
        "-3|dd.mm.yyyy|NUMBER|-3",
        "7|\"day \"0|NUMBER|7",
        "7|[Red]0;[Blue]-0|NUMBER|7",
        "46345|mmm yy|DATE|2026-11-19"
      })
  void formatsDecideWhatANumberIs(String number, String format, Cell.Kind kind, String text)
      throws IOException {
    assertThat(value(sheet(number, format, ""))).isEqualTo(new Cell(kind, text));
  }

  @Test
  void daysMayBeCountedFrom1904() throws IOException {
    String properties = "<workbookPr date1904=\"1\"/>";
    assertThat(value(sheet("44883", "dd.mm.yyyy", properties)))
        .isEqualTo(new Cell(Cell.Kind.DATE, "2026-11-19"));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "0.255|0.0%|percent|25.5 % is 0.255",
        "9|[$€-2] 0.00|money|the currency is not",
        "1.5|[h]:mm|duration|36:00",
        "42|00000|zero-padded|00042",
        "1234567890123456|0|too-many-digits|may be wrong"
      })
  void whatASheetShowsOtherwiseIsTold(String number, String format, String code, String words)
      throws IOException {
    assertThat(sheet(number, format, "").warnings())
        .anyMatch(w -> w.code().word().equals(code) && w.message().contains(words) && w.row() == 2);
  }

  @Test
  void oldWorkbooksHaveTheSameCells() throws IOException {
    SourceTable table =
        bytes(
            Sheets.xls(
                book -> {
                  HSSFCellStyle day = book.createCellStyle();
                  day.setDataFormat(book.createDataFormat().getFormat("dd.mm.yyyy"));
                  HSSFCellStyle code = book.createCellStyle();
                  code.setDataFormat(book.createDataFormat().getFormat("00000"));
                  book.createSheet("Notes").createRow(0).createCell(0).setCellValue("x");
                  var sheet = book.createSheet("Boats");
                  String[] titles = {"day", "code", "flag", "text", "sum", "wrong"};
                  var first = sheet.createRow(1);
                  for (int c = 0; c < titles.length; c++) {
                    first.createCell(c).setCellValue(titles[c]);
                  }
                  var row = sheet.createRow(2);
                  row.createCell(0).setCellValue(46345);
                  row.getCell(0).setCellStyle(day);
                  row.createCell(1).setCellValue(42);
                  row.getCell(1).setCellStyle(code);
                  row.createCell(2).setCellValue(true);
                  row.createCell(3).setCellValue("ä");
                  row.createCell(4).setCellFormula("D3&\"!\"");
                  row.createCell(5).setCellFormula("1/0");
                  book.getCreationHelper().createFormulaEvaluator().evaluateAll();
                  book.setSheetHidden(0, true);
                }));
    assertThat(table.sheets())
        .extracting(SheetInfo::name, SheetInfo::hidden)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple("Notes", true),
            org.assertj.core.groups.Tuple.tuple("Boats", false));
    assertThat(table.reading().sheet()).isEqualTo("Boats");
    assertThat(rows(table)).containsExactly("2026-11-19|00042|true|ä|ä!|#DIV/0!");
    assertThat(lines(table)).containsExactly(3L);
    Batch batch = table.batch(0);
    assertThat(List.of(batch.columns()[0].cell(0).kind(), batch.columns()[5].cell(0).kind()))
        .containsExactly(Cell.Kind.DATE, Cell.Kind.ERROR);
  }

  @Test
  void openDocumentsHaveTheSameCells() throws IOException {
    String cell = "<table:table-cell %s><text:p>%s</text:p></table:table-cell>";
    String row = "<table:table-row>%s</table:table-row>";
    String titles =
        Sheets.odsText("day")
            + Sheets.odsText("moment")
            + Sheets.odsText("long")
            + Sheets.odsText("share")
            + Sheets.odsText("code")
            + Sheets.odsText("flag")
            + Sheets.odsText("wrong")
            + Sheets.odsText("text");
    String values =
        cell.formatted("office:value-type=\"date\" office:date-value=\"2026-11-19\"", "19.11.26")
            + cell.formatted(
                "office:value-type=\"date\" office:date-value=\"2026-11-19T07:30:00\"", "x")
            + cell.formatted(
                "office:value-type=\"time\" office:time-value=\"PT36H00M00S\"", "36:00")
            + cell.formatted("office:value-type=\"percentage\" office:value=\"0.255\"", "25,5 %")
            + cell.formatted("office:value-type=\"float\" office:value=\"42\"", "00042")
            + cell.formatted("office:value-type=\"boolean\" office:boolean-value=\"true\"", "yes")
            + cell.formatted("table:formula=\"of:=1/0\" office:value-type=\"string\"", "#DIV/0!")
            + "<table:table-cell office:value-type=\"string\"><office:annotation><text:p>note</text:p>"
            + "</office:annotation><text:p>two<text:s text:c=\"2\"/>words</text:p><text:p><text:span>on"
            + "</text:span> lines</text:p></table:table-cell>";
    SourceTable table =
        bytes(
            Sheets.ods(
                "<table:table table:name=\"S\">"
                    + row.formatted(titles)
                    + row.formatted(values)
                    + "</table:table>"));
    assertThat(rows(table))
        .containsExactly(
            "2026-11-19|2026-11-19T07:30:00|36:00|0.255|00042|true|#DIV/0!|two  words\non lines");
    assertThat(table.batch(0).columns()[6].cell(0).kind()).isEqualTo(Cell.Kind.ERROR);
  }
}
