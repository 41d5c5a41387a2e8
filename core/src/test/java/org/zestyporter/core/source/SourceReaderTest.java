package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.function.Consumer;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Letters;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

class SourceReaderTest {
  @TempDir Path folder;

  private SourceTable text(String content) throws IOException {
    return bytes(content.getBytes(StandardCharsets.UTF_8), Reading.FIND);
  }

  private SourceTable bytes(byte[] content, Reading wanted) throws IOException {
    Path file = Files.write(folder.resolve("file"), content);
    return SourceReader.open(file, folder.resolve("cache"), wanted);
  }

  private SourceTable workbook(Consumer<Worksheet> fill) throws IOException {
    Path file = folder.resolve("file.xlsx");
    try (OutputStream out = Files.newOutputStream(file);
        Workbook book = new Workbook(out, "test", "1.0")) {
      fill.accept(book.newWorksheet("Sheet"));
    }
    return SourceReader.open(file, folder.resolve("cache"), Reading.FIND);
  }

  private static String cell(SourceTable table, long row, int column) {
    Batch batch = table.batch(table.batchOf(row));
    return batch.columns()[column].cell((int) (row - batch.firstRow())).text();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '#',
      ignoreLeadingAndTrailingWhitespace = false,
      value = {"a;b;c#;", "a,b,c#,", "a\tb\tc#'\t'", "a|b|c#|"})
  void delimiterIsFound(String titles, String expected) throws IOException {
    String rows = titles.replace('a', '1').replace('b', '2').replace('c', '3') + "\n";
    try (SourceTable table = text(titles + "\n" + rows.repeat(5))) {
      assertThat(table.reading().delimiter()).isEqualTo(expected);
      assertThat(table.columns()).containsExactly("a", "b", "c");
      assertThat(table.rowCount()).isEqualTo(5);
    }
  }

  @Test
  void quotesHoldDelimitersQuotesAndLineBreaks() throws IOException {
    try (SourceTable table =
        text(
            "name,note\r\n\"Wren\",\"says \"\"hi\"\", twice\"\r\n\"Two\nlines\",x\r\nTern,y\r\n")) {
      assertThat(table.rowCount()).isEqualTo(3);
      assertThat(cell(table, 0, 1)).isEqualTo("says \"hi\", twice");
      assertThat(cell(table, 1, 0)).isEqualTo("Two\nlines");
      Batch batch = table.batch(0);
      assertThat(batch.lines()).containsExactly(2, 3, 5);
    }
  }

  @Test
  void aQuoteInsideAWordBeginsNoQuotedCell() throws IOException {
    String rows =
        """
        Pipe 5",3,oak; elm; ash
        Pipe 6,4,"elm, oak"
        Pipe 12 ",9,ash; oak; elm
        """;
    try (SourceTable table = text("ספר מסת\"ב,size,wood; kinds\n" + rows.repeat(3))) {
      assertThat(table.reading().delimiter()).isEqualTo(",");
      assertThat(table.columns()).containsExactly("ספר מסת\"ב", "size", "wood; kinds");
      assertThat(table.rowCount()).isEqualTo(9);
      assertThat(cell(table, 0, 0)).isEqualTo("Pipe 5\"");
      assertThat(cell(table, 1, 2)).isEqualTo("elm, oak");
      assertThat(cell(table, 2, 0)).isEqualTo("Pipe 12 \"");
      assertThat(table.evidence())
          .contains(new Evidence("delimiter", ",", "all of the first 10 lines part into 3 cells"));
    }
  }

  @Test
  void quotedCellsCountWhateverStandsInThem() throws IOException {
    try (SourceTable table = text("a;b\n1;\"Rr. \"\"Dibra\"\" 2\"\n2;\"x;y\"\n")) {
      assertThat(table.evidence())
          .contains(new Evidence("quote", "\"", "2 cells stand between them"));
    }
  }

