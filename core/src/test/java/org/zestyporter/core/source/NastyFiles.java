package org.zestyporter.core.source;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static java.nio.charset.StandardCharsets.UTF_16BE;
import static java.nio.charset.StandardCharsets.UTF_16LE;
import static java.nio.charset.StandardCharsets.UTF_8;

import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.dhatim.fastexcel.Worksheet;
import org.zestyporter.core.source.reading.Escape;
import org.zestyporter.core.source.reading.SourceFormat;

/** Files that are hard to read, each with what is to come of it. */
final class NastyFiles {

  /**
   * A file and its expected reading.
   *
   * @param refusal the code with which it is refused; null if it is read
   * @param reading what the reading is to be: words of its record that must be equal
   * @param columns names of the columns
   * @param cells the cells of all rows, parted by {@code |}; only the first rows need be given
   */
  record Nasty(
      String name,
      byte[] bytes,
      String refusal,
      Map<String, Object> reading,
      List<String> columns,
      long rows,
      List<String> cells) {
    @Override
    public String toString() {
      return name;
    }
  }

  private static final List<Nasty> ALL = new ArrayList<>();

  private NastyFiles() {}

  static List<Nasty> all() {
    synchronized (ALL) {
      if (ALL.isEmpty()) {
        text();
        encodings();
        layouts();
        workbooks();
        documents();
        archives();
        refused();
      }
      return ALL;
    }
  }

  private static void read(
      String name,
      byte[] bytes,
      Map<String, Object> reading,
      String columns,
      long rows,
      String... cells) {
    ALL.add(
        new Nasty(
            name, bytes, null, reading, List.of(columns.split("\\|", -1)), rows, List.of(cells)));
  }

  private static void refuse(String name, byte[] bytes, String code) {
    ALL.add(new Nasty(name, bytes, code, Map.of(), List.of(), 0, List.of()));
  }

  private static byte[] utf8(String text) {
    return text.getBytes(UTF_8);
  }

