package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.ValueType;

/** What is told of a file beside its values, and what a person is asked. */
class FindingsTest extends TestTables {

  private static Warning warning(SourceTable table, String code) {
    return table.warnings().stream()
        .filter(w -> w.code().word().equals(code))
        .findFirst()
        .orElseThrow(() -> new AssertionError(code + " in " + table.warnings()));
  }

  @Test
  void orderOfDatesIsDecidedByAllColumns() throws IOException {
    SourceTable table = text("a;b\n01.02.2026;13.05.2026\n03.04.2026;05.06.2026\n");
    assertThat(table.warnings()).isEmpty();
    assertThat(rows(table)).hasSize(2);
    assertThat(table.profiles().get(0).least()).isEqualTo("2026-02-01");
  }

  @Test
  void columnWithAnOrderOfItsOwnIsReadInIt() throws IOException {
    SourceTable table =
        text("a;b;c\n13.02.2026;05/14/2026;1\n14.04.2026;06/21/2026;2\n15.04.2026;07/03/2026;3\n");
    assertThat(table.profiles().get(1).least()).isEqualTo("2026-05-14");
    assertThat(table.profiles().get(1).misfits()).isEmpty();
    assertThat(warning(table, "other-date-order").confirm()).isTrue();
  }

  @Test
  void columnWithAnotherDecimalSignIsReadWithIt() throws IOException {
    SourceTable table = text("a;b\n1,5;2.75\n3,5;4.25\n7,5;5\n");
    assertThat(table.profiles()).extracting(ColumnProfile::type).containsOnly(ValueType.DECIMAL);
    assertThat(table.profiles().get(1).greatest()).isEqualTo("5");
    assertThat(table.profiles().get(1).locale().decimal())
        .isNotEqualTo(table.profiles().get(0).locale().decimal());
    assertThat(warning(table, "other-decimal").confirm()).isFalse();
  }

  @ParameterizedTest
  @ValueSource(strings = {"", "NA", "13.02.2026"})
  void typeOfAColumnIsTheSameWhetherTheOthersAreLookedAtOrNot(String more) throws IOException {
    String file =
        "a;b;c;d;e;f\n1,5;01.02.2026;x;;7;true\n3;05.06.2026;2;;8;false\n;%s;;;;\n".formatted(more);
    Reading said = Reading.FIND.withLocale(new LocaleSettings(",", DateOrder.DAY_MONTH_YEAR));
    List<ColumnProfile> profiles = text(file, said).profiles();
    assertThat(profiles).extracting(ColumnProfile::type).doesNotHaveDuplicates();
    SourceTable alone = text(file, said);
    for (int column = profiles.size() - 1; column >= 0; column--) {
      assertThat(alone.type(column)).isEqualTo(profiles.get(column).type());
      assertThat(alone.type(column)).isEqualTo(profiles.get(column).type());
    }
  }

  @Test
  void oneSignBeforeThreeFiguresIsAMatterToConfirm() throws IOException {
    String numbers = "n;kg\n1;1.204\n2;2.310\n";
    assertThat(warning(text(numbers), "ambiguous-decimals").rows()).isEqualTo(2);
    assertThat(text(numbers + "3;4.5\n").warnings()).isEmpty();
    assertThat(text(numbers.replace("2.310", "2,5")).profiles().get(1).greatest())
        .isEqualTo("1204");
  }

  @Test
  void aWordMayMeanBlankInOneColumnAndACountryInTheNext() throws IOException {
    SourceTable table = text("country;tons\nDE;1,5\nNA;2\nFR;NA\nNA;4,25\nPL;3\nSE;2\nDK;9\n");
    assertThat(table.profiles().get(1).type()).isEqualTo(ValueType.DECIMAL);
    assertThat(table.profiles().get(1).blank()).isEqualTo(1);
    assertThat(table.profiles().get(1).misfits()).isEmpty();
    assertThat(table.profiles().get(0).blank()).as("Namibia").isZero();
    assertThat(rows(table).get(1)).contains("NA");
  }

  @Test
  void aBlankColumnWithoutATitleIsNone() throws IOException {
    SourceTable table = text(";Reg;;Name;\n;QH-1;;Wren;\n;QH-2;;Auk;\n");
    assertThat(table.columns()).containsExactly("Reg", "Name");
    assertThat(text("Reg;;Name\nQH-1;x;Wren\nQH-2;;Auk\n").columns()).hasSize(3);
  }

  @Test
  void shortYearsAreAskedUntilTheCenturyIsSaid() throws IOException {
    String dates = "a;b\n1;31.03.27\n2;28.02.27\n3;30.04.2027\n";
    Warning asked = warning(text(dates), "short-years");
    assertThat(asked.confirm()).isTrue();
    assertThat(asked.rows()).isEqualTo(2);
    assertThat(asked.row()).isEqualTo(2);
    assertThat(text(dates, Reading.FIND.withCentury("20")).warnings()).isEmpty();
    SourceTable seen = text(dates, Reading.FIND.withConfirmed(List.of("short-years:b")));
    assertThat(warning(seen, "short-years").confirm()).isFalse();
  }

  @Test
  void damageBySpreadsheetsIsFlagged() throws IOException {
    SourceTable table =
        text("code;part\n1.23E+11;MAR-1\n4.56E+11;2-Mar\nAB12;SEP-9\nAB13;XK-3\nAB14;LM-7\n");
    assertThat(warning(table, "shortened-numbers").row()).isEqualTo(2);
    assertThat(warning(table, "dates-among-codes").message()).contains("2-Mar", "line");
  }