  @Test
  void aQuoteThatNeverClosesIsTakenAsTextAndNamed() throws IOException {
    try (SourceTable table = text("a,b\n1,\"2\n3,4\n")) {
      assertThat(table.reading().quote()).isEmpty();
      assertThat(cell(table, 0, 1)).isEqualTo("\"2");
      assertThat(table.rowCount()).isEqualTo(2);
      assertThat(table.evidence())
          .anyMatch(e -> e.setting().equals("quote") && e.because().contains("line 2"));
    }
    byte[] content = "a,b\n1,\"2\n3,4\n".getBytes(StandardCharsets.UTF_8);
    assertThatThrownBy(() -> bytes(content, Reading.FIND.withQuote("\"")))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining("opened on line 2 is never closed");
  }

  @Test
  void titlesAreFoundBelowAHeadingAndTheTotalIsLeftOut() throws IOException {
    try (SourceTable table =
        text(
            "Quillhaven Marina;;\nPrinted;20.11.2026;\n;;\nReg;Name;Feet\nQH-1;Wren;8\nQH-2;Tern;9\n"
                + ";;\nQH-3;Auk;7\nTotal;;24\n")) {
      assertThat(table.reading().titleRows()).containsExactly(4L);
      assertThat(table.reading().firstRow()).isEqualTo(5);
      assertThat(table.reading().lastRow()).isEqualTo(8);
      assertThat(table.rowCount()).isEqualTo(3);
      assertThat(table.blankRows()).isEqualTo(1);
      assertThat(table.evidence()).extracting(Evidence::setting).contains("titles", "lastRow");
    }
  }

  @Test
  void blankAndRepeatedTitlesGetTheirLetter() throws IOException {
    Reading titled = Reading.FIND.withTitleRows(List.of(1L));
    try (SourceTable table =
        bytes("Name;;name\nWren;x;y\n".getBytes(StandardCharsets.UTF_8), titled)) {
      assertThat(table.columns()).containsExactly("Name", "Column B", "name (C)");
    }
  }

  @Test
  void tenThousandColumnsAreJustManyColumns() throws IOException {
    String titles = String.join(",", java.util.Collections.nCopies(9_999, "t")) + ",last";
    Reading titled = Reading.FIND.withTitleRows(List.of(1L));
    String row = "1,".repeat(9_999) + "2\n";
    try (SourceTable table =
        bytes((titles + "\n" + row).getBytes(StandardCharsets.UTF_8), titled)) {
      assertThat(table.columns()).hasSize(10_000).doesNotHaveDuplicates();
      assertThat(cell(table, 0, 9_999)).isEqualTo("2");
    }
  }

  @Test
  void oldLineEndsAndSpacesAroundValuesStay() throws IOException {
    try (SourceTable table = text("a;b\r1; 2 \r3;4\r")) {
      assertThat(table.rowCount()).isEqualTo(2);
      assertThat(cell(table, 0, 1)).isEqualTo(" 2 ");
    }
  }

  @Test
  void workbookCellsKeepTheirKind() throws IOException {
    try (SourceTable table =
        workbook(
            sheet -> {
              String[] titles = {"code", "size", "day", "moment", "flag"};
              for (int c = 0; c < titles.length; c++) {
                sheet.value(0, c, titles[c]);
              }
              sheet.value(1, 0, "0042");
              sheet.value(1, 1, new BigDecimal("9.8"));
              sheet.value(1, 2, LocalDate.of(2026, 11, 3));
              sheet.style(1, 2).format("dd.mm.yyyy").set();
              sheet.value(1, 3, LocalDateTime.of(2026, 11, 3, 7, 30));
              sheet.style(1, 3).format("yyyy-mm-dd hh:mm").set();
              sheet.value(1, 4, true);
            })) {
      Batch batch = table.batch(0);
      assertThat(batch.columns()[0].cell(0)).isEqualTo(new Cell(Cell.Kind.TEXT, "0042"));
      assertThat(batch.columns()[1].cell(0)).isEqualTo(new Cell(Cell.Kind.NUMBER, "9.8"));
      assertThat(batch.columns()[2].cell(0)).isEqualTo(new Cell(Cell.Kind.DATE, "2026-11-03"));
      assertThat(batch.columns()[3].cell(0))
          .isEqualTo(new Cell(Cell.Kind.DATETIME, "2026-11-03T07:30:00"));
      assertThat(batch.columns()[4].cell(0)).isEqualTo(new Cell(Cell.Kind.BOOLEAN, "true"));
    }
  }