  private static void text() {
    read(
        "a long cell with quotes in quotes",
        utf8("Reg,Notes\nQH-1,\"" + "said \"\"ahoy\"\" ".repeat(40) + "\"\nQH-2,x\n"),
        Map.of("quote", "\""),
        "Reg|Notes",
        2,
        "QH-1|" + "said \"ahoy\" ".repeat(40),
        "QH-2|x");
    read(
        "quotes in quotes",
        utf8("name,note\n\"Wren\",\"says \"\"hi\"\", twice\"\n\"Two\nlines\",\"\"\"\"\n"),
        Map.of("delimiter", ",", "quote", "\"", "escape", Escape.DOUBLED),
        "name|note",
        2,
        "Wren|says \"hi\", twice",
        "Two\nlines|\"");
    read(
        "quotes behind backslashes",
        utf8("name,note\n\"Wren\",\"says \\\"hi\\\" twice\"\n\"Auk\",\"a \\\\ b\"\n"),
        Map.of("escape", Escape.BACKSLASH),
        "name|note",
        2,
        "Wren|says \"hi\" twice",
        "Auk|a \\ b");
    read(
        "single quotes",
        utf8("name;note\n'Wren';'a;b'\n'Auk';'c'\n'Tern';'it''s'\n"),
        Map.of("quote", "'", "delimiter", ";"),
        "name|note",
        3,
        "Wren|a;b",
        "Auk|c",
        "Tern|it's");
    read(
        "a quote that never closes",
        utf8("name,size\nWren,8\nAuk,\"9\nTern,7\n"),
        Map.of("quote", ""),
        "name|size",
        3,
        "Wren|8",
        "Auk|\"9");
    read(
        "text behind a closing quote",
        utf8("name,size\n\"Wren\" II,8\n\"Auk\",9\n"),
        Map.of("quote", "\""),
        "name|size",
        2,
        "Wren II|8");
    read(
        "spaces before a quote",
        utf8("name, note\n\"Wren\", \"a, b\"\n\"Auk\", \"c\"\n"),
        Map.of("delimiter", ","),
        "name|note",
        2,
        "Wren|a, b");
    read(
        "CR alone ends lines",
        utf8("a;b\r1;2\r3;4\r"),
        Map.of("delimiter", ";"),
        "a|b",
        2,
        "1|2",
        "3|4");
    read("line ends mixed", utf8("a;b\r\n1;2\n3;4\r5;6"), Map.of(), "a|b", 3, "1|2", "3|4", "5|6");
    read(
        "sep= line",
        utf8("sep=^\r\na^b\r\n1^2\r\n"),
        Map.of("delimiter", "^", "titleRows", List.of(2L)),
        "a|b",
        1,
        "1|2");
    read(
        "delimiter of two characters",
        utf8("a||b||c\n1||x|y||3\n4||5||6\n"),
        Map.of("delimiter", "||"),
        "a|b|c",
        2,
        "1|x|y|3");
    read(
        "unit separator as delimiter",
        utf8("a\u001Fb\u001Fc\n1\u001F2\u001F3\n4\u001F5\u001F6\n"),
        Map.of("delimiter", "\u001F"),
        "a|b|c",
        2,
        "1|2|3");
    read(
        "comments",
        utf8("# made by the office\n# in November\nname,size\nWren,8\n# half way\nAuk,9\n"),
        Map.of("comment", "#", "titleRows", List.of(3L)),
        "name|size",
        2,
        "Wren|8",
        "Auk|9");
    read(
        "ragged rows",
        utf8("a,b,c\n1,2,3\n1\n1,2,3,4\n1,2,3\n"),
        Map.of(),
        "a|b|c|Column D",
        4,
        "1|2|3|",
        "1|||",
        "1|2|3|4");
    read(
        "decimal commas among delimiters",
        utf8("name;size\nWren;8,5\nHeron;9,25\nTern;7,75\n"),
        Map.of("delimiter", ";"),
        "name|size",
        3,
        "Wren|8,5");
    read(
        "fixed width",
        utf8(
            "Reg     Boat            Tonnes\n"
                + "QH-0100 Silver Wren       5.0\n"
                + "QH-0101 Grey Heron       12.5\n"
                + "QH-0102 Auk               7.2\n"),
        Map.of("format", SourceFormat.FIXED, "borders", List.of(8, 24)),
        "Reg|Boat|Tonnes",
        3,
        "QH-0100|Silver Wren|5.0",
        "QH-0101|Grey Heron|12.5");
    read("one column", utf8("name\nWren\nAuk\nTern\n"), Map.of(), "name", 3, "Wren", "Auk");
    read(
        "other alphabets",
        utf8("код;имя\n1;Мечта\n2;海豚号\n3;الأمل\n4;Zażółć 🚤\n"),
        Map.of("encoding", "UTF-8"),
        "код|имя",
        4,
        "1|Мечта",
        "2|海豚号",
        "3|الأمل",
        "4|Zażółć 🚤");
    read(
        "ten thousand columns",
        utf8(
            String.join(",", java.util.Collections.nCopies(9_999, "t"))
                + ",last\n"
                + "1,".repeat(9_999)
                + "2\n"),
        Map.of("titleRows", List.of()),
        "Column A",
        2);
  }

