package org.zestyporter.core.source;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Supplier;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.PorterException;

/** Files that are made to do harm end in one sentence, in bounded time and memory (512 MB). */
class HostileFilesTest {
  private static final int SECONDS = 20;

  @TempDir Path folder;

  /**
   * A file that should do harm.
   *
   * @param code what it is refused as; null if it is read
   * @param rows how many records it has if it is read
   */
  private record Hostile(String name, Supplier<byte[]> bytes, String code, long rows) {
    @Override
    public String toString() {
      return name;
    }
  }

  private static Hostile refused(String name, String code, Supplier<byte[]> bytes) {
    return new Hostile(name, bytes, code, 0);
  }

  private static Hostile read(String name, long rows, Supplier<byte[]> bytes) {
    return new Hostile(name, bytes, null, rows);
  }

  private static byte[] utf8(String text) {
    return text.getBytes(UTF_8);
  }

  private static byte[] repeated(String before, String part, int times, String after) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    byte[] bytes = utf8(part);
    out.writeBytes(utf8(before));
    for (int i = 0; i < times; i++) {
      out.write(bytes, 0, bytes.length);
    }
    out.writeBytes(utf8(after));
    return out.toByteArray();
  }

  private static String odsRows(String cells, long times) {
    return "<table:table-row table:number-rows-repeated=\""
        + times
        + "\">"
        + cells
        + "</table:table-row>";
  }

  private static String odsTable(String rows) {
    return "<table:table table:name=\"S\"><table:table-row>"
        + Sheets.odsText("Reg")
        + Sheets.odsText("Name")
        + "</table:table-row>"
        + rows
        + "</table:table>";
  }

  private static String filled(int times) {
    return "<table:table-cell office:value-type=\"string\" table:number-columns-repeated=\""
        + times
        + "\"><text:p>x</text:p></table:table-cell>";
  }

  private static String xlsxRow(int line, String... cells) {
    return "<row r=\"" + line + "\">" + String.join("", cells) + "</row>";
  }

  private static String inline(String at, String text) {
    return "<c r=\"" + at + "\" t=\"inlineStr\"><is><t>" + text + "</t></is></c>";
  }

  private static String xlsxHead() {
    return xlsxRow(1, inline("A1", "Reg"), inline("B1", "Feet"));
  }

  private static String number(String at, String value) {
    return "<c r=\"" + at + "\"><v>" + value + "</v></c>";
  }

  /** A workbook whose shared texts go on and on. */
  private static byte[] manyTexts(int texts) {
    Map<String, byte[]> none = new LinkedHashMap<>();
    byte[] plain =
        Sheets.bareXlsx(xlsxRow(1, "<c r=\"A1\" t=\"s\"><v>" + (texts - 1) + "</v></c>"), "", "");
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (java.util.zip.ZipInputStream in =
            new java.util.zip.ZipInputStream(new java.io.ByteArrayInputStream(plain));
        ZipOutputStream zip = new ZipOutputStream(out)) {
      for (ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry()) {
        none.put(e.getName(), in.readAllBytes());
      }
      for (Map.Entry<String, byte[]> part : none.entrySet()) {
        zip.putNextEntry(new ZipEntry(part.getKey()));
        boolean relations = part.getKey().equals("xl/_rels/workbook.xml.rels");
        zip.write(
            relations
                ? utf8(
                    new String(part.getValue(), UTF_8)
                        .replace(
                            "</Relationships>",
                            "<Relationship Id=\"r9\" Type=\"http://schemas.openxmlformats.org/"
                                + "officeDocument/2006/relationships/sharedStrings\""
                                + " Target=\"sharedStrings.xml\"/></Relationships>"))
                : part.getValue());
      }
      zip.putNextEntry(new ZipEntry("xl/sharedStrings.xml"));
      zip.write(utf8("<sst xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\">"));
      byte[] some = utf8("<si><t>x</t></si>".repeat(1_000));
      for (int i = 0; i < texts / 1_000; i++) {
        zip.write(some);
      }
      zip.write(utf8("</sst>"));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toByteArray();
  }

  static Stream<Hostile> files() {
    return Stream.of(
        refused(
            "ods filled to the far corner",
            "too-much",
            () -> Sheets.ods(odsTable(odsRows(filled(16_384), 1_048_000)))),
        refused(
            "ods with more lines than a sheet has",
            "too-much",
            () -> Sheets.ods(odsTable(odsRows(filled(1), 99_999_999_999L)))),
        refused(
            "ods with a cell repeated for ever",
            "too-wide",
            () -> Sheets.ods(odsTable(odsRows(filled(2_000_000_000), 1)))),
        read(
            "ods with blank lines to the far corner",
            1,
            () ->
                Sheets.ods(
                    odsTable(
                        odsRows(filled(2), 1)
                            + odsRows(
                                "<table:table-cell table:number-columns-repeated=\"16384\"/>",
                                9_000_000_000_000_000_000L)))),
        read(
            "ods with one value for very many lines",
            200_000,
            () -> Sheets.ods(odsTable(odsRows(filled(2), 200_000)))),
        read(
            "ods number without end",
            1,
            () ->
                Sheets.ods(
                    odsTable(
                        odsRows(
                            "<table:table-cell office:value-type=\"float\""
                                + " office:value=\"1E999999999\"/>"
                                + filled(1),
                            1)))),
        read(
            "xlsx number without end",
            2,
            () ->
                Sheets.bareXlsx(
                    xlsxHead()
                        + xlsxRow(2, inline("A2", "a"), number("B2", "1E999999999"))
                        + xlsxRow(3, inline("A3", "b"), number("B3", "-1E-999999999")),
                    "",
                    "")),
        read("csv number without end", 2, () -> utf8("Reg;Feet\na;1E999999999\nb;1e-999999999\n")),
        read("json number without end", 1, () -> utf8("[{\"a\": 1E999999999, \"b\": \"x\"}]")),
        refused(
            "xlsx cell far beyond the last column",
            "too-wide",
            () -> Sheets.bareXlsx(xlsxHead() + xlsxRow(30, number("ZZZZZZ30", "1")), "", "")),
        refused(
            "xlsx cell right beyond the last column",
            "too-wide",
            () -> Sheets.bareXlsx(xlsxHead() + xlsxRow(2, number("XFE2", "1")), "", "")),
        read(
            "xlsx cell in the last column",
            1,
            () -> Sheets.bareXlsx(xlsxHead() + xlsxRow(2, number("XFD2", "1")), "", "")),
        refused(
            "five million columns", "too-wide", () -> repeated("a", ";a", 5_000_000, "\n1;2\n")),
        refused(
            "five million columns below titles",
            "too-wide",
            () -> repeated("a;b\n1;2\n1", ";1", 5_000_000, "\n")),
        refused("ten million shared texts", "too-much", () -> manyTexts(10_000_000)),
        read(
            "json key of 40,000 characters",
            1,
            () -> repeated("[{\"", "k", 40_000, "\": 1, \"b\": 2}]")),
        refused(
            "json key of 200,000 characters",
            "unreadable-json",
            () -> repeated("[{\"", "k", 200_000, "\": 1}]")),
        refused(
            "json object with a key of 200,000 characters",
            "unreadable-json",
            () -> repeated("{\"", "k", 200_000, "\": [1]}")),
        refused("json nested without end", "unreadable-json", () -> repeated("", "[", 100_000, "")),
        refused(
            "json objects nested without end",
            "unreadable-json",
            () -> repeated("", "{\"a\":", 100_000, "")),
        read("text that begins like json", 2, () -> utf8("[1] first;second\na;b\nc;d\n")),
        read("text that begins like an object", 2, () -> utf8("{a};b\n1;2\n3;4\n")),
        read("title of 200,000 characters", 2, () -> repeated("", "t", 200_000, ";b\n1;2\n")),
        refused(
            "a line without end", "too-long-cell", () -> repeated("a;b\n", "x", 11_000_000, "\n")),
        read("quotes and nothing else", 1, () -> repeated("a;b\n", "\"", 300_001, ";1\n")),
        refused("a NUL in a text", "nul-byte", () -> utf8("Reg;Name\nQH-1;Wr\u0000en\n")),
        refused(
            "xml entities that grow",
            "unreadable-workbook",
            () ->
                Sheets.ods(
                    odsTable(odsRows(Sheets.odsText("&b;"), 1)),
                    "<!DOCTYPE x [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;\">]>")));
  }

  @ParameterizedTest
  @MethodSource("files")
  void endsInTimeAndInWords(Hostile hostile) throws IOException {
    Path file = Files.write(folder.resolve("hostile"), hostile.bytes().get());
    assertTimeoutPreemptively(
        Duration.ofSeconds(SECONDS),
        () -> {
          Throwable thrown =
              catchThrowable(
                  () -> {
                    try (SourceTable table =
                        SourceReader.open(file, folder.resolve("cells"), Reading.FIND)) {
                      assertThat(table.rowCount()).isEqualTo(hostile.rows());
                    }
                  });
          if (hostile.code() == null) {
            assertThat(thrown).isNull();
          } else {
            assertThat(thrown)
                .isInstanceOfSatisfying(
                    PorterException.class,
                    e -> assertThat(e.code().word()).isEqualTo(hostile.code()))
                .hasMessageMatching("(?s)\\p{Lu}.*\\.");
          }
        });
    assertTimeoutPreemptively(
        Duration.ofSeconds(SECONDS),
        () -> {
          Throwable peeked =
              catchThrowable(
                  () -> SourceReader.peek(file, folder.resolve("peek"), Reading.FIND, 100).close());
          if (peeked != null) {
            assertThat(peeked).isInstanceOf(PorterException.class);
          }
        });
  }

  /** Nothing but the sentence is printed, also where a package is damaged. */
  @Test
  void damagedPackagesPrintNothing() throws IOException {
    byte[] whole = Sheets.ods(odsTable(odsRows(filled(2), 3)));
    byte[] broken =
        Sheets.ods(odsTable(odsRows(filled(2), 3)).replace("</table:table-row>", "</wrong>"));
    PrintStream before = System.err;
    ByteArrayOutputStream printed = new ByteArrayOutputStream();
    System.setErr(new PrintStream(printed, true, UTF_8));
    try {
      for (int cut : new int[] {whole.length / 3, whole.length / 2, whole.length - 30}) {
        Path file = Files.write(folder.resolve("cut.ods"), Arrays.copyOf(whole, cut));
        assertThat(catchThrowable(() -> SourceReader.open(file, folder.resolve("c"), Reading.FIND)))
            .isInstanceOf(PorterException.class);
      }
      Path file = Files.write(folder.resolve("broken.ods"), broken);
      assertThat(catchThrowable(() -> SourceReader.open(file, folder.resolve("c"), Reading.FIND)))
          .isInstanceOf(PorterException.class);
    } finally {
      System.setErr(before);
    }
    assertThat(printed.toString(UTF_8)).isEmpty();
  }

  @Test
  void numbersWithSpaceAroundThemAreNumbers() throws IOException {
    byte[] book =
        Sheets.bareXlsx(
            xlsxHead()
                + xlsxRow(2, inline("A2", "a"), number("B2", "\n  24.5 "))
                + xlsxRow(3, inline("A3", "b"), number("B3", " 1.5E+3\n")),
            "",
            "");
    Path file = Files.write(folder.resolve("spaced.xlsx"), book);
    try (SourceTable table = SourceReader.open(file, folder.resolve("c"), Reading.FIND)) {
      Batch batch = table.batch(0);
      assertThat(batch.columns()[1].cell(0).value()).hasToString("24.5");
      assertThat(batch.columns()[1].cell(1).value()).hasToString("1500");
    }
  }
}