  @Test
  void aPasswordIsToldFromAnOldWorkbook() {
    byte[] name = "EncryptedPackage".getBytes(StandardCharsets.UTF_16LE);
    byte[] file = new byte[600];
    byte[] magic = {(byte) 0xD0, (byte) 0xCF, 0x11, (byte) 0xE0};
    System.arraycopy(magic, 0, file, 0, magic.length);
    System.arraycopy(name, 0, file, 512, name.length);
    assertThatThrownBy(() -> bytes(file, Reading.FIND).close())
        .isInstanceOfSatisfying(
            PorterException.class,
            e -> assertThat(e.code()).isEqualTo(ErrorCode.PASSWORD_PROTECTED));
  }

  @Test
  void manyChunksKeepLinesAndOrder() throws IOException {
    StringBuilder content = new StringBuilder("n,name\n");
    int rows = SourceCache.CHUNK_ROWS * 2 + 100;
    for (int i = 0; i < rows; i++) {
      content.append(i).append(",v").append(i % 300).append('\n');
    }
    try (SourceTable table = text(content.toString())) {
      assertThat(table.rowCount()).isEqualTo(rows);
      assertThat(table.batches()).isEqualTo(3);
      assertThat(cell(table, 8000, 0)).isEqualTo("8000");
      assertThat(table.rowOfLine(8002)).isEqualTo(8000);
      assertThat(table.rowOfLine(rows + 500L)).isEqualTo(rows);
      assertThat(table.profiles().get(1).distinct()).isEqualTo(300);
      assertThat(table.raw().chunkOfLine(8002)).isEqualTo(1);
    }
  }

  @Test
  void changedLayoutWorksOnTheCacheAlone() throws IOException {
    Path file = Files.writeString(folder.resolve("file"), "a;b\n1;2\n3;4\n");
    Path cache = folder.resolve("cache");
    SourceReader.Parsed parsed = SourceReader.parse(file, cache, Reading.FIND);
    Files.delete(file);
    Reading second = Reading.FIND.withTitleRows(List.of(2L));
    try (SourceTable table = SourceReader.reopen(cache, parsed.withLayout(second))) {
      assertThat(table.columns()).containsExactly("1", "2");
      assertThat(table.rowCount()).isEqualTo(1);
    }
  }

  @Test
  void datesThatCannotBeToldAreAMatterToConfirm() throws IOException {
    try (SourceTable table = text("n;day\n1;01/02/2026\n2;03/04/2026\n")) {
      assertThat(table.warnings())
          .extracting(Warning::code)
          .containsExactly(WarningCode.AMBIGUOUS_DATES);
      assertThat(table.reading().locale().dateOrder()).isEqualTo(DateOrder.DAY_MONTH_YEAR);
    }
    try (SourceTable table = text("n;day\n1;01/02/2026\n2;03/14/2026\n")) {
      assertThat(table.warnings()).isEmpty();
      assertThat(table.reading().locale().dateOrder()).isEqualTo(DateOrder.MONTH_DAY_YEAR);
    }
  }

  @Test
  void lettersGoOnAfterZ() {
    assertThat(List.of(Letters.of(0), Letters.of(25), Letters.of(26), Letters.of(16383)))
        .containsExactly("A", "Z", "AA", "XFD");
  }
}