  private static void encodings() {
    String western = "name;town\nMüller;Årslev\nLefèvre;Besançon\nŠimić;Österå\n";
    read(
        "UTF-8 with a mark",
        utf8("\uFEFF" + western),
        Map.of("encoding", "UTF-8"),
        "name|town",
        3,
        "Müller|Årslev");
    read(
        "UTF-16 with a mark",
        ("\uFEFF" + western).getBytes(UTF_16LE),
        Map.of("encoding", "UTF-16LE"),
        "name|town",
        3,
        "Müller|Årslev");
    read(
        "UTF-16 without a mark",
        western.getBytes(UTF_16BE),
        Map.of("encoding", "UTF-16BE"),
        "name|town",
        3,
        "Müller|Årslev");
    read(
        "UTF-32 with a mark",
        ("\uFEFF" + western).getBytes(Charset.forName("UTF-32LE")),
        Map.of("encoding", "UTF-32LE"),
        "name|town",
        3,
        "Müller|Årslev");
    read(
        "Windows-1252",
        western.replace("Šimić", "Šimun").getBytes(Charset.forName("windows-1252")),
        Map.of("encoding", "windows-1252"),
        "name|town",
        3,
        "Müller|Årslev",
        "Lefèvre|Besançon",
        "Šimun|Österå");
    read(
        "Windows-1250",
        "jméno;město\nŠtěpán;Třeboň\nŻaneta;Łódź\nRůžena;Plzeň\n"
            .getBytes(Charset.forName("windows-1250")),
        Map.of("encoding", "windows-1250"),
        "jméno|město",
        3,
        "Štěpán|Třeboň");
    read(
        "MacRoman",
        "name;town\nMüller;Århus\nLefèvre;Besançon\nGarçon;Östersund\n"
            .getBytes(Charset.forName("x-MacRoman")),
        Map.of("encoding", "x-MacRoman"),
        "name|town",
        3,
        "Müller|Århus");
    read(
        "DOS code page 850",
        "name;town\nMüller;Århus\nLefèvre;Besançon\nGarçon;Östersund\n"
            .getBytes(Charset.forName("IBM850")),
        Map.of("encoding", "IBM850"),
        "name|town",
        3,
        "Müller|Århus");
    read(
        "Windows-1251",
        "имя;порт\nЧайка;Тихая гавань\nВолна;Северная\n".getBytes(Charset.forName("windows-1251")),
        Map.of("encoding", "windows-1251"),
        "имя|порт",
        2,
        "Чайка|Тихая гавань");
    read(
        "KOI8-R",
        "имя;порт\nЧайка;Тихая гавань\nВолна;Северная\n".getBytes(Charset.forName("KOI8-R")),
        Map.of("encoding", "KOI8-R"),
        "имя|порт",
        2,
        "Чайка|Тихая гавань");
    read(
        "Shift_JIS",
        "船名,港\nかもめ丸,静かな港\nつばめ号,北の港\nひばり丸,南の桟橋\n".getBytes(Charset.forName("Shift_JIS")),
        Map.of("encoding", "Shift_JIS"),
        "船名|港",
        3,
        "かもめ丸|静かな港");
    byte[] broken = utf8("name;town\n" + "Müller;Århus\n".repeat(120) + "Lef?vre;Lyon\n");
    broken[broken.length - "vre;Lyon\n".length() - 1] = (byte) 0xE8;
    read(
        "one broken byte in UTF-8",
        broken,
        Map.of("encoding", "UTF-8"),
        "name|town",
        121,
        "Müller|Århus");
  }