  @Test
  void codesKeepTheirZerosAndSaySo() throws IOException {
    SourceTable table = text("plz;n\n01067;1\n04109;2\n80331;3\n");
    assertThat(table.profiles().get(0).type()).isEqualTo(ValueType.TEXT);
    assertThat(warning(table, "leading-zeros").rows()).isEqualTo(2);
  }

  @Test
  void moneyIsReadAndSeveralCurrenciesAreAsked() throws IOException {
    SourceTable one = text("n;price\n1;€ 1.204,50\n2;€ 8,00\n3;(€ 12,25)\n");
    assertThat(one.profiles().get(1).type()).isEqualTo(ValueType.DECIMAL);
    assertThat(one.profiles().get(1).least()).isEqualTo("-12.25");
    assertThat(warning(one, "currency").confirm()).isFalse();
    SourceTable two = text("n;price\n1;€ 8,00\n2;8,00 GBP\n3;€ 9,50\n");
    assertThat(warning(two, "several-currencies").message()).contains("EUR, GBP");
  }

  @Test
  void brokenBytesAreProblemsWithTheirLine() throws IOException {
    byte[] bytes =
        ("name;n\n" + "Müller;1\n".repeat(120) + "Lef?vre;2\n").getBytes(StandardCharsets.UTF_8);
    bytes[bytes.length - "vre;2\n".length() - 1] = (byte) 0xE8;
    SourceTable table = bytes(bytes);
    Warning warning = warning(table, "undecodable");
    assertThat(warning.row()).isEqualTo(122);
    assertThat(warning.column()).isEqualTo("name");
    Object value = table.batch(0).columns()[0].cell(120).value();
    assertThat(value).isInstanceOf(org.zestyporter.core.value.Problem.class);
  }

  @Test
  void rowsOfAnotherWidthAreNamedByLine() throws IOException {
    SourceTable table = text("heading;;\na;b;c\n1;2;3\n1;2\n1;2;3;4\n");
    assertThat(table.warnings())
        .filteredOn(w -> w.code() == WarningCode.CELL_COUNT)
        .extracting(Warning::row, Warning::message)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple(4L, "2 cells where the titles have 3"),
            org.assertj.core.groups.Tuple.tuple(5L, "4 cells where the titles have 3"));
  }

  @Test
  void totalThatAgreesSaysSo() throws IOException {
    SourceTable table = text("Reg;Name;Feet\nQH-1;Wren;8\nQH-2;Auk;7\nTotal;2;\n");
    assertThat(table.evidence())
        .filteredOn(e -> e.setting().equals("lastRow"))
        .extracting(Evidence::because)
        .anyMatch(b -> b.contains("begins “Total”"))
        .anyMatch(b -> b.contains("its 2 is the number of records"));
  }

  @Test
  void everyCellIsJudgedBeyondTheDistinctOnesThatAreKept() throws IOException {
    StringBuilder content = new StringBuilder("n;code\n");
    int rows = org.zestyporter.core.value.DistinctValues.LIMIT + 5_000;
    for (int i = 0; i < rows; i++) {
      content.append(i).append(";").append(i == rows - 7 ? "tbc" : String.valueOf(100_000 + i));
      content.append('\n');
    }
    SourceTable table = text(content.toString());
    ColumnProfile column = table.profiles().get(1);
    assertThat(column.distinctCapped()).isTrue();
    assertThat(column.type()).isEqualTo(ValueType.WHOLE);
    assertThat(column.greatest()).isEqualTo(String.valueOf(100_000 + rows - 1));
    assertThat(column.misfits())
        .extracting(ColumnProfile.ValueCount::text, ColumnProfile.ValueCount::line)
        .containsExactly(org.assertj.core.groups.Tuple.tuple("tbc", (long) rows - 5));
  }

  @Test
  void oneCurrencyMayBeWrittenInManyWays() throws IOException {
    SourceTable one = text("No;Due\n1;€ 5,00\n2;7,10 EUR\n3;1,5 T€\n");
    assertThat(one.profiles().get(1).type()).isEqualTo(ValueType.DECIMAL);
    assertThat(one.warnings())
        .extracting(Warning::code)
        .doesNotContain(WarningCode.SEVERAL_CURRENCIES);
    SourceTable two = text("No;Due\n1;€ 5,00\n2;7,10 GBP\n3;£ 8,00\n");
    assertThat(two.warnings())
        .filteredOn(w -> w.code() == WarningCode.SEVERAL_CURRENCIES)
        .extracting(Warning::message)
        .singleElement()
        .asString()
        .contains("(EUR, GBP)");
  }

  @Test
  void wordsForBlankAreKnownInOtherLanguages() throws IOException {
    SourceTable table =
        text(
            "Nr;Ort;Tag\n1;k. A.;3.4.2026\n2;Kiel;#N/V\n3;n.v.t.;5.4.2026\n4;Ulm;s/d\n5;oak;6.4.2026\n");
    assertThat(table.profiles().get(1).blank()).isEqualTo(2);
    assertThat(table.profiles().get(2).blank()).isEqualTo(2);
    assertThat(table.profiles().get(2).type()).isEqualTo(ValueType.DATE);
  }
}
