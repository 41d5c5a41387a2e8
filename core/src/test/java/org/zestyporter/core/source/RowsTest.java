package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.Pick;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.RowTest;
import org.zestyporter.core.source.reading.SkippedLine;
import org.zestyporter.core.source.reading.Span;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.PorterException;

/** Which rows are records, and what becomes of their columns. */
class RowsTest extends TestTables {
  private static final String BOATS =
      "Reg;Kind;Feet\nQH-1;sloop;28\nQH-2;yawl;31,5\nQH-3;Sloop ;40\nQH-4;;tbc\n";

  @Test
  void recordsAreTakenByNumber() throws IOException {
    SourceTable table = text(BOATS, Reading.FIND.withRecords(new Span(2, 3L)));
    assertThat(rows(table)).containsExactly("QH-2|yawl|31,5", "QH-3|Sloop |40");
    assertThat(lines(table)).containsExactly(3L, 4L);
    assertThat(rows(text(BOATS, Reading.FIND.withRecords(new Span(4, null))))).hasSize(1);
    assertThatThrownBy(() -> new Span(3, 2L)).isInstanceOf(PorterException.class);
  }

  @ParameterizedTest
  @CsvSource({
    "Kind,IS,SLOOP,QH-2 QH-4",
    "Kind,IS_NOT,sloop,QH-1 QH-3",
    "Kind,BLANK,,QH-1 QH-2 QH-3",
    "Kind,FILLED,,QH-4",
    "Kind,CONTAINS,loo,QH-2 QH-4",
    "Reg,BEGINS,qh-1,QH-2 QH-3 QH-4",
    "Feet,MORE,30,QH-1 QH-4",
    "Feet,LESS,31.6,QH-3 QH-4",
    "Feet,NO_NUMBER,,QH-1 QH-2 QH-3",
    "C,NO_NUMBER,,QH-1 QH-2 QH-3"
  })
  void rowsAreLeftOutByConditions(String column, RowTest.Test test, String value, String left)
      throws IOException {
    Reading reading =
        Reading.FIND.with(
            b ->
                b.leaveOut(List.of(new RowTest(column, test, value)))
                    .locale(new LocaleSettings(",", DateOrder.DAY_MONTH_YEAR)));
    SourceTable table = text(BOATS, reading);
    assertThat(rows(table).stream().map(r -> r.substring(0, 4))).containsExactly(left.split(" "));
    assertThat(table.evidence()).anyMatch(e -> e.value().equals("conditions"));
  }