  private static void layouts() {
    read(
        "heading block, total, gap",
        utf8(
            "Quillhaven Marina;;\nPrinted;20.11.2026;\n;;\nReg;Name;Feet\nQH-1;Wren;8\nQH-2;Tern;9\n"
                + ";;\nQH-3;Auk;7\nTotal;;24\n"),
        Map.of("titleRows", List.of(4L), "firstRow", 5L, "lastRow", 8L),
        "Reg|Name|Feet",
        3,
        "QH-1|Wren|8");
    read(
        "titles again on every page",
        utf8("Reg;Name\nQH-1;Wren\nQH-2;Tern\nReg;Name\nQH-3;Auk\n"),
        Map.of("titleRows", List.of(1L)),
        "Reg|Name",
        3,
        "QH-1|Wren",
        "QH-2|Tern",
        "QH-3|Auk");
    read(
        "units below the titles",
        utf8("Boat;Length;Weight\n;m;kg\nWren;8.5;2100\nAuk;7.2;1800\n"),
        Map.of("titleRows", List.of(1L), "unitsRow", 2L, "firstRow", 3L),
        "Boat|Length|Weight",
        2,
        "Wren|8.5|2100");
    read(
        "types below the titles",
        utf8("reg;name;size\nvarchar(10);text;decimal(6,2)\nQH-1;Wren;8.5\nQH-2;Auk;7.2\n"),
        Map.of("unitsRow", 2L),
        "reg|name|size",
        2,
        "QH-1|Wren|8.5");
    read(
        "titles of two lines",
        utf8(";2025;;2026;\nBerth;low;high;low;high\nA-01;10;20;11;21\nA-02;12;22;13;23\n"),
        Map.of("titleRows", List.of(1L, 2L)),
        "Berth|2025 low|2025 high|2026 low|2026 high",
        2,
        "A-01|10|20|11|21");
    read(
        "years as titles",
        utf8("Berth;2024;2025;2026\nA-01;10;11;12\nA-02;20;21;22\n"),
        Map.of("titleRows", List.of(1L)),
        "Berth|2024|2025|2026",
        2,
        "A-01|10|11|12");
    read(
        "no titles",
        utf8("QH-1;8,5;3.11.2026\nQH-2;9;4.11.2026\n"),
        Map.of("titleRows", List.of()),
        "Column A|Column B|Column C",
        2,
        "QH-1|8,5|3.11.2026");
    read(
        "no titles, texts only",
        utf8("QH-1;Wren;sloop\nQH-2;Auk;yawl\nQH-3;Tern;ketch\n"),
        Map.of("titleRows", List.of()),
        "Column A|Column B|Column C",
        3,
        "QH-1|Wren|sloop");
    read(
        "signs as titles",
        utf8("Name;%;#\nWren;12;1\nAuk;13;2\n"),
        Map.of("titleRows", List.of(1L)),
        "Name|%|#",
        2,
        "Wren|12|1");
    read(
        "empty and repeated titles",
        utf8("Name,Name,,\"Say \"\"hi\"\"\",  name \na,b,c,d,e\n"),
        Map.of("titleRows", List.of(1L)),
        "Name|Name (B)|Column C|Say \"hi\"|name (E)",
        1,
        "a|b|c|d|e");
    read(
        "a note below the table",
        utf8(
            "Reg;Name;Kind;Feet\nQH-1;Wren;sloop;8\nQH-2;Tern;yawl;9\n\nPrinted by the office;;;\n"),
        Map.of("lastRow", 3L),
        "Reg|Name|Kind|Feet",
        2,
        "QH-1|Wren|sloop|8");
    read(
        "words that mean blank",
        utf8("Reg;Feet;Berth\nQH-1;8;-\nQH-2;NA;n/a\nQH-3;9;A-01\nQH-4;7;A-02\n"),
        Map.of("blankWords", List.of("NA", "-", "n/a")),
        "Reg|Feet|Berth",
        4,
        "QH-1|8|",
        "QH-2||",
        "QH-3|9|A-01");
    read(
        "a boat called Total Eclipse",
        utf8("Reg;Name;Feet\nQH-1;Wren;8\nQH-2;Total Eclipse;\nQH-3;Auk;7\n"),
        Map.of(),
        "Reg|Name|Feet",
        3,
        "QH-1|Wren|8",
        "QH-2|Total Eclipse|");
  }

  private static void workbooks() {
    read(
        "workbook, titles far down",
        Sheets.xlsx(
            book -> {
              Worksheet sheet = book.newWorksheet("Lift");
              sheet.value(0, 2, "Quillhaven Marina");
              sheet.range(0, 2, 0, 4).merge();
              sheet.value(9, 1, "Reg");
              sheet.value(9, 2, "Name");
              sheet.value(10, 1, "QH-1");
              sheet.value(10, 2, "Wren");
              sheet.value(11, 1, "QH-2");
              sheet.value(11, 2, "Auk");
            }),
        Map.of("format", SourceFormat.XLSX, "titleRows", List.of(10L), "firstRow", 11L),
        "Reg|Name",
        2,
        "QH-1|Wren");
    read(
        "old workbook",
        Sheets.xls(
            book -> {
              var sheet = book.createSheet("Boats");
              var titles = sheet.createRow(0);
              titles.createCell(0).setCellValue("Reg");
              titles.createCell(1).setCellValue("Feet");
              titles.createCell(2).setCellValue("Twice");
              var row = sheet.createRow(1);
              row.createCell(0).setCellValue("QH-1");
              row.createCell(1).setCellValue(8.5);
              row.createCell(2).setCellFormula("B2*2");
              book.getCreationHelper().createFormulaEvaluator().evaluateAll();
            }),
        Map.of("format", SourceFormat.XLS, "sheet", "Boats"),
        "Reg|Feet|Twice",
        1,
        "QH-1|8.5|17");
    String text = "<c r=\"%s\" t=\"inlineStr\"><is><t>%s</t></is></c>";
    read(
        "formulas with and without a result",
        Sheets.bareXlsx(
            "<row r=\"1\">"
                + text.formatted("A1", "name")
                + text.formatted("B1", "sum")
                + "</row><row r=\"2\">"
                + text.formatted("A2", "a")
                + "<c r=\"B2\"><f>1+1</f><v>2</v></c></row><row r=\"3\">"
                + text.formatted("A3", "b")
                + "<c r=\"B3\"><f>2+2</f></c></row><row r=\"4\">"
                + text.formatted("A4", "c")
                + "<c r=\"B4\" t=\"e\"><v>#DIV/0!</v></c></row>",
            "",
            ""),
        Map.of("sheet", "S"),
        "name|sum",
        3,
        "a|2",
        "b|=2+2",
        "c|#DIV/0!");
    read(
        "a cell in the last column of the last line",
        Sheets.bareXlsx(
            "<row r=\"1\">"
                + text.formatted("A1", "name")
                + text.formatted("B1", "size")
                + "</row><row r=\"2\">"
                + text.formatted("A2", "a")
                + "<c r=\"B2\"><v>2</v></c></row><row r=\"1048576\">"
                + text.formatted("XFD1048576", "far")
                + "</row>",
            "",
            ""),
        Map.of("titleRows", List.of(1L), "lastRow", 1_048_576L),
        "name",
        2);
  }

  private static void documents() {
    String table = "<table:table table:name=\"%s\"%s>%s</table:table>";
    String row = "<table:table-row>%s</table:table-row>";
    read(
        "open document, repeated cells and hidden sheet",
        Sheets.ods(
            table.formatted("Hidden", " table:style-name=\"gone\"", row.formatted("x"))
                + table.formatted(
                    "Berths",
                    "",
                    row.formatted(
                            Sheets.odsText("Berth") + Sheets.odsText("low") + Sheets.odsText("up"))
                        + row.formatted(
                            Sheets.odsText("A-01")
                                + "<table:table-cell table:number-columns-repeated=\"2\""
                                + " office:value-type=\"float\" office:value=\"7.5\"><text:p>7,50</text:p></table:table-cell>"
                                + "<table:table-cell table:number-columns-repeated=\"16381\"/>")
                        + "<table:table-row table:number-rows-repeated=\"1048570\"><table:table-cell"
                        + " table:number-columns-repeated=\"16384\"/></table:table-row>")),
        Map.of("format", SourceFormat.ODS, "sheet", "Berths", "lastRow", 2L),
        "Berth|low|up",
        1,
        "A-01|7.5|7.5");
    read(
        "JSON array with nested attributes",
        utf8(
            "[{\"reg\":\"QH-1\",\"size\":{\"m\":8.50,\"dry\":null}},{\"reg\":\"QH-2\",\"tags\":[1,2]}]"),
        Map.of("format", SourceFormat.JSON, "sheet", "."),
        "reg|size.m|size.dry|tags",
        2,
        "QH-1|8.5||",
        "QH-2|||[1,2]");
    read(
        "JSON, one object a line",
        utf8("{\"reg\":\"QH-1\",\"n\":1}\n{\"reg\":\"QH-2\",\"ok\":true}\n\n{\"n\":3}\n"),
        Map.of("format", SourceFormat.JSON),
        "reg|n|ok",
        3,
        "QH-1|1|",
        "QH-2||true",
        "|3|");
    read(
        "JSON array inside of an object",
        utf8("{\"made\":\"x\",\"tags\":[1],\"boats\":[{\"reg\":\"QH-1\"},{\"reg\":\"QH-2\"}]}"),
        Map.of("sheet", "boats"),
        "reg",
        2,
        "QH-1",
        "QH-2");
    read(
        "JSON array of arrays",
        utf8("[[\"Reg\",\"Feet\"],[\"QH-1\",8],[\"QH-2\",9.5]]"),
        Map.of("format", SourceFormat.JSON),
        "Column A|Column B",
        3,
        "Reg|Feet",
        "QH-1|8");
    read(
        "JSON number without end",
        utf8("[{\"n\":1e400000},{\"n\":12345678901234567890}]"),
        Map.of(),
        "n",
        2,
        "1E+400000",
        "12345678901234567890");
  }