  private static Reading where(String formula) {
    return Reading.FIND
        .withWhere(formula)
        .withLocale(new LocaleSettings(",", DateOrder.DAY_MONTH_YEAR));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "UPPER(TRIM([Kind])) = \"SLOOP\" | QH-1 QH-3",
        "AND([Feet] > 30; [Kind] <> \"sloop\") | QH-2 QH-3 QH-4",
        "ISBLANK([Kind]) | QH-4",
        "ISEVEN(LINE()) | QH-1 QH-3"
      })
  void aFormulaTellsWhichRowsAreRecords(String formula, String kept) throws IOException {
    SourceTable table = text(BOATS, where(formula));
    assertThat(rows(table).stream().map(r -> r.substring(0, 4))).containsExactly(kept.split(" "));
    assertThat(table.evidence()).anyMatch(e -> e.value().equals("conditions"));
  }

  /** A row for which it can't be told is not lost unseen. */
  @Test
  void aRowThatAFormulaCannotJudgeStays() throws IOException {
    assertThat(rows(text(BOATS, where("[Feet] > 100")))).containsExactly("QH-4||tbc");
  }

  @ParameterizedTest
  @CsvSource({
    "[Colour] = 1,no column “Colour”",
    "UPPER([Kind]),gives no yes or no",
    "[Feet] > YEAR(TODAY()),the date or time"
  })
  void aFormulaThatCanNotBeUsedIsRefused(String formula, String why) {
    assertThatThrownBy(() -> text(BOATS, Reading.FIND.withWhere(formula)))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining(why);
  }

  @Test
  void conditionOnAColumnThatIsNotThereIsRefused() {
    Reading reading =
        Reading.FIND.withLeaveOut(List.of(new RowTest("Colour", RowTest.Test.BLANK, null)));
    assertThatThrownBy(() -> text(BOATS, reading))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining("no column “Colour”, which a condition needs");
    assertThatThrownBy(() -> new RowTest("Kind", RowTest.Test.IS, null))
        .isInstanceOf(PorterException.class);
  }

  @Test
  void lineIsLeftOutOnlyAsLongAsItHoldsTheSame() throws IOException {
    Reading reading = Reading.FIND.withSkip(List.of(new SkippedLine(3, "QH-2")));
    assertThat(rows(text(BOATS, reading))).hasSize(3).noneMatch(r -> r.startsWith("QH-2"));
    assertThat(rows(text(BOATS.replace("QH-2", "QH-9"), reading))).hasSize(4);
  }

  @Test
  void recordsEndAfterBlankLines() throws IOException {
    String gaps = "a;b\n1;2\n\n3;4\n\n\n5;6\n";
    assertThat(rows(text(gaps))).hasSize(3);
    assertThat(rows(text(gaps, Reading.FIND.withStopAfterBlank(2)))).containsExactly("1|2", "3|4");
    assertThat(rows(text(gaps, Reading.FIND.withStopAfterBlank(1)))).containsExactly("1|2");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "Total",
        "SUMME:",
        "Ara toplam",
        "GENEL TOPLAM",
        "Razem",
        "Celkem",
        "Összesen",
        "Yhteensä",
        "Итого",
        "ВСЕГО:",
        "Разом",
        "Σύνολο",
        "合計",
        "小计",
        "합계",
        "Iš viso",
        "الإجمالي",
        "Tổng cộng",
        "TỔNG:",
        "Jumlah",
        "Samtals",
        "Барлығы",
        "รวม",
        "कुल"
      })
  void totalsOfManyLanguagesAreNoRecords(String word) throws IOException {
    String sums =
        "Reg;Name;Feet;Berth\nQH-1;Wren;8;4\n  %s;;8;\nQH-2;Auk;7;5\nQH-3;Tern;7;6\n%s;;14;\n"
            .formatted(word, word);
    assertThat(rows(text(sums, Reading.FIND)))
        .containsExactly("QH-1|Wren|8|4", "QH-2|Auk|7|5", "QH-3|Tern|7|6");
  }

  @Test
  void totalsAreRecordsIfAPersonSaysSo() throws IOException {
    String sums = "Reg;Name;Feet\nQH-1;Wren;8\nTotal;;8\nQH-2;Auk;7\nQH-3;Tern;7\n";
    assertThat(rows(text(sums))).hasSize(3);
    assertThat(text(sums).evidence()).anyMatch(e -> e.because().contains("line 3"));
    assertThat(rows(text(sums, Reading.FIND.withTotals(true)))).hasSize(4);
  }

  @Test
  void totalOnTheLastLineThatAPersonSaidIsARecord() throws IOException {
    String sums = "Reg;Name;Feet\nQH-1;Wren;8\nQH-2;Auk;7\nTotal;;15\n";
    assertThat(text(sums).reading().lastRow()).isEqualTo(3);
    SourceTable said = text(sums, Reading.FIND.withLastRow(4L));
    assertThat(rows(said)).hasSize(3).endsWith("Total||15");
  }

  @Test
  void titlesAndUnitsAreNoRecordsWhereverAPersonPutsThem() throws IOException {
    String sheet = "x;y\nReg;Feet\nQH-1;8\ntext;m\nQH-2;7\n";
    Reading reading = Reading.FIND.with(b -> b.titleRows(List.of(2L)).unitsRow(4L).firstRow(1L));
    SourceTable table = text(sheet, reading);
    assertThat(table.columns()).containsExactly("Reg", "Feet");
    assertThat(rows(table)).containsExactly("x|y", "QH-1|8", "QH-2|7");
    assertThat(lines(table)).containsExactly(1L, 3L, 5L);
    assertThat(table.isRecord(4)).isFalse();
    assertThat(table.isRecord(5)).isTrue();
  }

  @Test
  void columnsAreOmittedAndRenamed() throws IOException {
    Reading reading =
        Reading.FIND.with(b -> b.omit(List.of("Kind")).renamed(Map.of("Feet", "Length")));
    SourceTable table = text(BOATS, reading);
    assertThat(table.columns()).containsExactly("Reg", "Length");
    assertThat(rows(table).get(0)).isEqualTo("QH-1|28");
    assertThat(table.columnsInFile())
        .extracting(SourceTable.ColumnInFile::title)
        .containsExactly("Reg", "Kind", "Feet");
  }

  @Test
  void groupedCellsAreFilledDownAcrossChunks() throws IOException {
    StringBuilder content = new StringBuilder("Pontoon;Berth;Feet\n");
    int rows = SourceCache.CHUNK_ROWS + 20;
    for (int i = 0; i < rows; i++) {
      content.append(i % 4000 == 0 ? "P" + i : "").append(";B-").append(i).append(";").append(i);
      content.append('\n');
    }
    SourceTable table = text(content.toString(), Reading.FIND.withFillDown(List.of("Pontoon")));
    List<String> all = rows(table);
    assertThat(all.get(3999)).startsWith("P0|");
    assertThat(all.get(4000)).startsWith("P4000|");
    assertThat(all.get(rows - 1)).startsWith("P4000|");
    assertThat(table.profiles().get(0).blank()).isZero();
    assertThat(table.distinct(0).tallies().get(Cell.text("P0")).rows()).isEqualTo(4000);
  }

  @Test
  void fillDownIsProposedForGroups() throws IOException {
    StringBuilder content = new StringBuilder("Pontoon;Berth;Feet\n");
    for (int i = 0; i < 30; i++) {
      content.append(i % 10 == 0 ? "P" + i : "").append(";B-").append(i).append(";9\n");
    }
    assertThat(text(content.toString()).proposals().fillDown()).containsExactly("Pontoon");
    assertThat(text(BOATS).proposals().fillDown()).isEmpty();
  }

  @Test
  void pickedCellIsAColumnOfEveryRowAndFoundByItsLabel() throws IOException {
    String sheet = "Season;Winter;;\nOffice;Brask;;\n\nReg;Name;Kind;Feet\nQH-1;Wren;sloop;8\n";
    SourceTable found = text(sheet);
    assertThat(found.proposals().picks())
        .extracting(Pick::name, Pick::column, Pick::line)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple("Season", "B", 1L),
            org.assertj.core.groups.Tuple.tuple("Office", "B", 2L));
    Reading reading = Reading.FIND.withPicks(found.proposals().picks());
    SourceTable table = text(sheet, reading);
    assertThat(table.columns()).endsWith("Season", "Office");
    assertThat(rows(table)).containsExactly("QH-1|Wren|sloop|8|Winter|Brask");
    assertThat(table.proposals().picks()).isEmpty();
    SourceTable moved = text("Marina;;;\n;Season;Summer;\n" + sheet.substring(14), reading);
    assertThat(rows(moved).get(0)).endsWith("|Summer|Brask");
    SourceTable gone = text(sheet.replace("Season;Winter", "Year;2026"), reading);
    assertThat(rows(gone).get(0)).endsWith("||Brask");
  }

  @Test
  void blankWordsAreASettingOfThePersonIfSaid() throws IOException {
    String content = "Reg;Berth\nQH-1;-\nQH-2;none\nQH-3;A-01\n";
    SourceTable found = text(content);
    assertThat(found.reading().blankWords()).containsExactly("-");
    assertThat(found.profiles().get(1).blank()).isEqualTo(1);
    SourceTable said = text(content, Reading.FIND.withBlankWords(List.of("none")));
    assertThat(rows(said)).containsExactly("QH-1|-", "QH-2|", "QH-3|A-01");
    assertThat(rows(text(content, Reading.FIND.withBlankWords(List.of()))).get(0))
        .isEqualTo("QH-1|-");
  }

  @Test
  void sheetsOfOneShapeAreReadAsOne() throws IOException {
    byte[] book =
        Sheets.xlsx(
            b -> {
              for (String name : List.of("North", "South")) {
                var sheet = b.newWorksheet(name);
                sheet.value(0, 0, "Quillhaven, " + name);
                sheet.value(2, 0, "Meter");
                sheet.value(2, 1, "kWh");
                sheet.value(3, 0, name.charAt(0) + "-1");
                sheet.value(3, 1, 7);
                sheet.value(4, 0, name.charAt(0) + "-2");
                sheet.value(4, 1, 9);
              }
            });
    SourceTable table = bytes(book, Reading.FIND.withSheets(List.of("North", "South")));
    assertThat(table.columns()).containsExactly("Meter", "kWh", "Sheet");
    assertThat(rows(table))
        .containsExactly("N-1|7|North", "N-2|9|North", "S-1|7|South", "S-2|9|South");
    assertThat(table.part(10).sheet()).isEqualTo("South");
    assertThat(10 - table.part(10).linesBefore()).isEqualTo(5);
    assertThatThrownBy(() -> bytes(book, Reading.FIND.withSheets(List.of("North", "West"))))
        .hasMessageContaining("no sheet “West”");
  }

  /** A short sheet without titles is not taken for the heading of the next one, which has them. */
  @Test
  void sheetsWithoutTitlesKeepTheirRows() throws IOException {
    List<String> names = List.of("North", "East", "South");
    byte[] book =
        Sheets.xlsx(
            b -> {
              for (String name : names) {
                var sheet = b.newWorksheet(name);
                int at = 0;
                if (!name.equals("East")) {
                  sheet.value(at, 0, "Meter");
                  sheet.value(at++, 1, "kWh");
                }
                sheet.value(at, 0, name.charAt(0) + "-1");
                sheet.value(at, 1, 7);
              }
            });
    SourceTable table = bytes(book, Reading.FIND.withSheets(names));
    assertThat(rows(table)).containsExactly("N-1|7|North", "E-1|7|East", "S-1|7|South");
    assertThat(table.parts().stream().map(table::titlesOf)).containsExactly(1L, 2L, 4L);
  }
}