  private static void archives() {
    byte[] csv = utf8("a;b\n1;2\n");
    read("gzip", Sheets.gzip(csv), Map.of("delimiter", ";"), "a|b", 1, "1|2");
    Map<String, byte[]> files = new java.util.LinkedHashMap<>();
    files.put("readme.txt", utf8("nothing"));
    files.put("__MACOSX/._a.csv", utf8("x"));
    files.put("winter/b.csv", csv);
    files.put("winter/c.csv", utf8("c;d\n3;4\n"));
    read("zip of tables", Sheets.zip(files), Map.of("entry", "winter/b.csv"), "a|b", 1, "1|2");
    read(
        "workbook in a zip",
        Sheets.zip(
            Map.of(
                "boats.xlsx",
                Sheets.xlsx(
                    book -> {
                      Worksheet sheet = book.newWorksheet("S");
                      sheet.value(0, 0, "Reg");
                      sheet.value(0, 1, "Name");
                      sheet.value(1, 0, "QH-1");
                      sheet.value(1, 1, "Wren");
                    }))),
        Map.of("entry", "boats.xlsx", "format", SourceFormat.XLSX),
        "Reg|Name",
        1,
        "QH-1|Wren");
  }

  private static void refused() {
    refuse("empty", new byte[0], "empty-file");
    refuse("blank lines", utf8("  \n \n"), "empty-file");
    refuse(
        "a picture named .xlsx", "\u0089PNG\r\n\u001A\n\u0000".getBytes(ISO_8859_1), "not-a-table");
    refuse("a PDF", "%PDF-1.7\n\u0000\u0001\u0002".getBytes(ISO_8859_1), "not-a-table");
    refuse("HTML named .xls", utf8("<html><body><table><tr><td>1</td></tr></table>"), "markup");
    refuse("cut workbook", "PK\u0003\u0004cut".getBytes(ISO_8859_1), "unreadable-workbook");
    refuse(
        "damaged old workbook",
        "\u00D0\u00CF\u0011\u00E0\u00A1\u00B1\u001A\u00E1 damaged".getBytes(ISO_8859_1),
        "unreadable-workbook");
    refuse("archive without a table", Sheets.zip(Map.of("readme.txt", utf8("x"))), "not-a-table");
    refuse(
        "cut gzip",
        java.util.Arrays.copyOf(Sheets.gzip(utf8("a;b\n1;2\n")), 18),
        "unreadable-archive");
    refuse("deep JSON", utf8("[".repeat(100_000)), "unreadable-json");
    refuse("cut JSON", utf8("[{\"a\":1},{\"a\":2"), "unreadable-json");
    refuse("JSON without a value", utf8("[]"), "not-a-table");
    refuse(
        "a cell of 12 million characters",
        utf8("a,b\n" + "x".repeat(12_000_000) + ",2\n"),
        "too-long-cell");
    refuse(
        "document with entities",
        Sheets.ods(
            "<table:table table:name=\"S\"><table:table-row>"
                + Sheets.odsText("&bomb;")
                + "</table:table-row></table:table>",
            "<!DOCTYPE x [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY bomb \"&a;&a;&a;&a;\">]>"),
        "unreadable-workbook");
    refuse(
        "document with a cell repeated for ever",
        Sheets.ods(
            "<table:table table:name=\"S\"><table:table-row table:number-rows-repeated=\"99999999\">"
                + Sheets.odsText("x")
                + "</table:table-row></table:table>"),
        "too-much");
  }
}
